import { conformance, type Limits, type Thresholds, type Verdict } from './verdict';
import { readingUncertainty_SI, type Measured } from './uncertainty';

/** How many readings in a row, from the first, kept to some limits, and how sure that is. */
interface Count {
  /** By what the gauge showed. */
  readonly count: number;
  /** Chance that at least so many did: the first number is for one. Never rising. */
  readonly atLeast: readonly number[];
  /** Standard uncertainty of the count; 0 where no reading is near a limit. */
  readonly u: number;
}

/**
 * Counts readings from the first that does not keep to its limits on. They are read on one gauge, whose unknown error is one:
 * that all of the first k keep to the limits is then as likely as the least likely of them alone, and the variance of the
 * count is Σ(2k − 1)·P(≥ k) − (ΣP(≥ k))².
 *
 * @param readings in the order in which they were made, all of one gauge
 */
export function countKept(readings: readonly Measured[], limits: Limits): Count {
  const kept = ({ value_SI }: Measured) =>
    value_SI >= (limits.low ?? -Infinity) && value_SI <= (limits.high ?? Infinity);
  const first = readings.findIndex((reading) => !kept(reading));
  let least = 1;
  const atLeast = readings.map((reading) => {
    least = Math.min(least, conformance(reading.value_SI, readingUncertainty_SI(reading), limits));
    return least;
  });
  const mean = atLeast.reduce((sum, p) => sum + p, 0);
  const square = atLeast.reduce((sum, p, i) => sum + (2 * i + 1) * p, 0);
  return {
    count: first < 0 ? readings.length : first,
    atLeast,
    u: Math.sqrt(Math.max(0, square - mean ** 2)),
  };
}

/**
 * Judges a count against the least that there must be.
 *
 * @param needed at least 1
 * @returns null where fewer readings were made than are needed, and all of them may have kept to the limits
 */
export function judgeCount(
  { count, atLeast }: Count,
  needed: number,
  { meets, fails }: Thresholds,
): Verdict | null {
  const pConform = atLeast[needed - 1];
  const soFar = pConform ?? atLeast.at(-1) ?? 1;
  if (pConform === undefined && soFar > fails) return null;
  const word = soFar >= meets ? 'meets' : soFar <= fails ? 'fails' : 'close';
  return { word, pConform: soFar, margin: count - needed };
}
