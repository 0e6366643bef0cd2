import type { Cause, Library, RepairClass } from './causes';
import type { Evidence } from './evidence';
import { likelihoodOf, unknownLog, type Likelihood } from './likelihood';
import type { Particle } from './particles';
import type { Predictions } from './predictions';
import { normalCdf } from '../numeric/normal';

/** A cause with its chance, and what each piece of evidence does to it. */
export interface Ranked {
  readonly cause: Cause;
  readonly chance: number;
  /**
   * How much each piece of evidence multiplies the odds of it, as a natural logarithm: what they are with it over what they
   * would be without it. In the order of the evidence.
   */
  readonly weighs: readonly number[];
}

/** A piece of evidence that the others leave hardly any room for, and the other one that it is at odds with. */
export interface AtOdds {
  readonly piece: number;
  /** Piece without which it would be at odds no more; −1 where no single one is. */
  readonly partner: number;
  /** Chance of a value so far out, or of such an answer, by all the rest. */
  readonly chance: number;
}

export interface Posterior {
  /** Every cause that was drawn, and the unknown one, the likeliest first. */
  readonly ranked: readonly Ranked[];
  readonly classes: ReadonlyMap<RepairClass, number>;
  /** The particles that were weighed, and the chance of each; together with the unknown cause they make 1. */
  readonly of: readonly number[];
  readonly weights: Float64Array;
  readonly unknown: number;
  /** Chance that each piece was a gross error, by each particle; nothing for looks. */
  readonly grossBy: Likelihood['gross'];
  readonly atOdds: readonly AtOdds[];
  /** Piece that does the most for the unknown cause: the one that clashes most with all that is known. −1 where none does. */
  readonly clash: number;
}

/** Evidence is at odds with the rest where a value so far out is rarer than this among as many pieces. Handbook-models 12. */
const RARE = 0.01;
/** So many pieces, the rarest by all the rest, are looked at as partners of each other. */
const LOOKED_AT = 4;
/** A particle less likely than this has no part in what is believed. */
const NO_PART = 1e-9;

/** Particles with the chance that each has beforehand. */
export interface Weighed {
  readonly of: readonly number[];
  readonly prior: Float64Array;
}

/**
 * What all of the evidence together makes of every cause. The same whatever order it came in.
 *
 * @param likelihood of all of the evidence, by those particles
 */
export function posteriorOf(
  library: Library,
  predictions: Predictions,
  evidence: readonly Evidence[],
  { of, prior }: Weighed,
  likelihood: Likelihood,
): Posterior {
  const particles = of.map((k) => predictions.set.particles[k]!);
  const pieces = evidence.map((_, i) => i);
  const logUnknown = (left: readonly number[]) =>
    Math.log(library.unknown.prior) + unknownLog(left.map((i) => evidence[i]!));
  const { weights, unknown, logOddsUnknown } = weighed(prior, likelihood.all, logUnknown(pieces));
  const chances = byCause(particles, weights);
  chances.set(library.unknown, unknown);
  const leftOut = pieces.map((piece) => {
    const found = weighed(
      prior,
      likelihood.without[piece]!,
      logUnknown(pieces.filter((other) => other !== piece)),
    );
    const by = byCause(particles, found.weights);
    by.set(library.unknown, found.unknown);
    return { ...found, by };
  });
  const ranked = [...chances]
    .map(([cause, chance]) => ({
      cause,
      chance,
      weighs: leftOut.map(({ by }) => logOdds(chance) - logOdds(by.get(cause) ?? 0)),
    }))
    .sort((a, b) => b.chance - a.chance);
  const forUnknown = leftOut.map((found) => logOddsUnknown - found.logOddsUnknown);
  const most = Math.max(0, ...forUnknown);
  const classes = new Map<RepairClass, number>();
  for (const { cause, chance } of ranked)
    classes.set(cause.repair, (classes.get(cause.repair) ?? 0) + chance);
  return {
    ranked,
    classes,
    of,
    weights,
    unknown,
    grossBy: likelihood.gross,
    atOdds: atOdds(library, predictions, evidence, { of, prior }, likelihood, leftOut),
    clash: most > 0 ? forUnknown.indexOf(most) : -1,
  };
}

/** Least chance told apart from none, and least that something is wanting to a sure thing, so that odds stay finite. */
const LEAST = 1e-100;
const LEAST_WANTING = 1e-12;
const logOdds = (chance: number) =>
  Math.log(Math.max(LEAST, chance)) - Math.log(Math.max(LEAST_WANTING, 1 - chance));

/** Chances of the particles and of the unknown cause, from how likely they make the evidence. */
function weighed(prior: Float64Array, logs: Float64Array, logUnknown: number) {
  let most = -Infinity;
  for (let k = 0; k < logs.length; k += 1) if (logs[k]! > most) most = logs[k]!;
  const weights = new Float64Array(logs.length);
  let known = 0;
  for (let k = 0; k < logs.length; k += 1) {
    const weight = prior[k]! * Math.exp(logs[k]! - most);
    weights[k] = weight;
    known += weight;
  }
  // How far the unknown cause is ahead of all that is known together, however far that is.
  const logOddsUnknown = logUnknown - most - Math.log(known);
  const unknown = 1 / (1 + Math.exp(-logOddsUnknown));
  const part = 1 / (1 + Math.exp(logOddsUnknown));
  for (let k = 0; k < logs.length; k += 1) weights[k]! *= part / known;
  return { weights, unknown, logOddsUnknown };
}

/**
 * Chances of causes by all of the evidence, and the most that each has with any one piece left out, as far as they are known: what
 * explains it best is looked at finely even where nothing explains it well.
 */
export function chancesAtGlance(
  { set }: Predictions,
  { of, prior }: Weighed,
  { all, without }: Likelihood,
): { readonly now: ReadonlyMap<Cause, number>; readonly atMost: ReadonlyMap<Cause, number> } {
  const particles = of.map((k) => set.particles[k]!);
  const by = (logs: Float64Array) => byCause(particles, weighed(prior, logs, -Infinity).weights);
  const now = by(all);
  const atMost = new Map(now);
  for (const logs of without)
    for (const [cause, chance] of by(logs)) if (chance > atMost.get(cause)!) atMost.set(cause, chance);
  return { now, atMost };
}

/** Chances of causes: those of the particles that stand for each, of one cause one behind the other. */
function byCause(particles: readonly Particle[], weights: Float64Array): Map<Cause, number> {
  const chances = new Map<Cause, number>();
  for (let from = 0; from < particles.length;) {
    const { cause } = particles[from]!;
    let to = from;
    let sum = 0;
    for (; to < particles.length && particles[to]!.cause === cause; to += 1) sum += weights[to]!;
    chances.set(cause, (chances.get(cause) ?? 0) + sum);
    from = to;
  }
  return chances;
}

/** Chance of a piece of evidence so far out as it is, by what the others leave. */
function chanceOf(
  piece: number,
  one: Evidence,
  { standing, all, without }: Likelihood,
  { weights, unknown }: { readonly weights: Float64Array; readonly unknown: number },
): number {
  if (one.kind === 'look' || one.off) {
    let chance = unknown / 2;
    for (let k = 0; k < weights.length; k += 1)
      if (weights[k]! > 0) chance += weights[k]! * Math.exp(all[k]! - without[piece]![k]!);
    return chance;
  }
  // By an unknown cause any value is as likely as any other.
  let below = unknown / 2;
  const z = standing[piece]!;
  for (let k = 0; k < weights.length; k += 1) if (weights[k]! > 0) below += weights[k]! * normalCdf(z[k]!);
  return 2 * Math.min(below, 1 - below);
}

function atOdds(
  library: Library,
  predictions: Predictions,
  evidence: readonly Evidence[],
  { of, prior }: Weighed,
  likelihood: Likelihood,
  leftOut: readonly { readonly weights: Float64Array; readonly unknown: number }[],
): AtOdds[] {
  const rare = RARE / evidence.length;
  if (evidence.length < 2) return [];
  const chances = evidence.map((one, piece) => chanceOf(piece, one, likelihood, leftOut[piece]!));
  // Of two that are at odds each is rare by the rest: a partner is looked for among the rarest.
  const rarest = chances
    .map((_, piece) => piece)
    .sort((a, b) => chances[a]! - chances[b]!)
    .slice(0, LOOKED_AT);
  if (!rarest.some((piece) => chances[piece]! < rare)) return [];
  // Particles that have a part in what is believed without one piece or another.
  const places = of.flatMap((_, at) => (leftOut.some(({ weights }) => weights[at]! > NO_PART) ? [at] : []));
  const some = places.map((at) => of[at]!);
  const priors = Float64Array.from(places, (at) => prior[at]!);
  const without = new Map(
    rarest.map((other) => {
      const left = evidence.filter((_, i) => i !== other);
      return [other, { left, likelihood: likelihoodOf(left, predictions, some) }];
    }),
  );
  return rarest
    .filter((piece) => chances[piece]! < rare)
    .map((piece): AtOdds => {
      // Its partner is the one without which it stands best.
      let [partner, best] = [-1, rare];
      for (const [other, { left, likelihood: again }] of without) {
        if (other === piece) continue;
        const at = left.indexOf(evidence[piece]!);
        const logUnknown = Math.log(library.unknown.prior) + unknownLog(left.filter((_, i) => i !== at));
        const found = chanceOf(at, left[at]!, again, weighed(priors, again.without[at]!, logUnknown));
        if (found > best) [partner, best] = [other, found];
      }
      return { piece, partner, chance: chances[piece]! };
    });
}
