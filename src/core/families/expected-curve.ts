import type { Family } from '../contract/family';
import { healthyBand } from '../procedure/predict';
import { placeOf } from '../model/vectors';

/** A point of the curve that a healthy unit gives, with its band. SI. */
export interface CurvePoint {
  readonly input: number;
  readonly expected: number;
  readonly low: number;
  readonly high: number;
}

const POINTS = 80;

/**
 * The curve of a healthy unit at one supply, from zero to a greatest input: what its family says is drawn of it.
 *
 * @param greatest greatest input, SI
 */
export function expectedCurve(
  family: Family,
  context: {
    readonly profile: unknown;
    readonly conditions: { readonly barometer_Pa: number; readonly temperature_K: number };
  },
  supply_Pa: number,
  greatest: number,
): CurvePoint[] {
  const { curve } = family;
  const place = placeOf(family.readings, curve.output);
  const unit = family.healthy(context.profile);
  const known: Record<string, number> = {
    supply_Pa,
    barometer_Pa: context.conditions.barometer_Pa,
    temperature_K: context.conditions.temperature_K,
  };
  return Array.from({ length: POINTS + 1 }, (_, i) => {
    const input = (greatest * i) / POINTS;
    const inputs = family.inputs.map(({ id }) => (id === curve.input ? input : (known[id] ?? 0)));
    const at = (parameters: readonly number[]) => family.steady(parameters, inputs)[place]!;
    return { input, expected: at(unit.values), ...healthyBand(at, unit) };
  });
}
