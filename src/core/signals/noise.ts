import type { Samples, Span } from './trace';

/** Triples looked at: enough that the estimate is good to about two per cent. */
const MOST_TRIPLES = 4_000;
/** Standard deviation over the median absolute value, for a normal distribution. */
export const MAD_TO_SIGMA = 1.4826;
/** Standard deviation of a second difference x₋ − 2x + x₊ of white noise, in that of the noise. */
const SECOND_DIFFERENCE = Math.sqrt(6);

/** How a channel scatters about what it means to say. */
export interface Grain {
  /** Standard deviation of a sample; 0 where nothing moves at all. */
  readonly sigma: number;
  /** The logger's step, where it is so coarse that more than half of the samples stand still; otherwise 0. */
  readonly step: number;
  /** Whether the samples scatter at all, so that one that stays the same to the last digit is an end stop. */
  readonly scatters: boolean;
}

/** Of a channel without noise and without steps of its own, this part of its range stands for what it cannot tell. */
const FINEST_PART = 1e-4;

/**
 * White noise on a channel, from second differences: neither a ramp nor a few spikes nor steps move it. Where more
 * than half of the samples stand still, the logger's step is what is left: step/√12. A course without noise that the hand
 * made in even steps shows none of the logger's: it is as good as its readings lie on their lines.
 */
export function grainOf(values: Samples, { from, to }: Span): Grain {
  const stride = Math.max(1, Math.floor((to - from) / MOST_TRIPLES));
  const found: number[] = [];
  for (let i = from + 1; i < to - 1; i += stride) {
    const second = values[i - 1]! - 2 * values[i]! + values[i + 1]!;
    if (!Number.isFinite(second)) continue;
    found.push(Math.abs(second));
  }
  if (found.length === 0) return { sigma: 0, step: 0, scatters: false };
  const sigma = (MAD_TO_SIGMA * median(found)) / SECOND_DIFFERENCE;
  if (sigma > 0) return { sigma, step: 0, scatters: true };
  const step = leastStep(values, { from, to });
  return evenlyMade(values, { from, to }, step)
    ? { sigma: FINEST_PART * rangeOf(values, { from, to }), step: 0, scatters: false }
    : { sigma: step / Math.sqrt(12), step, scatters: step > 0 };
}

/** Of what moves in a course that is made evenly, so much goes by one step. */
const EVEN_PART = 0.1;

/**
 * Whether a course goes on by its least step time after time, the same way: then a hand made it so. A logger's own step
 * stands still before and after; noise turns back.
 */
function evenlyMade(values: Samples, { from, to }: Span, step: number): boolean {
  let [moves, all, goesOn] = [0, 0, 0];
  for (let i = from + 1; i < to - 1; i += 1) {
    const [before, after] = [values[i]! - values[i - 1]!, values[i + 1]! - values[i]!];
    if (!(Math.abs(before) > 0)) continue;
    moves += 1;
    if (Math.abs(before) > 1.5 * step) continue;
    all += 1;
    if (before * after > 0) goesOn += 1;
  }
  return 2 * goesOn > all && all >= EVEN_PART * moves;
}

function rangeOf(values: Samples, { from, to }: Span): number {
  let [low, high] = [Infinity, -Infinity];
  for (let i = from; i < to; i += 1) {
    if (values[i]! < low) low = values[i]!;
    if (values[i]! > high) high = values[i]!;
  }
  return high > low ? high - low : 0;
}

/** Least difference between two neighbours that differ; 0 where none do. */
export function leastStep(values: Samples, { from, to }: Span): number {
  let step = Infinity;
  for (let i = from + 1; i < to; i += 1) {
    const difference = Math.abs(values[i]! - values[i - 1]!);
    if (difference > 0 && difference < step) step = difference;
  }
  return Number.isFinite(step) ? step : 0;
}

/** Middle value; of an even number, the mean of the two in the middle. Sorts a copy. */
export function median(values: ArrayLike<number>): number {
  const sorted = Float64Array.from(values).sort();
  const middle = sorted.length >> 1;
  return sorted.length % 2 === 1 ? sorted[middle]! : (sorted[middle - 1]! + sorted[middle]!) / 2;
}
