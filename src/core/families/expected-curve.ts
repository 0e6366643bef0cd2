import { sourceOf, type Family } from '../contract/family';
import { healthyBand, thoseThatMove } from '../procedure/predict';
import { AT_ONCE, inputVector, placeOf } from '../model/vectors';

/** A point of the curve that a healthy unit gives, with its band. SI. */
export interface CurvePoint {
  readonly input: number;
  readonly expected: number;
  readonly low: number;
  readonly high: number;
}

const POINTS = 80;
/** At every so many of them is looked which tolerances move the curve at all. */
const LOOKED_EVERY = 10;

/**
 * The curve of a healthy unit at one supply, from zero to a greatest input: what its family says is drawn of it.
 *
 * @param source what the source makes, SI
 * @param greatest greatest input, SI
 */
export function expectedCurve(
  family: Family,
  context: {
    readonly profile: unknown;
    readonly conditions: { readonly barometer_Pa: number; readonly temperature_K: number };
  },
  source: number,
  greatest: number,
): CurvePoint[] {
  const { curve } = family;
  const place = placeOf(family.readings, curve.output);
  const wanted = new Set([place]);
  const unit = family.healthy(context.profile);
  const { barometer_Pa, temperature_K } = context.conditions;
  const known = {
    ...family.full(context.profile),
    [sourceOf(curve)]: source,
    barometer_Pa,
    temperature_K,
    ...AT_ONCE,
  };
  const points = Array.from({ length: POINTS + 1 }, (_, i) => {
    const input = (greatest * i) / POINTS;
    const inputs = inputVector(family.inputs, { ...known, [curve.input]: input });
    const at = (parameters: readonly number[]) => family.steady(parameters, inputs, wanted)[place]!;
    return { input, at };
  });
  const looked = points.filter((_, i) => i % LOOKED_EVERY === 0).map(({ at }) => at);
  const moved = thoseThatMove(looked, unit);
  return points.map(({ input, at }) => ({ input, expected: at(unit.values), ...healthyBand(at, moved) }));
}
