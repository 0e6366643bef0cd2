import { courseOf } from './blocks';
import { told, untold, type Estimate } from './estimate';
import { leastSquares, varianceOf } from './least-squares';
import type { Channel, Span, Trace } from './trace';

/** How a level swings once it was set: a valve that hunts, or one that settles. */
export interface Swing {
  readonly frequency: Estimate;
  /** Damping ratio: what goes on swinging has none. */
  readonly damping: Estimate;
  /** First swing beyond the level that it comes to, SI of the channel. */
  readonly amplitude: Estimate;
}

const MOST_BLOCKS = 4000;
/** A swing is one where it stands so many standard errors to either side of the level. */
const SEEN_SIGMA = 4;
/** So many half swings tell a frequency. */
const LEAST_HALVES = 4;
/** The level that it comes to is that of this part at the end. */
const END_PART = 0.25;

interface Half {
  readonly at_s: number;
  readonly height: number;
}

/**
 * Frequency, damping and first swing of a level that was set: from the times of its half swings and from their heights, of which the
 * logarithm falls by π·ζ/√(1 − ζ²) from one to the next, to the swing that goes through all readings. Handbook 6; handbook-models 8.7.
 */
export function swing(trace: Trace, channel: Channel, span: Span): Swing {
  const { t, values, sigma } = courseOf(trace, channel, span, MOST_BLOCKS);
  const nothing = (why: Estimate): Swing => ({ frequency: why, damping: why, amplitude: why });
  if (t.length < 20) return nothing(untold('There are too few readings to tell a swing.', 'Log faster.'));
  const end = values.subarray(Math.floor((1 - END_PART) * values.length));
  const level = end.reduce((sum, value) => sum + value, 0) / end.length;
  const halves = halvesOf(t, values, level, SEEN_SIGMA * sigma);
  if (halves.length < LEAST_HALVES)
    return nothing(
      untold('It settles: no more than {count} half swings stand out of the noise.', '', {
        count: { value: halves.length, quantity: 'count' },
      }),
    );
  const index = halves.map((_, i) => i);
  const ones = halves.map(() => 1);
  const times = leastSquares(
    [ones, index],
    halves.map(({ at_s }) => at_s),
    ones,
  );
  // The lower a half swing, the worse its height is known.
  const heights = leastSquares(
    [ones, index],
    halves.map(({ height }) => Math.log(height)),
    halves.map(({ height }) => (height / sigma) ** 2),
  );
  if (!times || !heights) return nothing(untold('The half swings are not alike: it is no swing.'));
  const half_s = times.parameters[1]!;
  const began_s = halves[0]!.at_s;
  const from = t.findIndex((at_s) => at_s >= began_s);
  const course = { t: t.subarray(from).map((at_s) => at_s - began_s), values: values.subarray(from), sigma };
  const start = { decay_PerS: -heights.parameters[1]! / half_s, turns_PerS: Math.PI / half_s };
  const fitted = dampedBy(course, start);
  if (!fitted) return nothing(untold('The half swings are not alike: it is no swing.'));
  const { decay_PerS, turns_PerS, covariance } = fitted;
  const natural_PerS = Math.hypot(decay_PerS, turns_PerS);
  // ζ = a/√(a² + ω²): dζ/da = ω²/n³, dζ/dω = −a·ω/n³.
  const byDecay = turns_PerS ** 2 / natural_PerS ** 3;
  const byTurns = (-decay_PerS * turns_PerS) / natural_PerS ** 3;
  return {
    frequency: told(turns_PerS / (2 * Math.PI), Math.sqrt(covariance[4]![4]!) / (2 * Math.PI), 'rotation'),
    damping: told(
      decay_PerS / natural_PerS,
      Math.sqrt(varianceOf(covariance, [0, 0, 0, byDecay, byTurns])),
      'ratio',
    ),
    amplitude: told(halves[0]!.height, sigma, channel.quantity),
  };
}

const ROUNDS = 12;
const CLOSE = 1e-6;

/** A swing that dies away: L + e^(−a·t)·(c·cos ωt + d·sin ωt), by Gauss and Newton from what its half swings say. */
function dampedBy(
  { t, values, sigma }: { t: Float64Array; values: Float64Array; sigma: number },
  start: { readonly decay_PerS: number; readonly turns_PerS: number },
) {
  const weights = new Float64Array(t.length).fill(1 / sigma ** 2);
  let { decay_PerS, turns_PerS } = start;
  for (let round = 0; round < ROUNDS; round += 1) {
    const [cos, sin] = [Math.cos, Math.sin].map((wave) =>
      t.map((at_s) => Math.exp(-decay_PerS * at_s) * wave(turns_PerS * at_s)),
    ) as [Float64Array, Float64Array];
    const ones = new Float64Array(t.length).fill(1);
    const linear = leastSquares([ones, cos, sin], values, weights);
    if (!linear) return null;
    const [level, c, d] = linear.parameters as [number, number, number];
    const left = values.map((value, i) => value - level - c * cos[i]! - d * sin[i]!);
    const byDecay = t.map((at_s, i) => -at_s * (c * cos[i]! + d * sin[i]!));
    const byTurns = t.map((at_s, i) => at_s * (d * cos[i]! - c * sin[i]!));
    const step = leastSquares([ones, cos, sin, byDecay, byTurns], left, weights);
    if (!step) return null;
    const bound = turns_PerS / 4;
    const [moreDecay, moreTurns] = [step.parameters[3]!, step.parameters[4]!].map((change) =>
      Math.max(-bound, Math.min(bound, change)),
    ) as [number, number];
    decay_PerS += moreDecay;
    turns_PerS += moreTurns;
    if (Math.hypot(moreDecay, moreTurns) < CLOSE * turns_PerS)
      return { decay_PerS, turns_PerS, covariance: step.covariance };
  }
  return null;
}

/** Half swings in turn: each the furthest between two crossings of the level, as far as they stand out. */
function halvesOf(t: Float64Array, values: Float64Array, level: number, seen: number): Half[] {
  const halves: Half[] = [];
  let side = 0;
  let furthest: Half = { at_s: 0, height: 0 };
  for (let i = 0; i < t.length; i += 1) {
    const off = values[i]! - level;
    const now = Math.abs(off) > seen ? Math.sign(off) : 0;
    if (now !== 0 && now !== side) {
      if (side !== 0) halves.push(furthest);
      [side, furthest] = [now, { at_s: t[i]!, height: Math.abs(off) }];
    } else if (now === side && Math.abs(off) > furthest.height)
      furthest = { at_s: t[i]!, height: Math.abs(off) };
  }
  if (side !== 0) halves.push(furthest);
  // What comes first is the approach to the level, not a swing about it.
  return halves.slice(1);
}
