import { z } from 'zod';
import { normalCdf, normalQuantile } from '../numeric/normal';

export const VERDICT_WORDS = ['meets', 'close', 'fails', 'not-taken'] as const;
export type VerdictWord = (typeof VERDICT_WORDS)[number];

export const limitsSchema = z.strictObject({ low: z.number().optional(), high: z.number().optional() });
/** What a value must keep to. At least one side is given. SI, same quantity as the value. */
export type Limits = Readonly<z.infer<typeof limitsSchema>>;

/** Where a verdict turns from grey to decided. Settings; defaults 0.95 and 0.05 (JCGM 106, ISO 14253-1). */
export interface Thresholds {
  readonly meets: number;
  readonly fails: number;
}

export interface Verdict {
  readonly word: Exclude<VerdictWord, 'not-taken'>;
  /** Probability that the true value keeps to the limits. */
  readonly pConform: number;
  /** Distance from the value to the nearest limit: positive inside, negative outside. */
  readonly margin: number;
}

/**
 * Judges a value with standard uncertainty u against limits, the true value being normal about it. Handbook 5.
 *
 * @param u standard uncertainty (k = 1), > 0
 * @throws RangeError where u is not above zero or no limit is given
 * @example judge(1.8, 0.2, { high: 2 }) → P(conform) = Φ(1) = 0.841, Too close to call
 */
export function judge(value: number, u: number, limits: Limits, thresholds: Thresholds): Verdict {
  if (!(u > 0)) throw new RangeError(`u: ${u} must be above 0`);
  if (limits.low === undefined && limits.high === undefined) throw new RangeError('limits: none given');
  const pConform = conformance(value, u, limits);
  const word = pConform >= thresholds.meets ? 'meets' : pConform <= thresholds.fails ? 'fails' : 'close';
  return { word, pConform, margin: marginTo(value, limits) };
}

/** P(low ≤ Y ≤ high) for Y normal about the value. @throws RangeError where low is above high */
export function conformance(value: number, u: number, { low, high }: Limits): number {
  if (low !== undefined && high !== undefined && low > high)
    throw new RangeError(`low: ${low} is above the upper limit ${high}`);
  const below = high === undefined ? 1 : normalCdf((high - value) / u);
  const under = low === undefined ? 0 : normalCdf((low - value) / u);
  return below - under;
}

/** Signed distance to the nearest limit. */
export function marginTo(value: number, { low, high }: Limits): number {
  return Math.min(low === undefined ? Infinity : value - low, high === undefined ? Infinity : high - value);
}

/** How far, in standard uncertainties, a value must lie from a limit to be decided on either side. */
export function decisionDistance({ meets, fails }: Thresholds): number {
  return Math.max(normalQuantile(meets), -normalQuantile(fails));
}
