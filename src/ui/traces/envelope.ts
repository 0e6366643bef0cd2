import type { Envelope } from '@/core/signals/overview';

/** Columns of a picture of one channel. */
export interface Columns {
  readonly count: number;
  /** Middle of each column, s, and half of its width. */
  readonly at_s: Float64Array;
  readonly half_s: number;
  /** Least and greatest in it, each reaching to the column before, so that a steep rise has no gap. */
  readonly low: Float64Array;
  readonly high: Float64Array;
}

/**
 * A channel between two times in so many columns: each from the least to the greatest of what falls into it, so that a
 * spike is never lost however far out the view is. Columns without a reading are left out.
 */
export function columnsFor(
  { from_s, to_s, buckets, least, greatest }: Envelope,
  channel: number,
  view: readonly [from_s: number, to_s: number],
  most: number,
): Columns {
  const small = least[channel]!;
  const large = greatest[channel]!;
  const width = (to_s - from_s) / buckets;
  const first = Math.max(0, Math.floor((view[0] - from_s) / width) - 1);
  const last = Math.min(buckets, Math.ceil((view[1] - from_s) / width) + 1);
  const group = Math.max(1, Math.ceil((last - first) / most));
  const room = Math.max(0, Math.ceil((last - first) / group));
  const [at_s, low, high] = [new Float64Array(room), new Float64Array(room), new Float64Array(room)];
  let count = 0;
  for (let b = first; b < last; b += group) {
    let bottom = Infinity;
    let top = -Infinity;
    for (let i = b; i < Math.min(last, b + group); i += 1) {
      if (small[i]! < bottom) bottom = small[i]!;
      if (large[i]! > top) top = large[i]!;
    }
    if (bottom > top) continue;
    const before = count - 1;
    at_s[count] = from_s + (b + group / 2) * width;
    low[count] = before >= 0 ? Math.min(bottom, high[before]!) : bottom;
    high[count] = before >= 0 ? Math.max(top, low[before]!) : top;
    count += 1;
  }
  return { count, at_s, half_s: (group * width) / 2, low, high };
}
