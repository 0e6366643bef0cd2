import type { Family } from '../twin/family';
import { healthyBand } from '../procedure/predict';
import { placeOf } from '../twin/family';

/** A point of the output that a healthy unit gives, with its band. */
export interface CurvePoint {
  readonly input_Pa: number;
  readonly expected_Pa: number;
  readonly low_Pa: number;
  readonly high_Pa: number;
}

const POINTS = 80;

/**
 * Output of a healthy unit against input, at one supply, from zero to a greatest input.
 *
 * @param reading the family's output reading
 */
export function expectedCurve(
  family: Family,
  context: {
    readonly profile: unknown;
    readonly conditions: { readonly barometer_Pa: number; readonly temperature_K: number };
  },
  reading: string,
  supply_Pa: number,
  greatest_Pa: number,
): CurvePoint[] {
  const place = placeOf(family.readings, reading);
  const { values, tolerances } = family.healthy(context.profile);
  const known: Record<string, number> = {
    supply_Pa,
    barometer_Pa: context.conditions.barometer_Pa,
    temperature_K: context.conditions.temperature_K,
  };
  return Array.from({ length: POINTS + 1 }, (_, i) => {
    const input_Pa = (greatest_Pa * i) / POINTS;
    const inputs = family.inputs.map(({ id }) => (id === 'input_Pa' ? input_Pa : (known[id] ?? 0)));
    const at = (parameters: readonly number[]) => family.steady(parameters, inputs)[place]!;
    const { low, high } = healthyBand((p) => at([...p]), values, tolerances);
    return { input_Pa, expected_Pa: at(values), low_Pa: low, high_Pa: high };
  });
}
