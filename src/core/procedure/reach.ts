import { readingUncertainty_SI, type Measured } from '../metrology/uncertainty';
import { placeOf } from '../model/vectors';
import { type Family } from '../contract/family';
import { type RunContext } from '../contract/run-context';
import { inputsAt } from './predict';
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
  const { values, tolerances } = family.healthy(context.profile);
  const units = [values, values.map((v, i) => v + tolerances[i]!), values.map((v, i) => v - tolerances[i]!)];
  for (const fault of family.faults)
    for (const severity of [0.5, 1]) units.push([...fault.apply(values, severity)]);
  const reach = units.map((parameters) => family.steady(parameters, inputs)[place]!);
  const doubt = 4 * readingUncertainty_SI(reading) + 4 * reading.instrument.step_Pa;
  // Faults come in pairs, and a unit without assist passes the input through: the reach goes down past that.
  const low = 0.5 * Math.min(...reach, inputs[0]!) - doubt;
  const high = (1 + GAUGE_ALLOWANCE) * Math.max(...reach) + doubt;
  return reading.value_SI < low || reading.value_SI > high ? { low, high } : null;
}
