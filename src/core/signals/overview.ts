import { indexAt, type Samples, type Span, type Trace } from './trace';

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

/**
 * An envelope as bytes: from, to and number of buckets as doubles, then least and greatest of each channel as floats.
 * This is also how it is sent to the screen.
 */
export function packEnvelope({ from_s, to_s, buckets, least, greatest }: Envelope): Uint8Array {
  const head = Float64Array.of(from_s, to_s, buckets);
  const bytes = new Uint8Array(head.byteLength + 8 * buckets * least.length);
  bytes.set(new Uint8Array(head.buffer));
  const body = new Float32Array(bytes.buffer, head.byteLength);
  least.forEach((values, c) => {
    body.set(values, 2 * c * buckets);
    body.set(greatest[c]!, (2 * c + 1) * buckets);
  });
  return bytes;
}

/** Reads what `packEnvelope` wrote. */
export function readEnvelope(bytes: ArrayBuffer): Envelope {
  const [from_s, to_s, buckets] = new Float64Array(bytes, 0, 3) as unknown as [number, number, number];
  const values = new Float32Array(bytes, 24);
  const channels = buckets > 0 ? values.length / (2 * buckets) : 0;
  const row = (i: number) => values.subarray(i * buckets, (i + 1) * buckets);
  return {
    from_s,
    to_s,
    buckets,
    least: Array.from({ length: channels }, (_, c) => row(2 * c)),
    greatest: Array.from({ length: channels }, (_, c) => row(2 * c + 1)),
  };
}
