import type { Samples, Span, Trace } from './trace';
import { indexAt } from './trace';

/** Least and greatest of each channel in buckets of equal time: what a picture needs, no spike lost. */
export interface Envelope {
  readonly from_s: number;
  readonly to_s: number;
  readonly buckets: number;
  /** Per channel: least, then greatest, of each bucket; NaN where a bucket holds no reading. */
  readonly least: readonly Float32Array[];
  readonly greatest: readonly Float32Array[];
}

/** Envelope of a part of a trace. */
export function envelopeOf(trace: Trace, from_s: number, to_s: number, buckets: number): Envelope {
  const count = Math.max(1, Math.floor(buckets));
  const span = { from: indexAt(trace, from_s), to: indexAt(trace, to_s + 1e-9) };
  const places = bucketsOf(trace.time_s, span, from_s, to_s, count);
  const both = trace.channels.map(({ values }) => extremes(values, span, places, count));
  return {
    from_s,
    to_s,
    buckets: count,
    least: both.map(({ least }) => least),
    greatest: both.map(({ greatest }) => greatest),
  };
}

function bucketsOf(time_s: Float64Array, { from, to }: Span, from_s: number, to_s: number, count: number) {
  const places = new Int32Array(to - from);
  const perSecond = count / Math.max(1e-9, to_s - from_s);
  for (let i = from; i < to; i += 1)
    places[i - from] = Math.min(count - 1, Math.max(0, Math.floor((time_s[i]! - from_s) * perSecond)));
  return places;
}

function extremes(values: Samples, { from, to }: Span, places: Int32Array, count: number) {
  const least = new Float32Array(count).fill(NaN);
  const greatest = new Float32Array(count).fill(NaN);
  for (let i = from; i < to; i += 1) {
    const x = values[i]!;
    if (x !== x) continue;
    const b = places[i - from]!;
    // Written so that the first reading takes the place of NaN.
    if (!(x >= least[b]!)) least[b] = x;
    if (!(x <= greatest[b]!)) greatest[b] = x;
  }
  return { least, greatest };
}
