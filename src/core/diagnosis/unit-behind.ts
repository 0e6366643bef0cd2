import type { Vector } from '../model/descriptor';
import { solveBackward, solveForward, triangleOf } from '../numeric/covariance';
import { spanOf, type ReadingEvidence } from './evidence';
import { keyOf, type Predictions } from './predictions';
import type { SharedErrors } from './shared-errors';

/** No unit lies further out along one way than this, in standard deviations. */
const FURTHEST = 3;
/** What is linear is as good as what is not within this part of what a reading may be out by itself. */
const GOOD_ENOUGH = 0.3;

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
  const solved = Float64Array.from(readings, (one, i) => errors.off(i, k, one.value));
  solveForward(l, size, size, solved);
  solveBackward(l, size, size, solved);
  const { set } = predictions;
  const unit = set.spread.map((_, way) => {
    const alone = set.spread.map((_one, other) => (other === way ? 1 : 0));
    const z = solved.reduce((sum, x, i) => sum + x * errors.byUnit(i, k, alone), 0);
    return Math.max(-FURTHEST, Math.min(FURTHEST, z));
  });
  const particle = set.particles[k]!;
  const parameters = set.withUnit(particle, unit);
  const shown = new Map<string, Vector>();
  const places = new Set(readings.map(({ place }) => place));
  const off = readings.some(({ state, place, random, shared }, i) => {
    const key = keyOf(state);
    const found = shown.get(key) ?? predictions.shown(state, parameters, places);
    shown.set(key, found);
    const linear = errors.expected(i, k) + errors.byUnit(i, k, unit);
    const most = GOOD_ENOUGH * Math.hypot(random, shared?.u ?? 0);
    // One that bends within all that units differ by may be straight within what the evidence leaves of it.
    return Math.abs(found[place]! - linear) > most || (!particle.about && errors.bent(i, k) > most);
  });
  return off ? unit : null;
}
