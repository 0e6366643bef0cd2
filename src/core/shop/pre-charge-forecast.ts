import { leastSquares } from '../signals/least-squares';
import { daysBetween } from './due';

/** A pre-charge at 20 °C that was found on a day. */
export interface FoundPreCharge {
  /** ISO date. */
  readonly on: string;
  readonly preCharge_Pa: number;
  /** Standard uncertainty, Pa. */
  readonly u_Pa: number;
}

/** When the gas of a vessel will be too low, by its own history. */
export type PreChargeForecast =
  /** Fewer than three readings on different days: two make a line, and nothing that it could be held against. */
  | { readonly is: 'too-few'; readonly readings: number }
  /** It is below already, by the last reading. */
  | { readonly is: 'below'; readonly readings: number }
  /** It does not fall by more than its readings are in doubt; the earliest day it could come to the limit all the same, if any. */
  | { readonly is: 'steady'; readonly earliest: string | null; readonly readings: number }
  | {
      readonly is: 'falls';
      /** ISO dates: the likeliest, and between which it comes at odds of 95 in 100. */
      readonly on: string;
      readonly earliest: string;
      readonly latest: string;
      /** Pa/s, below zero. */
      readonly rate_PaPerS: number;
      readonly readings: number;
    };

const LEAST = 3;
/** 95 in 100. */
const SURE = 1.96;
const DAY_S = 86_400;
/** No forecast reaches further than this, days: 20 years. */
const FURTHEST = 7305;

/**
 * The day on which a pre-charge comes to a limit: a straight line through what was found, each by its uncertainty, and Fieller's
 * limits of where it crosses (Fieller 1954). Gas goes through a diaphragm in proportion to its pressure, so that the line falls a
 * little more slowly with time: over the part of a pre-charge that matters the difference is within the doubt. Handbook 13.
 *
 * @param limit_Pa least pre-charge that is allowed
 */
export function preChargeForecast(found: readonly FoundPreCharge[], limit_Pa: number): PreChargeForecast {
  const inOrder = [...found].sort((a, b) => a.on.localeCompare(b.on));
  const readings = found.length;
  const days = new Set(inOrder.map(({ on }) => on)).size;
  const last = inOrder.at(-1);
  if (last && last.preCharge_Pa < limit_Pa) return { is: 'below', readings };
  if (!last || days < LEAST) return { is: 'too-few', readings };
  const since = inOrder.map(({ on }) => daysBetween(last.on, on));
  const line = leastSquares(
    [since.map(() => 1), since],
    inOrder.map(({ preCharge_Pa }) => preCharge_Pa),
    inOrder.map(({ u_Pa }) => 1 / u_Pa ** 2),
  );
  if (!line) return { is: 'too-few', readings };
  const [now_Pa, perDay_Pa] = line.parameters as [number, number];
  const [[v11, v12], [, v22]] = line.covariance as [[number, number], [number, number]];
  const above_Pa = now_Pa - limit_Pa;
  // (above + b·d)² = z²·(v₁₁ + 2·v₁₂·d + v₂₂·d²), as a·d² + 2·h·d + c = 0.
  const a = perDay_Pa ** 2 - SURE ** 2 * v22;
  const h = perDay_Pa * above_Pa - SURE ** 2 * v12;
  const c = above_Pa ** 2 - SURE ** 2 * v11;
  const root = Math.sqrt(Math.max(0, h * h - a * c));
  const crossings = (a === 0 ? [-c / (2 * h)] : [(-h - root) / a, (-h + root) / a]).sort((x, y) => x - y);
  const dayAt = (after: number) =>
    new Date(Date.parse(last.on) + Math.round(after) * DAY_S * 1000).toISOString().slice(0, 10);
  if (a <= 0 || perDay_Pa >= 0) {
    const first = crossings.find((after) => after > 0 && after <= FURTHEST);
    return { is: 'steady', earliest: first === undefined ? null : dayAt(first), readings };
  }
  const within = (after: number) => Math.min(FURTHEST, Math.max(0, after));
  return {
    is: 'falls',
    on: dayAt(within(-above_Pa / perDay_Pa)),
    earliest: dayAt(within(crossings[0]!)),
    latest: dayAt(within(crossings.at(-1)!)),
    rate_PaPerS: perDay_Pa / DAY_S,
    readings,
  };
}
