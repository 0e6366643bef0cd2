import type { Family } from '../contract/family';
import type { Vector } from '../model/descriptor';
import { libraryOf, UNKNOWN, type Beliefs, type Cause, type Library, type RepairClass } from './causes';
import type { Evidence } from './evidence';
import { ParticleSet, USUAL_SIZES, type Sizes } from './particles';
import { joined, likelihoodOf, picked, type Likelihood } from './likelihood';
import { oddest, unitBehind } from './unit-behind';
import { chancesAtGlance, posteriorOf, type Posterior, type Weighed } from './posterior';
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

/** Chance from which nothing known explains what was seen, however much is still to be read. */
const UNEXPLAINED_FROM = 0.5;
const SEED = 20_261_127;
/** Part of the work that has to do with what was read already, and of that what is done at a glance. */
const READ_PART = 0.7;
const GLANCE_PART = 0.6;
/** So many faults that explain the evidence best by themselves are looked at with every other one. */
const PARTNERS = 3;
/** A cause less likely than this at a glance has no part in what follows. */
const HAS_PART = 1e-4;
/**
 * Causes are looked at about the units that the evidence speaks of: those of one fault at first, then those of two as well; so many
 * at a time, each so often at the most, as long as they are not less likely than the likeliest by so much, a natural logarithm.
 */
const ROUNDS: readonly { readonly faults: number; readonly most: number }[] = [
  { faults: 1, most: 16 },
  { faults: 2, most: 12 },
  { faults: 2, most: 12 },
];
const MOST_TIMES = 2;
const FIRST_WITHIN = 40;
const AGAIN_WITHIN = 8;
/** The healthy one is looked at about the units of so many of the likeliest causes. */
const MOST_UNITS = 4;
/** A unit is its own where the evidence speaks by it of none further off, in standard deviations of each way. */
const ITS_OWN = 0.1;

/** Particles and how likely they make the evidence. */
interface Weighing {
  readonly of: readonly number[];
  readonly likelihood: Likelihood;
}

/** A cause with the ways in which it was laid out anew; null for the one that there was. */
interface Anew {
  readonly cause: Cause;
  readonly layouts: readonly (readonly number[] | null)[];
}

/** What of some evidence is a number, with its place. */
const numbersOf = (evidence: readonly Evidence[]) =>
  evidence.flatMap((one, piece) => (one.kind === 'reading' && one.off === null ? [{ one, piece }] : []));

/** The causes of one installation with their particles: laid out once, and kept while a run lasts. */
export class Diagnostician {
  private readonly library: Library;
  readonly set: ParticleSet;
  private readonly predictions: Predictions;

  constructor(
    private readonly family: Pick<Family, 'faults' | 'healthy' | 'views' | 'readings' | 'unexplainedFrom'>,
    profile: unknown,
    beliefs: Beliefs,
    private readonly sizes: Sizes = USUAL_SIZES,
  ) {
    this.library = libraryOf(family, profile, beliefs);
    this.set = new ParticleSet(family, profile);
    this.predictions = new Predictions(family, this.set);
  }

  /** States of which it is remembered what particles show there. */
  get statesHeld(): number {
    return this.predictions.statesHeld;
  }

  /**
   * What some evidence makes of every cause: first at a glance, with the pairs that are likeliest beforehand and those that
   * have a part in what is likeliest by now; then the likeliest finely, about the unit that the evidence speaks of by each.
   *
   * @param progress told how much is done, 0 to 1
   */
  posterior(evidence: readonly Evidence[], progress: (part: number) => void = () => {}): Posterior {
    const { library, predictions, set, sizes } = this;
    predictions.begin();
    const by = (of: readonly number[]) => likelihoodOf(evidence, predictions, of);
    const alone = [library.healthy, ...library.singles].flatMap((cause) => set.of(cause, sizes.coarse));
    this.predict(evidence, alone, (part) => progress(GLANCE_PART * part));
    const ofAlone = by(alone);
    const looked = new Set(library.pairs.slice(0, sizes.pairs));
    for (const pair of this.withLikeliest(alone, ofAlone.all)) looked.add(pair);
    const pairs = [...looked].flatMap((pair) => set.of(pair, sizes.coarse));
    const of = [...alone, ...pairs];
    const glance = joined([ofAlone, by(pairs)]);
    const { atMost, now } = chancesAtGlance(predictions, this.weighed(of, looked), glance);
    progress(GLANCE_PART);
    // What has no part even with any one piece left out is done with.
    const causes = new Set([...now.keys()].filter((cause) => atMost.get(cause)! >= HAS_PART));
    const left = of.flatMap((k, at) => (causes.has(set.particles[k]!.cause) ? [at] : []));
    // Those that last are laid out before any that are about a unit.
    for (const cause of causes) if (cause.faults.length > 0) set.of(cause, sizes.fine);
    let found: Weighing = { of: left.map((at) => of[at]!), likelihood: picked(glance, left) };
    const times = new Map<Cause, number>();
    for (const round of ROUNDS) found = this.aboutTheirUnits(evidence, found, looked, times, round);
    found = this.healthyAboutTheirs(evidence, found, looked);
    found = this.faultsAboutHealthy(evidence, found, looked);
    return posteriorOf(library, predictions, evidence, this.weighed(found.of, looked), found.likelihood);
  }

  /**
   * The causes that are likeliest anew, each about the unit that the evidence speaks of by it: what is linear about a unit as made
   * is not always so about that one.
   *
   * @param times how often each was looked at so; counted on
   */
  private aboutTheirUnits(
    evidence: readonly Evidence[],
    { of, likelihood }: Weighing,
    looked: ReadonlySet<Cause>,
    times: Map<Cause, number>,
    round: (typeof ROUNDS)[number],
  ): Weighing {
    const { predictions, set, sizes } = this;
    const pieces = numbersOf(evidence);
    if (pieces.length === 0) return { of, likelihood };
    const { prior } = this.weighed(of, looked);
    const sorted = this.likeliest(of, (at) => Math.log(prior[at]!) + likelihood.all[at]!);
    const likeliest = sorted
      .filter(([cause, { log }]) => {
        const before = times.get(cause) ?? 0;
        const within = before === 0 ? FIRST_WITHIN : AGAIN_WITHIN;
        return cause.faults.length <= round.faults && before < MOST_TIMES && log > sorted[0]![1].log - within;
      })
      .slice(0, round.most);
    const readings = pieces.map(({ one }) => one);
    const errors = new SharedErrors(
      readings,
      predictions,
      likeliest.map(([, { at }]) => of[at]!),
    );
    const anew = likeliest.flatMap(([cause, { at }]): Anew[] => {
      const before = times.get(cause) ?? 0;
      times.set(cause, before + 1);
      // What looks like a gross error about a unit as made may be none about its own: at first all of it counts.
      const gross = pieces.map(({ piece }) => (before > 0 ? likelihood.gross[piece]![at]! : 0));
      const k = of[at]!;
      const { severities } = set.particles[k]!;
      const behind = (not: readonly number[]) => unitBehind(readings, errors, not, predictions, k);
      const laidAbout = (unit: Vector) => this.laidAbout(cause, severities, unit);
      const unit = behind(gross);
      // One that a line puts far off may lie beyond a kink, where the line does not go: the rest speaks of another unit then.
      const odd = oddest(pieces.map(({ piece }) => likelihood.standing[piece]![at]!));
      const others = odd.flatMap((place) => {
        const other = behind(gross.with(place, 1));
        return other ? [other] : [];
      });
      // Where it is linear enough about a unit as made, it is laid out finely about that one.
      const fine = !unit && before === 0 && severities.length > 0;
      const layouts = [
        unit ? laidAbout(unit) : fine ? set.of(cause, sizes.fine) : null,
        ...others.map(laidAbout),
      ];
      return layouts.some((made) => made) ? [{ cause, layouts }] : [];
    });
    return anew.length === 0 ? { of, likelihood } : this.likelier(evidence, { of, likelihood }, anew);
  }

  /**
   * The healthy one also about the units that the likeliest faults were found about, and about those that the evidence speaks of from
   * there: across a kink no line leads from one as made to its own, and by a fault one may. So no fault is held against a healthy unit
   * other than the one that it is a fault of.
   */
  private healthyAboutTheirs(
    evidence: readonly Evidence[],
    found: Weighing,
    looked: ReadonlySet<Cause>,
  ): Weighing {
    const { predictions, set, sizes } = this;
    const { healthy } = this.library;
    const { prior } = this.weighed(found.of, looked);
    const units = this.likeliest(found.of, (at) => Math.log(prior[at]!) + found.likelihood.all[at]!)
      .slice(0, MOST_UNITS)
      .flatMap(([{ faults }, { at }]) => {
        const { about } = set.particles[found.of[at]!]!;
        return about && faults.length > 0 ? [about] : [];
      });
    if (units.length === 0) return found;
    const readings = numbersOf(evidence).map(({ one }) => one);
    const gross = readings.map(() => 0);
    const layouts: (readonly number[])[] = [];
    for (let times = 0, about = units; times <= MOST_TIMES && about.length > 0; times += 1) {
      const made = about.flatMap((unit) => set.about(healthy, sizes.about, unit, 0));
      const errors = new SharedErrors(readings, predictions, made);
      about = made.flatMap((k, i) => {
        const unit = unitBehind(readings, errors, gross, predictions, k);
        const on = unit?.some((z, way) => Math.abs(z - about[i]![way]!) > ITS_OWN);
        // From one that is not its own a line says what no unit shows.
        if (!on) layouts.push([k]);
        return unit && on ? [unit] : [];
      });
    }
    return this.likelier(evidence, found, [{ cause: healthy, layouts: [null, ...layouts] }]);
  }

  /**
   * Single faults also about the unit that the healthy one was found about, where that takes a reading for a gross error: by a fault
   * that shows there alone it is the same unit, and across a kink no line of the fault's own leads to it.
   */
  private faultsAboutHealthy(
    evidence: readonly Evidence[],
    found: Weighing,
    looked: ReadonlySet<Cause>,
  ): Weighing {
    const { set, library } = this;
    const { prior } = this.weighed(found.of, looked);
    const sorted = this.likeliest(found.of, (at) => Math.log(prior[at]!) + found.likelihood.all[at]!);
    const best = new Map(sorted);
    const healthy = best.get(library.healthy);
    const unit = healthy && set.particles[found.of[healthy.at]!]!.about;
    if (!unit || healthy.log < sorted[0]![1].log - FIRST_WITHIN) return found;
    if (!found.likelihood.gross.some((column) => column && column[healthy.at]! > 0.5)) return found;
    const anew = library.singles.map((cause): Anew => {
      const there = best.get(cause);
      const severities = there ? set.particles[found.of[there.at]!]!.severities : [0.5];
      const about = this.laidAbout(cause, severities, unit);
      return { cause, layouts: there ? [null, about] : [about] };
    });
    return this.likelier(evidence, found, anew);
  }

  /** A cause about a unit, led by the particle as severe. */
  private laidAbout(cause: Cause, severities: readonly number[], unit: Vector): readonly number[] {
    const { set, sizes } = this;
    const strata = cause.faults.length === 2 ? sizes.about.two : sizes.about.one;
    const lead = severities.reduce((sum, severity) => sum * strata + Math.floor(severity * strata), 0);
    return set.about(cause, sizes.about, unit, lead);
  }

  /** Each of some causes as it was laid out anew: where that is in several ways, by the one that makes the evidence likeliest. */
  private likelier(
    evidence: readonly Evidence[],
    { of, likelihood }: Weighing,
    anew: readonly Anew[],
  ): Weighing {
    const { predictions, set } = this;
    const made = anew.flatMap(({ layouts }) => layouts.flatMap((some) => some ?? []));
    const ofMade = likelihoodOf(evidence, predictions, made);
    const placeOf = new Map(made.map((k, at) => [k, at]));
    const wholeOf = (logs: readonly (readonly [k: number, log: number])[]) =>
      logs.reduce((sum, [k, log]) => sum + set.particles[k]!.share * Math.exp(log), 0);
    const chosen = new Set<number>();
    const gone = new Set<Cause>();
    for (const { cause, layouts } of anew) {
      const there = of.flatMap((k, at) =>
        set.particles[k]!.cause === cause ? [[k, likelihood.all[at]!] as const] : [],
      );
      const logs = layouts.map(
        (some) => some?.map((k) => [k, ofMade.all[placeOf.get(k)!]!] as const) ?? there,
      );
      const most = Math.max(...logs.flat().map(([, log]) => log));
      const wholes = logs.map((some) => wholeOf(some.map(([k, log]) => [k, log - most])));
      const best = layouts[wholes.indexOf(Math.max(...wholes))];
      if (!best) continue;
      gone.add(cause);
      for (const k of best) chosen.add(placeOf.get(k)!);
    }
    const kept = of.flatMap((k, at) => (gone.has(set.particles[k]!.cause) ? [] : [at]));
    const places = [...chosen];
    return {
      of: [...kept.map((at) => of[at]!), ...places.map((at) => made[at]!)],
      likelihood: joined([picked(likelihood, kept), picked(ofMade, places)]),
    };
  }

  /** Works out what some particles show where something was read: once, and kept. */
  private predict(
    evidence: readonly Evidence[],
    of: readonly number[],
    progress: (part: number) => void,
  ): void {
    evidence.forEach((one, i) => {
      if (one.kind === 'reading' && one.off === null) new SharedErrors([one], this.predictions, of);
      progress((i + 1) / evidence.length);
    });
  }

  /** Causes by the likeliest particle of each, with its place, the likeliest first. */
  private likeliest(of: readonly number[], logAt: (at: number) => number) {
    const best = new Map<Cause, { readonly at: number; readonly log: number }>();
    of.forEach((k, at) => {
      const { cause } = this.set.particles[k]!;
      const log = logAt(at);
      if (log > (best.get(cause)?.log ?? -Infinity)) best.set(cause, { at, log });
    });
    return [...best].sort(([, a], [, b]) => b.log - a.log);
  }

  /** Pairs of which one fault is among those that explain the evidence best by themselves. */
  private withLikeliest(alone: readonly number[], logs: Float64Array): Cause[] {
    const likeliest = this.likeliest(alone, (at) => logs[at]!)
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
  ): Diagnosis {
    const posterior = this.posterior(evidence, (part) => progress(READ_PART * part));
    const valued = valueTests(this.predictions, posterior, evidence, tests, waits, seeded(SEED), (part) =>
      progress(READ_PART + (1 - READ_PART) * part),
    );
    return { posterior, tests: valued, standing: standingOf(posterior, valued, this.family.unexplainedFrom) };
  }
}

/**
 * Whether to stop, and with what. Handbook-models 12.
 *
 * @param unexplainedFrom chance of the unknown cause from which nothing known explains what was seen, once the search is over
 */
export function standingOf(
  { classes, unknown }: Pick<Posterior, 'classes' | 'unknown'>,
  tests: readonly Pick<Valued, 'gain_bits'>[],
  unexplainedFrom = UNEXPLAINED_FROM,
): Standing {
  const unexplained = { is: 'unexplained', chance: unknown } as const;
  if (unknown >= UNEXPLAINED_FROM) return unexplained;
  const byChance = [...classes].sort(([, a], [, b]) => b - a);
  const [repair, chance] = byChance[0]!;
  const claimed = chance >= CLAIMED && repair !== UNKNOWN;
  if (!claimed && tests.some(({ gain_bits }) => gain_bits >= LEAST_BITS)) return { is: 'open' };
  // What explains it best may still explain it worse than a known fault ever does.
  if (unknown >= unexplainedFrom) return unexplained;
  if (claimed) return { is: 'claimed', repair, chance };
  const group: RepairClass[] = [];
  let together = 0;
  for (const [of, part] of byChance) {
    if (together >= CLAIMED) break;
    group.push(of);
    together += part;
  }
  return { is: 'not-told-apart', group };
}
