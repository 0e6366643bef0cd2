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
  const at = (parameters: Vector, where: Vector) => family.steady(parameters, where)[place]!;
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

/** Least and greatest healthy value: a reading rises or falls with each parameter all the way, so the outermost units have them. */
export function healthyBand(reading: (parameters: Vector) => number, healthy: HealthyUnit): Required<Limits> {
  const values = extremesOf(healthy).map(reading);
  return { low: Math.min(...values), high: Math.max(...values) };
}
