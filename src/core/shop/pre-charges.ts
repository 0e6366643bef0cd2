import { FAMILIES } from '../families/registry';
import { preChargeOf_Pa } from '../fluid/accumulator';
import { sentence, type Sentence } from '../quantities/sentence';
import type { Work } from '../records/entries';
import type { Job } from '../records/job';
import type { JobRecord } from '../records/job-record';
import { judgedRun } from '../records/judged-run';
import { preChargeForecast, type FoundPreCharge, type PreChargeForecast } from './pre-charge-forecast';

/** Work behind which there is other gas in an accumulator. */
const NEW_GAS: readonly Work['did'][] = ['replaced', 'rebuilt'];

/** A pre-charge that a test found in one of a unit's accumulators. */
export interface FoundInAccumulator extends FoundPreCharge {
  /** Part of the unit, by its id. */
  readonly accumulator: string;
  /** Instant of the reading, ISO. */
  readonly at: string;
  /** Least pre-charge at 20 °C that the profile allowed, Pa gauge. */
  readonly limit_Pa: number;
}

/** The same with the job in which it was found. */
export interface FoundInJob extends FoundInAccumulator {
  readonly jobId: string;
  readonly tag: string;
}

/** From here on another accumulator is in its place, or other gas in it, and what was found before says nothing of it. */
export interface AccumulatorReplaced {
  readonly accumulator: string;
  readonly at: string;
}

export type PreChargeEvent = FoundInAccumulator | AccumulatorReplaced;

const isFound = (event: PreChargeEvent): event is FoundInAccumulator => 'preCharge_Pa' in event;

/**
 * Every pre-charge that the finished tests of a job found, and every accumulator that was replaced or rebuilt in it. A reading that a
 * re-test carried over is one reading, of the day on which it was made.
 */
export function preChargesIn(record: JobRecord): PreChargeEvent[] {
  const gas = FAMILIES[record.job.kind].gas ?? {};
  if (Object.keys(gas).length === 0) return [];
  const found = new Map<string, FoundInAccumulator>();
  for (const run of record.runs.filter(({ finishedAt }) => finishedAt)) {
    const { barometer_Pa, temperature_K, day } = run.context.conditions;
    const at20_Pa = (read_Pa: number) =>
      read_Pa > 0 ? preChargeOf_Pa(read_Pa, { barometer_Pa, temperature_K }) : 0;
    for (const { id, value, u, limits, captures } of judgedRun(run).results) {
      const accumulator = gas[id];
      const low = limits?.low;
      const capture = run.events.find((event) => event.id === captures[0]);
      if (!accumulator || !capture || found.has(capture.id)) continue;
      if (value === null || !u || typeof low !== 'number') continue;
      const preCharge_Pa = at20_Pa(value);
      found.set(capture.id, {
        accumulator,
        at: capture.at,
        on: day,
        preCharge_Pa,
        u_Pa: Math.abs(at20_Pa(value + u) - preCharge_Pa),
        limit_Pa: at20_Pa(low),
      });
    }
  }
  const replaced = record.work.flatMap(({ what, at, withdrawn }) =>
    !withdrawn && NEW_GAS.includes(what.did) && Object.values(gas).includes(what.part)
      ? [{ accumulator: what.part, at }]
      : [],
  );
  return [...found.values(), ...replaced];
}

/**
 * What tells one unit from another of the same profile: its serial number, else from whom it comes. Null where neither was written
 * down: such a unit has no history.
 */
export function unitOf({
  profileId,
  serial,
  from,
}: Pick<Job, 'profileId' | 'serial' | 'from'>): string | null {
  const known = serial ? `serial ${serial}` : from && `from ${from}`;
  return known ? `${profileId} ${known.toLowerCase()}` : null;
}

/** The gas of one accumulator over the years. */
export interface PreChargeHistory<Found extends FoundInAccumulator = FoundInAccumulator> {
  readonly accumulator: string;
  /** Since it was last replaced or rebuilt, oldest first; never empty. */
  readonly found: readonly Found[];
  readonly forecast: PreChargeForecast;
}

/** Histories of a unit’s accumulators from all that happened to them, in whatever order; each since it was last replaced or rebuilt; one of which nothing was found since then has none. */
export function preChargeHistories<Found extends FoundInAccumulator>(
  events: readonly (Found | AccumulatorReplaced)[],
): PreChargeHistory<Found>[] {
  const inOrder = [...events].sort((a, b) => a.at.localeCompare(b.at));
  return [...new Set(inOrder.map(({ accumulator }) => accumulator))].flatMap((accumulator) => {
    const own = inOrder.filter((event) => event.accumulator === accumulator);
    const since = own.slice(1 + own.findLastIndex((event) => !isFound(event))) as Found[];
    const last = since.at(-1);
    return last ? [{ accumulator, found: since, forecast: preChargeForecast(since, last.limit_Pa) }] : [];
  });
}

const YEAR_S = 365.25 * 86_400;

/** What a history comes to, in a sentence. */
export function forecastSentence({ found, forecast }: PreChargeHistory): Sentence {
  const limit = { value: found.at(-1)!.limit_Pa, quantity: 'pressure' } as const;
  const by = forecast.readings === 1 ? 'One reading' : `${forecast.readings} readings`;
  switch (forecast.is) {
    case 'too-few':
      return sentence(`${by}: from three on different days on it is told when it comes to {limit}.`, {
        limit,
      });
    case 'below':
      return sentence(`By the last reading it is below {limit} at 20 °C already.`, { limit });
    case 'steady':
      return forecast.earliest
        ? sentence(
            `${by}: it has not fallen by more than they are in doubt. At {limit} on ${forecast.earliest} at the earliest.`,
            { limit },
          )
        : sentence(`${by}: it has not fallen by more than they are in doubt.`);
    case 'falls':
      return sentence(
        `${by}: it falls by {fall} a year and is at {limit} about ${forecast.on}, between ${forecast.earliest} and ${forecast.latest} at odds of 95 in 100.`,
        { limit, fall: { value: -forecast.rate_PaPerS * YEAR_S, quantity: 'pressure' } },
      );
  }
}

/** Day from which its gas can be too low: by then it is read again. Null where nothing of the kind is told. */
export const readAgainBy = (forecast: PreChargeForecast): string | null =>
  forecast.is === 'falls' ? forecast.earliest : null;
