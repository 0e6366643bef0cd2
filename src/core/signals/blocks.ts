import { grainOf } from './noise';
import type { Channel, Samples, Span, Trace } from './trace';

/** A stretch of several channels as means of blocks: few enough to fit, with the noise that is left in them. */
export interface Blocks {
  /** Mean time of each block, s. */
  readonly time_s: Float64Array;
  /** Index of the first sample of each block. */
  readonly first: Int32Array;
  /** Means by channel, in the order asked for; NaN where fewer than half of the samples are good. */
  readonly means: readonly Float64Array[];
  /** Standard error of a mean, by channel. */
  readonly sigma: readonly number[];
  readonly step: Scatter['step'];
  readonly clip: Scatter['clip'];
}

/** A sample this many standard deviations from both its neighbours is a spike, not a reading. */
const SPIKE = 6;
/** So many samples in a row at the very greatest value are an end stop. */
const CLIPPED_RUN = 5;

/** What is found of the channels of a span before it is divided: the same however it is. */
export interface Scatter {
  /** Standard deviation of a sample, by channel. */
  readonly noise: readonly number[];
  /** The logger's step where it hides the noise, by channel; otherwise 0. */
  readonly step: readonly number[];
  /** Values at and above which a channel stood at its end stop; Infinity where it did not. */
  readonly clip: readonly number[];
}

/** Noise and end stops of channels over a span: to be found once where the span is divided more than once. */
export function scatterOf(channels: readonly Channel[], span: Span): Scatter {
  const grains = channels.map(({ values }) => grainOf(values, span));
  return {
    noise: grains.map(({ sigma }) => sigma),
    step: grains.map(({ step }) => step),
    clip: channels.map(({ values }, c) => endStop(values, span, grains[c]!.scatters)),
  };
}

/**
 * Means over blocks of equal numbers of samples. A single sample that stands far from the median of itself and its
 * two neighbours is replaced by that median; what was not logged is left out.
 *
 * @param most greatest number of blocks
 */
export function blocksOf(
  trace: Trace,
  channels: readonly Channel[],
  span: Span,
  most: number,
  { noise, step, clip }: Scatter = scatterOf(channels, span),
): Blocks {
  const count = span.to - span.from;
  const size = Math.max(1, Math.ceil(count / most));
  const blocks = Math.ceil(count / size);
  const time_s = new Float64Array(blocks);
  const first = new Int32Array(blocks);
  for (let b = 0; b < blocks; b += 1) {
    const from = span.from + b * size;
    const to = Math.min(span.to, from + size);
    first[b] = from;
    let sum = 0;
    for (let i = from; i < to; i += 1) sum += trace.time_s[i]!;
    time_s[b] = sum / (to - from);
  }
  const means = channels.map(({ values }, c) => meansOf(values, span, size, blocks, SPIKE * noise[c]!));
  return {
    time_s,
    first,
    means,
    sigma: noise.map((sigma) => sigma / Math.sqrt(size)),
    step,
    clip,
  };
}

/** One channel over a span as a course to fit: seconds from its beginning, and values, what is missing left out. */
export interface Course {
  readonly t: Float64Array;
  readonly values: Float64Array;
  /** Standard error of each value, so that a fit of many has the doubt it should. */
  readonly sigma: number;
  /** Every reading is the same: an end stop, or a step too coarse to tell anything. */
  readonly same: boolean;
}

/** A channel over a span as a course. */
export function courseOf(trace: Trace, channel: Channel, span: Span, most: number): Course {
  const { means, time_s, sigma, step } = blocksOf(trace, [channel], span, most);
  const [levels] = means as [Float64Array];
  const good = Array.from(levels.keys()).filter((i) => Number.isFinite(levels[i]!));
  const start_s = trace.time_s[span.from]!;
  const values = Float64Array.from(good, (i) => levels[i]!);
  return {
    t: Float64Array.from(good, (i) => time_s[i]! - start_s),
    values,
    sigma: step[0]! > 0 ? steppedSigma(values, step[0]!) : sigma[0]!,
    same: values.length > 0 && values.every((value) => value === values[0]),
  };
}

/**
 * Standard error that stands for a logger's step where no noise blurs it. A slope over k steps is then wrong by up to
 * 1/k² of itself, however many readings there are: the error of one step's corner against the whole of the line. With
 * n values, a line's slope has a doubt of σ·√12/(√n·length), which that is equal to for σ = step·√n/(√12·k).
 */
function steppedSigma(values: Float64Array, step: number): number {
  const crossed = Math.max(1, Math.abs(values.at(-1)! - values[0]!) / step);
  return (step / Math.sqrt(12)) * Math.max(1, Math.sqrt(values.length) / crossed);
}

function meansOf(
  values: Samples,
  { from, to }: Span,
  size: number,
  blocks: number,
  spike: number,
): Float64Array {
  const means = new Float64Array(blocks);
  for (let b = 0; b < blocks; b += 1) {
    const begin = from + b * size;
    const end = Math.min(to, begin + size);
    let sum = 0;
    let good = 0;
    for (let i = begin; i < end; i += 1) {
      let x = values[i]!;
      if (spike > 0 && i > from && i < to - 1) {
        const before = values[i - 1]!;
        const after = values[i + 1]!;
        const middle = Math.max(Math.min(before, x), Math.min(Math.max(before, x), after));
        if (Math.abs(x - middle) > spike) x = middle;
      }
      if (x === x) {
        sum += x;
        good += 1;
      }
    }
    means[b] = 2 * good >= end - begin ? sum / good : NaN;
  }
  return means;
}

/** Value at which a channel ran into the end of its range: its greatest, held sample after sample to the last digit. */
function endStop(values: Samples, { from, to }: Span, scatters: boolean): number {
  let top = -Infinity;
  for (let i = from; i < to; i += 1) if (values[i]! > top) top = values[i]!;
  let run = 0;
  let longest = 0;
  for (let i = from; i < to; i += 1) {
    run = values[i] === top ? run + 1 : 0;
    if (run > longest) longest = run;
  }
  // Without noise every hold stands still: that alone is no end stop.
  return longest >= CLIPPED_RUN && scatters ? top : Infinity;
}
