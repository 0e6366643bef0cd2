import type { Limits } from '../metrology/verdict';
import { readingUncertainty_SI, type Term } from '../metrology/uncertainty';
import { extremesOf, placeOf, type HealthyUnit } from '../model/vectors';
import { type Family } from '../contract/family';
import { type RunContext } from '../contract/run-context';
import { type Vector } from '../model/descriptor';
import type { ReadingItem } from '../contract/steps';
import { inputsAt } from './inputs-at';
import { type RunState } from '../contract/run-state';

/** A reading predicted by the twin at the conditions actually read. */
export interface Prediction {
  readonly expected: number;
  /** Spread of healthy units: the tolerances taken together at their worst. No uncertainty of any reading is in it. */
  readonly band: Required<Limits>;
  /** −∂ŷ/∂x for each reading that the prediction rests on. */
  readonly terms: readonly Term[];
  /** Inputs of the twin by name. */
  readonly inputs: Readonly<Record<string, number>>;
}

/** Predicts an item's reading with the family's twin, healthy. */
export function predict(
  family: Family,
  context: RunContext<unknown>,
  run: RunState,
  item: ReadingItem,
): Prediction | null {
  if (!family.readings.some(({ id }) => id === item.measures)) return null;
  const known = inputsAt(family, context, run, item);
  if (!known) return null;
  const place = placeOf(family.readings, item.measures);
  const healthy = family.healthy(context.profile);
  const { values } = healthy;
  const inputs = known.map(({ value }) => value);
  const wanted = new Set([place]);
  const at = (parameters: Vector, where: Vector) => family.steady(parameters, where, wanted)[place]!;
  const terms = known.flatMap(({ measured: read }, i): Term[] => {
    if (!read) return [];
    const slope = sensitivity((x) => at(values, inputs.with(i, x)), inputs[i]!, readingUncertainty_SI(read));
    return slope === 0 ? [] : [{ sensitivity: -slope, measured: read }];
  });
  return {
    expected: at(values, inputs),
    band: healthyBand((p) => at(p, inputs), healthy),
    terms,
    inputs: Object.fromEntries(family.inputs.map(({ id }, i) => [id, inputs[i]!])),
  };
}

/**
 * Central difference over ± one standard uncertainty: near a knee it gives the slope that the doubt really spans. A number
 * that is not below zero is not taken below it: there is no pressure under none.
 */
function sensitivity(f: (x: number) => number, x: number, u: number): number {
  const low = x >= 0 ? Math.max(0, x - u) : x - u;
  return (f(x + u) - f(low)) / (x + u - low);
}

/**
 * Least and greatest healthy value: a reading rises or falls with each parameter all the way, so the outermost units have
 * them. Where there are many tolerances, those that move the reading nowhere are left out first: each of a vehicle's readings
 * hangs on few.
 */
export function healthyBand(reading: (parameters: Vector) => number, healthy: HealthyUnit): Required<Limits> {
  const values = extremesOf(thoseThatMove([reading], healthy)).map(reading);
  return { low: Math.min(...values), high: Math.max(...values) };
}

/** Up to so many tolerances every corner is looked at outright. */
const FEW = 3;

/** A unit with only those of its tolerances that move one of some readings. */
export function thoseThatMove(
  readings: readonly ((parameters: Vector) => number)[],
  healthy: HealthyUnit,
): HealthyUnit {
  const { values, tolerances, extremes } = healthy;
  if (extremes || tolerances.filter((half) => half !== 0).length <= FEW) return healthy;
  const corner = (sign: number) => values.map((value, i) => value + sign * tolerances[i]!);
  const around = [corner(0), corner(-1), corner(1)].flatMap((at) =>
    // Many thousand units are asked: each differs from its corner in one number, which is put back.
    readings.map((reading) => ({ reading, shows: reading(at), trial: [...at] })),
  );
  const shown = (reading: (parameters: Vector) => number, trial: number[], i: number, value: number) => {
    const own = trial[i]!;
    trial[i] = value;
    const shows = reading(trial);
    trial[i] = own;
    return shows;
  };
  const moves = (i: number) =>
    around.some(({ reading, shows, trial }) =>
      [-1, 1].some((sign) => shown(reading, trial, i, values[i]! + sign * tolerances[i]!) !== shows),
    );
  return { values, tolerances: tolerances.map((half, i) => (half !== 0 && moves(i) ? half : 0)) };
}
