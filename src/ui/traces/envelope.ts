/** Least and greatest of every channel in buckets of equal time, as the server packs it. */
export interface Envelope {
  readonly from_s: number;
  readonly to_s: number;
  readonly buckets: number;
  readonly least: readonly Float32Array[];
  readonly greatest: readonly Float32Array[];
}

/** Reads an envelope: from, to and number of buckets as doubles, then least and greatest of each channel as floats. */
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

/**
 * A line for a channel between two times, for so many columns of a picture: in each column down to the least and up
 * to the greatest of what falls into it, so that a spike is never lost. Flat pairs: time, value.
 */
export function lineFor(
  { from_s, to_s, buckets, least, greatest }: Envelope,
  channel: number,
  view: readonly [from_s: number, to_s: number],
  columns: number,
): Float64Array {
  const low = least[channel]!;
  const high = greatest[channel]!;
  const width = (to_s - from_s) / buckets;
  const first = Math.max(0, Math.floor((view[0] - from_s) / width) - 1);
  const last = Math.min(buckets, Math.ceil((view[1] - from_s) / width) + 1);
  const group = Math.max(1, Math.floor((last - first) / columns));
  const line = new Float64Array(4 * Math.max(0, Math.ceil((last - first) / group)));
  let at = 0;
  let up = true;
  for (let b = first; b < last; b += group) {
    let small = NaN;
    let large = NaN;
    for (let i = b; i < Math.min(last, b + group); i += 1) {
      if (!(low[i]! >= small)) small = low[i]! === low[i]! ? low[i]! : small;
      if (!(high[i]! <= large)) large = high[i]! === high[i]! ? high[i]! : large;
    }
    if (small !== small) continue;
    const t = from_s + (b + group / 2) * width;
    // Up and down in turn, so that the line does not cross itself within a column.
    line[at] = t;
    line[at + 1] = up ? small : large;
    line[at + 2] = t;
    line[at + 3] = up ? large : small;
    up = !up;
    at += 4;
  }
  return line.subarray(0, at);
}
