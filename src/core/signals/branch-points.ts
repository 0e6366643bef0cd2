import { sentence, type Sentence } from '../quantities/sentence';
import { blocksOf, type Scatter } from './blocks';
import type { Cloud } from './kinked-line';
import type { Channel, Span, Trace } from './trace';

/** A mean of some readings on two channels. */
export interface Point {
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
  const { means, sigma, clip } = blocksOf(trace, channels, span, most, scatter);
  const [x, y] = means as [Float64Array, Float64Array];
  // A block beside the end stop holds some of it.
  const below = (value: number, c: number) =>
    Number.isFinite(value) && (clip[c] === Infinity || value < clip[c]! * 0.998 - 3 * sigma[c]!);
  const points = Array.from(x.keys()).flatMap((i) =>
    below(x[i]!, 0) && below(y[i]!, 1) ? [{ x: x[i]!, y: y[i]! }] : [],
  );
  return { points, u_x: sigma[0]!, u_y: sigma[1]!, clip: [clip[0]!, clip[1]!] };
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
