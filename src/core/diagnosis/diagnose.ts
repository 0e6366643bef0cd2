import type { Family } from '../contract/family';
import { libraryOf, UNKNOWN, type Beliefs, type Cause, type Library, type RepairClass } from './causes';
import type { Evidence } from './evidence';
import { ParticleSet, USUAL_SIZES, type Sizes } from './particles';
import { behind, joined, likelihoodOf, picked, unknownLog } from './likelihood';
import { chancesOf, posteriorOf, type Posterior, type Weighed } from './posterior';
import { Predictions } from './predictions';
import { LEAST_BITS, valueTests, type PossibleTest, type Valued } from './next-test';
import { SharedErrors } from './shared-errors';
import { seeded } from '../numeric/chance';

/** A repair is claimed where its class is at least this likely. Handbook-models 12. */
const CLAIMED = 0.95;

/** Where the search for the cause stands. */
export type Standing =
  /** One repair is as good as sure. */
  | { readonly is: 'claimed'; readonly repair: RepairClass; readonly chance: number }
  /** Nothing of what is known explains it. */
  | { readonly is: 'unexplained'; readonly chance: number }
  /** No test that can be done here tells more: these repairs together are as good as sure. */
  | { readonly is: 'not-told-apart'; readonly group: readonly RepairClass[] }
  | { readonly is: 'open' };

/** What is known, and what to do next. */
export interface Diagnosis {
  readonly posterior: Posterior;
  readonly tests: readonly Valued[];
  readonly standing: Standing;
}

/** Chance from which nothing known explains what was seen, where a family has no figure of its own. */
const USUAL_THRESHOLD = 0.5;
const SEED = 20_261_127;
/** Part of the work that has to do with what was read already, and of that what is done at a glance. */
const READ_PART = 0.7;
const GLANCE_PART = 0.6;
/** So many faults that explain the evidence best by themselves are looked at with every other one. */
const PARTNERS = 3;
/** A pair may be the cause from this chance on at a glance; so many at the most are laid out finely. */
const MAY_BE = 0.003;
const MOST_FINE = 10;

/** The causes of one installation with their particles: laid out once, and kept while a run lasts. */
export class Diagnostician {
  private readonly library: Library;
  private readonly set: ParticleSet;
  private readonly predictions: Predictions;

  constructor(
    family: Pick<Family, 'faults' | 'healthy' | 'views' | 'readings'>,
    profile: unknown,
    beliefs: Beliefs,
    private readonly sizes: Sizes = USUAL_SIZES,
  ) {
    this.library = libraryOf(family, profile, beliefs);
    this.set = new ParticleSet(family, profile, this.library, sizes);
    this.predictions = new Predictions(family, this.set);
  }

  /**
   * What some evidence makes of every cause: first at a glance, with the pairs that are likeliest beforehand and those that
   * have a part in what is likeliest by now; then every pair that may be the cause is laid out finely.
   *
   * @param progress told how much is done, 0 to 1
   */
  posterior(evidence: readonly Evidence[], progress: (part: number) => void = () => {}): Posterior {
    const { library, predictions, set, sizes } = this;
    this.predict(evidence, (part) => progress(GLANCE_PART * part));
    const by = (of: readonly number[]) => likelihoodOf(evidence, predictions, of);
    const ofPairs = (pairs: readonly Cause[], strata: number) => ({
      pairs,
      of: pairs.flatMap((pair) => set.pair(pair, strata)),
    });
    const alone = by(set.singles);
    const looked = new Set(library.pairs.slice(0, sizes.pairs));
    for (const pair of this.withLikeliest(alone.all)) looked.add(pair);
    const coarse = ofPairs([...looked], sizes.coarse);
    const glance = by(coarse.of);
    const atGlance = chancesOf(
      predictions,
      this.weighed([...set.singles, ...coarse.of], looked),
      behind([alone.all, glance.all]),
      Math.log(library.unknown.prior) + unknownLog(evidence),
    );
    progress(GLANCE_PART);
    const mayBe = coarse.pairs
      .filter((pair) => (atGlance.get(pair) ?? 0) >= MAY_BE)
      .sort((a, b) => atGlance.get(b)! - atGlance.get(a)!)
      .slice(0, MOST_FINE);
    const fine = ofPairs(mayBe, sizes.fine).of;
    const left = coarse.of.flatMap((k, at) => (mayBe.includes(set.particles[k]!.cause) ? [] : [at]));
    return posteriorOf(
      library,
      predictions,
      evidence,
      this.weighed([...set.singles, ...left.map((at) => coarse.of[at]!), ...fine], looked),
      joined([alone, picked(glance, left), by(fine)]),
    );
  }

  /** Works out what the particles show where something was read: once, and kept. */
  private predict(evidence: readonly Evidence[], progress: (part: number) => void): void {
    evidence.forEach((one, i) => {
      if (one.kind === 'reading' && one.off === null)
        new SharedErrors([one], this.predictions, this.set.singles);
      progress((i + 1) / evidence.length);
    });
  }

  /** Pairs of which one fault is among those that explain the evidence best by themselves. */
  private withLikeliest(alone: Float64Array): Cause[] {
    const best = new Map<Cause, number>();
    this.set.singles.forEach((k, at) => {
      const { cause } = this.set.particles[k]!;
      best.set(cause, Math.max(best.get(cause) ?? -Infinity, alone[at]!));
    });
    const likeliest = [...best]
      .sort(([, a], [, b]) => b - a)
      .slice(0, PARTNERS)
      .flatMap(([{ faults }]) => faults);
    return this.library.pairs.filter(({ faults }) => faults.some((fault) => likeliest.includes(fault)));
  }

  /** Particles with the chances that they have beforehand. The pairs looked at stand for all pairs. */
  private weighed(of: readonly number[], looked: ReadonlySet<Cause>): Weighed {
    const { library, set } = this;
    const [whole, part] = [library.pairs, [...looked]].map((some) =>
      some.reduce((sum, { prior }) => sum + prior, 0),
    );
    const prior = Float64Array.from(of, (k) => {
      const { cause, share } = set.particles[k]!;
      return cause.prior * share * (cause.faults.length > 1 ? whole! / part! : 1);
    });
    return { of, prior };
  }

  /**
   * What the evidence says, and which of some tests tells the most.
   *
   * @param tests those whose gates are open
   * @param waits part of a wait that counts
   * @param progress told how much is done, 0 to 1
   */
  diagnose(
    evidence: readonly Evidence[],
    tests: readonly PossibleTest[],
    waits: number,
    progress: (part: number) => void = () => {},
    threshold = USUAL_THRESHOLD,
  ): Diagnosis {
    const posterior = this.posterior(evidence, (part) => progress(READ_PART * part));
    const valued = valueTests(this.predictions, posterior, evidence, tests, waits, seeded(SEED), (part) =>
      progress(READ_PART + (1 - READ_PART) * part),
    );
    return { posterior, tests: valued, standing: standingOf(posterior, valued, threshold) };
  }
}

/** Whether to stop, and with what. Handbook-models 12. */
export function standingOf(
  { classes, unknown }: Pick<Posterior, 'classes' | 'unknown'>,
  tests: readonly Pick<Valued, 'gain_bits'>[],
  threshold: number,
): Standing {
  if (unknown >= threshold) return { is: 'unexplained', chance: unknown };
  const byChance = [...classes].sort(([, a], [, b]) => b - a);
  const [repair, chance] = byChance[0]!;
  if (chance >= CLAIMED && repair !== UNKNOWN) return { is: 'claimed', repair, chance };
  if (tests.some(({ gain_bits }) => gain_bits >= LEAST_BITS)) return { is: 'open' };
  const group: RepairClass[] = [];
  let together = 0;
  for (const [of, part] of byChance) {
    if (together >= CLAIMED) break;
    group.push(of);
    together += part;
  }
  return { is: 'not-told-apart', group };
}
