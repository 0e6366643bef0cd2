import type { Vector } from '../model/descriptor';
import { solveBackward, solveForward, triangleOf } from '../numeric/covariance';
import { spanOf, type ReadingEvidence } from './evidence';
import { keyOf, type Predictions } from './predictions';
import type { SharedErrors } from './shared-errors';

/** No unit lies further out along one way than this, in standard deviations. */
const FURTHEST = 3;
/** What is linear is as good as what is not within this part of what a reading may be out by itself. */
const GOOD_ENOUGH = 0.3;
/** To be beside a kink a unit is moved so many times as far as is looked at about it. */
const BEYOND = 2;

/** A number that lies further than this from what the others leave to be expected of it is odd, in standard deviations. */
const ODD = 3;
/** Where two contradict each other either may be the odd one: so many are. */
const MOST_ODD = 2;

/**
 * Places of the numbers that lie furthest from what the others leave to be expected of them, the furthest first; none where none lies far.
 *
 * @param standing of each number, in standard deviations
 */
export const oddest = (standing: readonly number[]): number[] =>
  standing
    .map((z, place) => ({ off: Math.abs(z), place }))
    .filter(({ off }) => off > ODD)
    .sort((one, other) => other.off - one.off)
    .slice(0, MOST_ODD)
    .map(({ place }) => place);

/**
 * The unit that numbers speak of by one particle, in standard deviations of each way in which units differ, given all that they
 * share: E[z] = Sᵀ·Σ⁻¹·(y − f). Null where the particle is linear enough about it as it is.
 *
 * @param errors what these numbers have in common by some particles, this one among them
 * @param gross chance that each number has nothing to do with what stood there
 */
export function unitBehind(
  readings: readonly ReadingEvidence[],
  errors: SharedErrors,
  gross: readonly number[],
  predictions: Predictions,
  k: number,
): Vector | null {
  const size = readings.length;
  const l = new Float64Array(size ** 2);
  errors.covariance(k, l);
  readings.forEach((one, i) => {
    if (gross[i]! > 0.5) l[i * size + i]! += spanOf(one) ** 2;
  });
  triangleOf(l, size);
  const { set } = predictions;
  /** The unit by how far each number is off. */
  const meanBy = (off: (i: number) => number) => {
    const solved = Float64Array.from(readings, (_, i) => off(i));
    solveForward(l, size, size, solved);
    solveBackward(l, size, size, solved);
    return set.spread.map((_, way) => {
      const alone = set.spread.map((_one, other) => (other === way ? 1 : 0));
      const z = solved.reduce((sum, x, i) => sum + x * errors.byUnit(i, k, alone), 0);
      return Math.max(-FURTHEST, Math.min(FURTHEST, z));
    });
  };
  const offBy = (i: number) => errors.off(i, k, readings[i]!.value);
  const unit = meanBy(offBy);
  const particle = set.particles[k]!;
  const places = new Set(readings.map(({ place }) => place));
  const most = readings.map(({ random, shared }) => GOOD_ENOUGH * Math.hypot(random, shared?.u ?? 0));
  /** What each reading would be of a unit. */
  const showing = (of: Vector) => {
    const parameters = set.withUnit(particle, of);
    const shown = new Map<string, Vector>();
    return readings.map(({ state, place }) => {
      const key = keyOf(state);
      const found = shown.get(key) ?? predictions.shown(state, parameters, places);
      shown.set(key, found);
      return found[place]!;
    });
  };
  const shown = showing(unit);
  // At a kink half of all units read the same, which no line with something about it says: it is left for where they do.
  const kinks = particle.about ? readings.map((_, i) => errors.kink(i, k, most[i]!)) : [];
  if (kinks.some((kink) => kink !== 0)) {
    const beside = meanBy((i) => offBy(i) + BEYOND * kinks[i]!);
    const there = showing(beside);
    if (
      readings.every(({ value }, i) => Math.abs(value - there[i]!) <= Math.abs(value - shown[i]!) + most[i]!)
    )
      return beside;
  }
  const off = readings.some(
    (_, i) =>
      Math.abs(shown[i]! - errors.expected(i, k) - errors.byUnit(i, k, unit)) > most[i]! ||
      // One that bends within all that units differ by may be straight within what the evidence leaves of it.
      (!particle.about && errors.bent(i, k) > most[i]!),
  );
  return off ? unit : null;
}
