import { told, untold, type Estimate } from './estimate';
import { leastSquares, varianceOf } from './least-squares';
import { grainOf, median } from './noise';
import type { Channel, Samples, Span, Trace } from './trace';

/** How a level follows one that was set at once. */
export interface StepResponse {
  /** From half of what was set to a tenth of what comes of it. */
  readonly delay: Estimate;
  /** From a tenth of it to nine tenths. */
  readonly rise: Estimate;
  /** From half of what was set to nine tenths of what comes of it: how a stamp is timed. */
  readonly time: Estimate;
  /** How far it goes beyond the level that it comes to, as a part of that. */
  readonly overshoot: Estimate;
  /** The level that it comes to. */
  readonly level: Estimate;
}

/** A crossing is told by the readings within this part of the way to either side, or so many standard deviations of one. */
const NEAR_PART = 0.06;
const NEAR_SIGMA = 3;
/** So many readings tell a slope. */
const LEAST_NEAR = 4;
/** And so many that it bends. */
const LEAST_BENT = 7;
const TURNS = 6;
/** No reading is better than this part of the way. */
const FINEST = 1e-5;
/** Fewer readings in a second tell no stamp. */
const LEAST_HZ = 190;
/** The level that it comes to is the middle of this part at the end. */
const END_PART = 0.3;
/** The highest is that of so many readings together, within this part of the rise. */
const TOP_PART = 0.15;
/** Beyond the level that it comes to only by so many standard errors. */
const SEEN_SIGMA = 4;

interface Crossing {
  readonly at_s: number;
  readonly u_s: number;
}

/**
 * Times and overshoot of a level behind another that was set at once, from a moment before that until it is let go. Handbook-models
 * 8.8, 8.9: a stamp on the pedal and the pressure behind it, or a wheel and what was asked of it.
 *
 * @param span begins with both at rest and ends before what was set is let go
 */
export function stepResponse(trace: Trace, input: Channel, output: Channel, span: Span): StepResponse {
  const nothing = (why: Estimate): StepResponse => ({
    delay: why,
    rise: why,
    time: why,
    overshoot: why,
    level: why,
  });
  const { time_s } = trace;
  const count = span.to - span.from;
  const each_s = (time_s[span.to - 1]! - time_s[span.from]!) / Math.max(1, count - 1);
  if (count < 20 || !(each_s * LEAST_HZ <= 1))
    return nothing(
      untold(
        'Too few readings in a second tell no stamp.',
        'Log it at two hundred readings a second or more.',
      ),
    );
  const [set, got] = [input, output].map((channel) => levelsOf(channel, span)) as [Levels, Levels];
  if (!(got.way > SEEN_SIGMA * got.sigma) || !(set.way > SEEN_SIGMA * set.sigma))
    return nothing(untold('Nothing stands out of the noise behind this stamp.'));
  const crossing = (channel: Channel, levels: Levels, part: number) =>
    crossingOf(time_s, channel.values, span, levels, part, each_s);
  const foot = crossing(input, set, 0.5);
  const [low, high] = [crossing(output, got, 0.1), crossing(output, got, 0.9)];
  if (!foot || !low || !high)
    return nothing(untold('It was let go before the level was there.', 'Hold it longer.'));
  const between = (from: Crossing, to: Crossing) =>
    told(to.at_s - from.at_s, Math.hypot(from.u_s, to.u_s), 'duration');
  return {
    delay: between(foot, low),
    rise: between(low, high),
    time: between(foot, high),
    overshoot: overshootOf(output.values, span, got, (high.at_s - low.at_s) / each_s),
    level: told(got.rest + got.way, got.end_u, output.quantity),
  };
}

interface Levels {
  readonly rest: number;
  /** From there to the level that it comes to. */
  readonly way: number;
  readonly sigma: number;
  readonly end_u: number;
}

/** Where a channel stands before, and what it comes to. */
function levelsOf({ values }: Channel, span: Span): Levels {
  const { sigma } = grainOf(values, span);
  const before = Math.max(3, Math.floor(0.02 * (span.to - span.from)));
  const rest = middleOf(values, { from: span.from, to: span.from + before });
  const from = Math.floor(span.to - END_PART * (span.to - span.from));
  return {
    rest,
    way: middleOf(values, { from, to: span.to }) - rest,
    sigma,
    // A middle value is worth two thirds of as many means.
    end_u: (1.2533 * sigma) / Math.sqrt(Math.max(1, span.to - from)),
  };
}

const middleOf = (values: Samples, { from, to }: Span): number =>
  median(values.subarray(from, to).filter(Number.isFinite));

/**
 * When a channel first comes to a part of its way: by a line through the readings near there. A step between two readings is somewhere
 * between them.
 */
function crossingOf(
  time_s: Float64Array,
  values: Samples,
  span: Span,
  { rest, way, sigma }: Levels,
  part: number,
  each_s: number,
): Crossing | null {
  const at = (i: number) => (values[i]! - rest) / way;
  const near = Math.max(NEAR_PART, NEAR_SIGMA * (sigma / Math.abs(way)));
  // Forward to the first that is clearly beyond, and back to the last that is clearly short of it.
  let to = span.from;
  while (to < span.to && !(at(to) > part + near / 2)) to += 1;
  if (to >= span.to) return null;
  let from = to;
  while (from > span.from && !(at(from) < part - near / 2)) from -= 1;
  const t: number[] = [];
  const parts: number[] = [];
  for (let i = from; i <= to; i += 1)
    if (Number.isFinite(values[i]!)) {
      t.push(time_s[i]! - time_s[to]!);
      parts.push(at(i));
    }
  const grid_s = each_s / Math.sqrt(12);
  if (t.length < LEAST_NEAR) {
    const [t0, t1] = [t[0]!, t.at(-1)!];
    const [p0, p1] = [parts[0]!, parts.at(-1)!];
    const at_s = p1 > p0 ? t0 + ((part - p0) / (p1 - p0)) * (t1 - t0) : (t0 + t1) / 2;
    return { at_s: time_s[to]! + Math.min(t1, Math.max(t0, at_s)), u_s: grid_s / (t.length - 1) };
  }
  // With readings enough it may bend there: a level begins and ends slowly.
  const bends = t.length >= LEAST_BENT;
  const columns = [t.map(() => 1), t, ...(bends ? [t.map((x) => x ** 2)] : [])];
  const fit = leastSquares(
    columns,
    parts,
    t.map(() => 1 / Math.max(FINEST, sigma / Math.abs(way)) ** 2),
  );
  if (!fit) return null;
  const [a = 0, b = 0, c = 0] = fit.parameters;
  const height = (x: number) => a + b * x + c * x ** 2;
  const slope = (x: number) => b + 2 * c * x;
  let at_s = (t[0]! + t.at(-1)!) / 2;
  for (let turn = 0; turn < TURNS && slope(at_s) > 0; turn += 1) at_s -= (height(at_s) - part) / slope(at_s);
  if (!(slope(at_s) > 0)) return null;
  const variance = varianceOf(
    fit.covariance,
    columns.map((_, power) => at_s ** power),
  );
  return {
    at_s: time_s[to]! + at_s,
    u_s: Math.hypot(Math.sqrt(variance) / slope(at_s), grid_s / t.length),
  };
}

/** How far it goes beyond, by means of a few readings that together are short beside the rise. */
function overshootOf(
  values: Samples,
  span: Span,
  { rest, way, sigma, end_u }: Levels,
  rise: number,
): Estimate {
  const width = Math.max(1, Math.floor(TOP_PART * rise));
  let top = -Infinity;
  let sum = 0;
  for (let i = span.from; i < span.to; i += 1) {
    sum += values[i]!;
    if (i - width >= span.from) sum -= values[i - width]!;
    if (i - span.from >= width - 1)
      top = Math.max(top, (Math.sign(way) * (sum / width - rest)) / Math.abs(way));
  }
  const u = Math.hypot(sigma / Math.sqrt(width), end_u) / Math.abs(way);
  const beyond = top - 1;
  return beyond > SEEN_SIGMA * u
    ? told(beyond, u, 'percent')
    : told(0, Math.max(u, Math.abs(beyond)), 'percent');
}
