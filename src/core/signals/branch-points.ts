import { sentence, type Sentence } from '../quantities/sentence';
import { blocksOf, type Scatter } from './blocks';
import { untold } from './estimate';
import type { Cloud } from './kinked-line';
import type { Channel, Span, Trace } from './trace';

/** A mean of some readings on two channels, at a time in s. */
export interface Point {
  readonly t: number;
  readonly x: number;
  readonly y: number;
}

/** Means of two channels over one branch, their noise, and where a gauge stood at its end. */
export interface Points {
  readonly points: readonly Point[];
  readonly u_x: number;
  readonly u_y: number;
  readonly clip: readonly [number, number];
}

/** Block means of both channels that are good on both, clear of any end stop. */
export function pointsOf(
  trace: Trace,
  channels: readonly [Channel, Channel],
  span: Span,
  most: number,
  scatter: Scatter,
): Points {
  const { time_s, means, sigma, clip } = blocksOf(trace, channels, span, most, scatter);
  const [x, y] = means as [Float64Array, Float64Array];
  // A block beside the end stop holds some of it.
  const below = (value: number, c: number) =>
    Number.isFinite(value) && (clip[c] === Infinity || value < clip[c]! * 0.998 - 3 * sigma[c]!);
  const points = Array.from(x.keys()).flatMap((i) =>
    below(x[i]!, 0) && below(y[i]!, 1) ? [{ t: time_s[i]!, x: x[i]!, y: y[i]! }] : [],
  );
  return { points, u_x: sigma[0]!, u_y: sigma[1]!, clip: [clip[0]!, clip[1]!] };
}

/** Who takes less from nothing to the top hurries: the output is then behind the input by a lag, s. */
export const SLOW_S = 5;

/** Said of every number that such a pull would be fitted for. */
export const TOO_FAST = untold(
  'The handle moved too fast: lag then looks like a slope, a bend or hysteresis.',
  'Take {slow} or more each way.',
  { slow: { value: SLOW_S, quantity: 'duration' } },
);
/** Time over which a speed is looked at: over less, noise is faster than any hand. */
const LOOKED_S = SLOW_S / 20;
/** Noise alone moves a point by so many of its standard errors. */
const NOISE_WIDTHS = 4;
/** What is left must be so much of the points, over so much of their range: otherwise all of the pull was a hurry. */
const LEFT = { points: 0.5, range: 0.8 };

/**
 * Points at which neither channel was in a hurry: in between, the output is behind the input by a lag that is not the
 * unit's ratio. Where the output alone hurried throughout, as it does beside an input that just does not, all of them.
 *
 * @returns null where the input was in a hurry throughout: no line of the unit's is in such points
 */
export function unhurried(all: Points): Points | null {
  const { points, u_x, u_y } = all;
  const [top_x, top_y] = [spanOf(points, 'x')[1], spanOf(points, 'y')[1]];
  const about = (i: number): readonly [Point, Point] => {
    let [a, b] = [Math.max(0, i - 1), Math.min(points.length - 1, i + 1)];
    while (points[b]!.t - points[a]!.t < LOOKED_S && (a > 0 || b < points.length - 1))
      [a, b] = [Math.max(0, a - 1), Math.min(points.length - 1, b + 1)];
    return [points[a]!, points[b]!];
  };
  const calm = (i: number, axis: 'x' | 'y', whole: number, u: number) => {
    const [a, b] = about(i);
    const allowed = (whole * (b.t - a.t)) / SLOW_S + NOISE_WIDTHS * Math.SQRT2 * u;
    return Math.abs(b[axis] - a[axis]) <= allowed;
  };
  const [low, high] = spanOf(points, 'x');
  const enough = (left: readonly Point[]) => {
    const [least, most] = spanOf(left, 'x');
    return left.length >= LEFT.points * points.length && most - least >= LEFT.range * (high - low);
  };
  const slow = points.map((_, i) => calm(i, 'x', top_x, u_x));
  if (!enough(points.filter((_, i) => slow[i]))) return null;
  const left = points.filter((_, i) => slow[i] && calm(i, 'y', top_y, u_y));
  return enough(left) ? { ...all, points: left } : all;
}

function spanOf(points: readonly Point[], axis: 'x' | 'y'): readonly [low: number, high: number] {
  let [low, high] = [Infinity, -Infinity];
  for (const point of points) {
    low = Math.min(low, point[axis]);
    high = Math.max(high, point[axis]);
  }
  return [low, high];
}

export const cloudOf = ({ points, u_x, u_y }: Points): Cloud => ({
  x: Float64Array.from(points, (p) => p.x),
  y: Float64Array.from(points, (p) => p.y),
  u_x,
  u_y,
});

/** A gauge that stood at its end hides what is above it: said. */
export const clippedNotes = (
  channels: readonly [Channel, Channel],
  clip: readonly [number, number],
): Sentence[] =>
  channels.flatMap((channel, c) =>
    clip[c]! < Infinity
      ? [
          sentence(`${channel.name} stood at the end of its range, {at}: what is above it was not seen.`, {
            at: { value: clip[c]!, quantity: channel.quantity },
          }),
        ]
      : [],
  );
