import { blocksOf } from './blocks';
import { told, untold, type Estimate } from './estimate';
import { leastSquares } from './least-squares';
import type { Channel, Span, Trace } from './trace';

/** What a line takes up as pressure rises. */
export interface PressureVolume {
  /** Air trapped, at the barometer, m³. */
  readonly air: Estimate;
  /** Volume taken up before there is any pressure, m³. */
  readonly seating: Estimate;
  /** Volume per pressure of all the rest, m³/Pa. */
  readonly give: Estimate;
}

const MOST_BLOCKS = 800;
const LEAST_POINTS = 8;

/** V(p) = V₀ + V_air·(1 − p_atm/(p_atm + p)) + c·p, linear in its three unknowns. Handbook 6. */
export function pressureVolume(
  trace: Trace,
  pressure: Channel,
  volume: Channel,
  span: Span,
  barometer_Pa: number,
): PressureVolume {
  const { means, sigma } = blocksOf(trace, [pressure, volume], span, MOST_BLOCKS);
  const [p, v] = means as [Float64Array, Float64Array];
  const good = Array.from(p.keys()).filter(
    (i) => Number.isFinite(p[i]!) && Number.isFinite(v[i]!) && p[i]! > -0.5 * barometer_Pa,
  );
  const pressures = Float64Array.from(good, (i) => Math.max(0, p[i]!));
  const volumes = Float64Array.from(good, (i) => v[i]!);
  const rest = 1 / Math.max(sigma[1]!, 1e-12) ** 2;
  const fitted = leastSquares(
    [
      new Float64Array(good.length).fill(1),
      pressures.map((x) => 1 - barometer_Pa / (barometer_Pa + x)),
      pressures,
    ],
    volumes,
    new Float64Array(good.length).fill(rest),
  );
  if (!fitted || good.length < LEAST_POINTS) {
    const none = untold(
      'Too few points to part air from stiffness.',
      'Raise the pressure slowly from zero, with volume logged.',
    );
    return { air: none, seating: none, give: none };
  }
  const [seating, air, give] = fitted.parameters as [number, number, number];
  const u = (i: number) => Math.sqrt(fitted.covariance[i]![i]!);
  return {
    air: told(air, u(1), 'volume'),
    seating: told(seating, u(0), 'volume'),
    give: told(give, u(2), 'volumePerPressure'),
  };
}
