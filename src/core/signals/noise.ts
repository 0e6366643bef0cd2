import type { Samples, Span } from './trace';

/** Triples looked at: enough that the estimate is good to about two per cent. */
const MOST_TRIPLES = 4_000;
/** Standard deviation over the median absolute value, for a normal distribution. */
const MAD_TO_SIGMA = 1.4826;
/** Standard deviation of a second difference x₋ − 2x + x₊ of white noise, in that of the noise. */
const SECOND_DIFFERENCE = Math.sqrt(6);

/**
 * Standard deviation of white noise on a channel, from second differences: neither a ramp nor a few spikes nor steps
 * move it. Where more than half of the samples stand still, the logger's step is what is left: step/√12.
 *
 * @returns 0 where nothing moves at all
 */
export function noiseOf(values: Samples, { from, to }: Span): number {
  const stride = Math.max(1, Math.floor((to - from) / MOST_TRIPLES));
  const found: number[] = [];
  let step = Infinity;
  for (let i = from + 1; i < to - 1; i += stride) {
    const second = values[i - 1]! - 2 * values[i]! + values[i + 1]!;
    if (!Number.isFinite(second)) continue;
    found.push(Math.abs(second));
    const first = Math.abs(values[i + 1]! - values[i]!);
    if (first > 0 && first < step) step = first;
  }
  if (found.length === 0) return 0;
  const sigma = (MAD_TO_SIGMA * median(found)) / SECOND_DIFFERENCE;
  return sigma > 0 ? sigma : Number.isFinite(step) ? step / Math.sqrt(12) : 0;
}

/** Middle value; of an even number, the mean of the two in the middle. Sorts a copy. */
export function median(values: ArrayLike<number>): number {
  const sorted = Float64Array.from(values).sort();
  const middle = sorted.length >> 1;
  return sorted.length % 2 === 1 ? sorted[middle]! : (sorted[middle - 1]! + sorted[middle]!) / 2;
}
