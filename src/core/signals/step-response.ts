import { courseOf, type Course } from './blocks';
import { told, untold, type Estimate } from './estimate';
import { leastSquares, varianceOf } from './least-squares';
import { median } from './noise';
import type { Channel, Span, Trace } from './trace';

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
  const [set, got] = [input, output].map((channel) => {
    const course = courseOf(trace, channel, span, count);
    return { course, levels: levelsOf(course) };
  }) as [Followed, Followed];
  if ([set, got].some(({ levels: { way, sigma } }) => !(way > SEEN_SIGMA * sigma)))
    return nothing(untold('Nothing stands out of the noise behind this stamp.'));
  const foot = crossingOf(set, 0.5, each_s);
  const [low, high] = [crossingOf(got, 0.1, each_s), crossingOf(got, 0.9, each_s)];
  if (!foot || !low || !high)
    return nothing(untold('It was let go before the level was there.', 'Hold it longer.'));
  const between = (from: Crossing, to: Crossing) =>
    told(to.at_s - from.at_s, Math.hypot(from.u_s, to.u_s), 'duration');
  return {
    delay: between(foot, low),
    rise: between(low, high),
    time: between(foot, high),
    overshoot: overshootOf(got, (high.at_s - low.at_s) / each_s),
  };
}

/** A channel over the span, and the levels between which it goes: upward. */
interface Followed {
  readonly course: Course;
  readonly levels: Levels;
}

interface Levels {
  readonly rest: number;
  /** From there to the level that it comes to. */
  readonly way: number;
  readonly sigma: number;
  readonly end_u: number;
}

/** Where a channel stands before, and what it comes to. */
function levelsOf({ values, sigma }: Course): Levels {
  const rest = median(values.subarray(0, Math.max(3, Math.floor(0.02 * values.length))));
  const end = values.subarray(Math.floor((1 - END_PART) * values.length));
  // A middle value is worth two thirds of as many means.
  return {
    rest,
    way: median(end) - rest,
    sigma,
    end_u: (1.2533 * sigma) / Math.sqrt(Math.max(1, end.length)),
  };
}

/**
 * When a channel first comes to a part of its way: by a line through the readings near there. A step between two readings is somewhere
 * between them.
 */
function crossingOf({ course, levels }: Followed, part: number, each_s: number): Crossing | null {
  const { rest, way, sigma } = levels;
  const at = (i: number) => (course.values[i]! - rest) / way;
  const near = Math.max(NEAR_PART, NEAR_SIGMA * (sigma / way));
  // Forward to the first that is clearly beyond, and back to the last that is clearly short of it.
  let to = 0;
  while (to < course.t.length && !(at(to) > part + near / 2)) to += 1;
  if (to === course.t.length) return null;
  let from = to;
  while (from > 0 && !(at(from) < part - near / 2)) from -= 1;
  const places = Array.from({ length: to - from + 1 }, (_, i) => from + i);
  const t = places.map((i) => course.t[i]! - course.t[to]!);
  const parts = places.map(at);
  const grid_s = each_s / Math.sqrt(12);
  if (t.length < LEAST_NEAR) {
    const [t0, p0, p1] = [t[0]!, parts[0]!, parts.at(-1)!];
    const at_s = p1 > p0 ? t0 - ((part - p0) / (p1 - p0)) * t0 : t0 / 2;
    return {
      at_s: course.t[to]! + Math.min(0, Math.max(t0, at_s)),
      u_s: grid_s / Math.max(1, t.length - 1),
    };
  }
  // With readings enough it may bend there: a level begins and ends slowly.
  const bends = t.length >= LEAST_BENT;
  const columns = [t.map(() => 1), t, ...(bends ? [t.map((x) => x ** 2)] : [])];
  const fit = leastSquares(
    columns,
    parts,
    t.map(() => 1 / Math.max(FINEST, sigma / way) ** 2),
  );
  if (!fit) return null;
  const [a = 0, b = 0, c = 0] = fit.parameters;
  const slope = (x: number) => b + 2 * c * x;
  let at_s = t[0]! / 2;
  for (let turn = 0; turn < TURNS && slope(at_s) > 0; turn += 1)
    at_s -= (a + b * at_s + c * at_s ** 2 - part) / slope(at_s);
  if (!(slope(at_s) > 0)) return null;
  const variance = varianceOf(
    fit.covariance,
    columns.map((_, power) => at_s ** power),
  );
  return {
    at_s: course.t[to]! + at_s,
    u_s: Math.hypot(Math.sqrt(variance) / slope(at_s), grid_s / t.length),
  };
}

/** How far it goes beyond, by means of a few readings that together are short beside the rise. */
function overshootOf({ course, levels }: Followed, rise: number): Estimate {
  const { rest, way, sigma, end_u } = levels;
  const width = Math.max(1, Math.floor(TOP_PART * rise));
  let [top, sum] = [-Infinity, 0];
  course.values.forEach((value, i) => {
    sum += value - (course.values[i - width] ?? 0);
    if (i >= width - 1) top = Math.max(top, (sum / width - rest) / way);
  });
  const u = Math.hypot(sigma / Math.sqrt(width), end_u) / way;
  const beyond = top - 1;
  return beyond > SEEN_SIGMA * u
    ? told(beyond, u, 'percent')
    : told(0, Math.max(u, Math.abs(beyond)), 'percent');
}
