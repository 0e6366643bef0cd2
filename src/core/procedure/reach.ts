import { readingUncertainty_SI, type Measured } from '../metrology/uncertainty';
import type { Vector } from '../model/descriptor';
import { placeOf } from '../model/vectors';
import { type Family } from '../contract/family';
import { type RunContext } from '../contract/run-context';
import { inputsAt } from './inputs-at';
import type { ReadingItem } from '../contract/steps';
import type { RunState } from '../contract/run-state';

/** A gauge may be this far out of its class before a reading is called unlikely, as a part of the reading. */
const GAUGE_ALLOWANCE = 0.15;

/**
 * Whether a reading lies outside the reach of every fault of the family, at any severity, at the conditions read,
 * gauge error allowed for. Such a reading is kept only after the technician confirms it.
 *
 * @param reading the value as the gauge showed it
 * @returns the reach it lies outside of, or null where it is likely enough or nothing can be said
 */
export function outsideReach(
  family: Family,
  context: RunContext<unknown>,
  run: RunState,
  item: ReadingItem,
  reading: Measured,
): { low: number; high: number } | null {
  if (!family.readings.some(({ id }) => id === item.measures)) return null;
  const known = inputsAt(family, context, run, item);
  if (!known) return null;
  const inputs = known.map(({ value }) => value);
  const place = placeOf(family.readings, item.measures);
  const wanted = new Set([place]);
  const { values, tolerances } = family.healthy(context.profile);
  const doubt = 4 * readingUncertainty_SI(reading) + 4 * reading.instrument.step_Pa;
  // Faults come in pairs, and a unit without assist passes the input through: the reach goes down past that.
  const reach = { low: inputs[0]!, high: -Infinity };
  const bounds = () => ({
    low: 0.5 * reach.low - doubt,
    high: (1 + GAUGE_ALLOWANCE) * reach.high + doubt,
  });
  for (const parameters of unitsOf(family, values, tolerances)) {
    const at = family.steady(parameters, inputs, wanted)[place]!;
    reach.low = Math.min(reach.low, at);
    reach.high = Math.max(reach.high, at);
    // Further units only widen it: most readings are within reach of the first.
    const { low, high } = bounds();
    if (reading.value_SI >= low && reading.value_SI <= high) return null;
  }
  return bounds();
}

/** The healthy unit, those at the ends of its tolerances, and those with each fault. */
function* unitsOf(family: Family, values: Vector, tolerances: Vector): Generator<Vector> {
  yield values;
  for (const side of [1, -1]) yield values.map((v, i) => v + side * tolerances[i]!);
  for (const fault of family.faults) for (const severity of [0.5, 1]) yield fault.apply(values, severity);
}
