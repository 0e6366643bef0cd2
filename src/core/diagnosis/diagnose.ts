import type { Family } from '../contract/family';
import { libraryOf, UNKNOWN, type Beliefs, type Library, type RepairClass } from './causes';
import type { Evidence } from './evidence';
import { layOut, USUAL_SIZES, type Sizes } from './particles';
import { posteriorOf, type Posterior } from './posterior';
import { Predictions } from './predictions';
import { LEAST_BITS, valueTests, type PossibleTest, type Valued } from './next-test';
import { SharedErrors } from './shared-errors';
import { seeded } from '../numeric/chance';

/** A repair is claimed where its class is at least this likely. Handbook-models 12. */
export const CLAIMED = 0.95;

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
/** Part of the work that has to do with what was read already. */
const READ_PART = 0.5;

/** The causes of one installation with their particles: laid out once, and kept while a run lasts. */
export class Diagnostician {
  readonly library: Library;
  readonly predictions: Predictions;

  constructor(
    family: Pick<Family, 'faults' | 'healthy' | 'views' | 'readings'>,
    profile: unknown,
    beliefs: Beliefs,
    sizes: Sizes = USUAL_SIZES,
  ) {
    this.library = libraryOf(family, profile, beliefs);
    this.predictions = new Predictions(family, layOut(family, profile, this.library, sizes));
  }

  /** Works out what every particle shows where something was read: once, and kept. */
  private predict(evidence: readonly Evidence[], progress: (part: number) => void): void {
    evidence.forEach((one, i) => {
      if (one.kind === 'reading' && one.off === null) new SharedErrors([one], this.predictions);
      progress((i + 1) / evidence.length);
    });
  }

  /** What some evidence makes of every cause. */
  posterior(evidence: readonly Evidence[]): Posterior {
    return posteriorOf(this.library, this.predictions, evidence);
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
    this.predict(evidence, (part) => progress(READ_PART * part));
    const posterior = this.posterior(evidence);
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
