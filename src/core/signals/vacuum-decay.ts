import { chokedRise_PaPerS, depressionAfter_Pa, flowShare } from '../air/leak';
import { orificeDiameter_m } from '../air/orifice';
import { courseOf } from './blocks';
import { ONE_READING, told, untold, type Estimate } from './estimate';
import { leastSquares } from './least-squares';
import type { Channel, Span, Trace } from './trace';

/** What surrounds a vacuum that is losing itself. */
export interface DecayRoom {
  readonly barometer_Pa: number;
  readonly temperature_K: number;
  /** Volume that loses its vacuum, m³; null where it is not known. */
  readonly volume_m3: number | null;
}

/** What a fall of vacuum tells. */
export interface VacuumDecay {
  /** Loss per second at the depression at the beginning, Pa/s. */
  readonly loss: Estimate;
  readonly at_Pa: number;
  readonly conductance: Estimate;
  /** Diameter of a sharp orifice that would leak as much, discharge coefficient 0.65, m. */
  readonly orifice: Estimate;
  readonly curve: (t_s: number) => number;
}

const MOST_BLOCKS = 500;
const STEPS = 25;
/** The loss counts as told where twice its uncertainty is within this part of it. */
const TELLS = 0.1;
const LONGEST_WANTED_S = 3600;

const NO_VOLUME = untold(
  'The volume that loses its vacuum is not known, so only the rate can be told.',
  'Name a profile with its vacuum volume.',
);

/**
 * Loss of a vacuum shut in: the law of an air leak by ISO 6358, a straight line while choked and then a bend to the
 * barometer in finite time, fitted with two parameters: the depression at the beginning and the choked rate.
 * Handbook 4 and 6.
 *
 * @param resolve_PaPerS the smallest loss worth telling
 */
export function vacuumDecay(
  trace: Trace,
  channel: Channel,
  span: Span,
  room: DecayRoom,
  resolve_PaPerS: number,
): VacuumDecay {
  const { barometer_Pa, temperature_K } = room;
  const { t, values: d, sigma, same } = courseOf(trace, channel, span, MOST_BLOCKS);
  const long_s = t.length > 0 ? t.at(-1)! : 0;
  const nothing = (loss: Estimate): VacuumDecay => ({
    loss,
    at_Pa: d[0] ?? NaN,
    conductance: loss,
    orifice: loss,
    curve: () => NaN,
  });
  if (same) return nothing(ONE_READING);
  if (t.length < 6 || long_s < 2) return nothing(untold('The hold is too short.', 'Wait for a minute.'));
  // A conductance of one in a volume of one: the choked rate is then the only unknown.
  const unit = chokedRise_PaPerS({ conductance_m3PerSPa: 1, volume_m3: 1, barometer_Pa, temperature_K });
  const law = (depression: number, rate: number, at: number) =>
    depressionAfter_Pa(Math.max(0, Math.min(barometer_Pa, depression)), at, {
      conductance_m3PerSPa: Math.max(0, rate) / unit,
      volume_m3: 1,
      barometer_Pa,
      temperature_K,
    });
  const weights = new Float64Array(t.length).fill(1 / sigma ** 2);
  const line = leastSquares([new Float64Array(t.length).fill(1), t], d, weights);
  if (!line) return nothing(untold('The readings do not tell a line.'));
  let start = Math.min(barometer_Pa, line.parameters[0]!);
  let rate = Math.max(1e-3, -line.parameters[1]!);
  let fitted = null;
  for (let i = 0; i < STEPS; i += 1) {
    const [h0, hr] = [Math.max(1, 1e-4 * start), Math.max(1e-4, 1e-4 * rate)];
    const here = t.map((at) => law(start, rate, at));
    const byStart = t.map((at, k) => (here[k]! - law(start - h0, rate, at)) / h0);
    const byRate = t.map((at, k) => (law(start, rate + hr, at) - here[k]!) / hr);
    fitted = leastSquares(
      [byStart, byRate],
      d.map((value, k) => value - here[k]!),
      weights,
    );
    if (!fitted) return nothing(untold('The readings do not tell a leak from its beginning.'));
    const [ds, dr] = fitted.parameters as [number, number];
    start = Math.min(barometer_Pa, start + ds);
    rate = Math.max(1e-4, rate + Math.max(-0.7 * rate, dr));
    if (Math.abs(dr) < 1e-5 * rate && Math.abs(ds) < 1e-2) break;
  }
  const u_rate = Math.sqrt(fitted!.covariance[1]![1]!);
  const share = flowShare(1 - start / barometer_Pa);
  const need = Math.max(TELLS * rate, resolve_PaPerS);
  const curve = (at: number) => law(start, rate, Math.max(0, at));
  if (2 * u_rate > need) {
    // The doubt of a slope falls with the length of the watch to the power of three halves.
    const longer_s = long_s * ((2 * u_rate) / need) ** (2 / 3) - long_s;
    const loss = untold(
      'The watch is too short to tell the loss from noise: so far {loss}.',
      longer_s > LONGEST_WANTED_S ? 'A steadier gauge.' : 'Wait for {longer} longer.',
      {
        loss: { value: rate * share, quantity: 'depressionRate', u: u_rate, withU: true },
        longer: { value: longer_s, quantity: 'duration' },
      },
    );
    return { ...nothing(loss), curve };
  }
  const loss = told(rate * share, u_rate * share, 'depressionRate');
  if (room.volume_m3 === null)
    return { loss, at_Pa: start, conductance: NO_VOLUME, orifice: NO_VOLUME, curve };
  const conductance = (rate * room.volume_m3) / unit;
  const diameter = orificeDiameter_m(conductance);
  return {
    loss,
    at_Pa: start,
    conductance: told(conductance, (conductance * u_rate) / rate, 'conductance'),
    orifice: told(diameter, (diameter * u_rate) / (2 * rate), 'length'),
    curve,
  };
}
