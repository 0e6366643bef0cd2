import type { Knex } from 'knex';
import { FAMILIES } from '@/core/families/registry';
import { printNames } from '@/core/quantities/sentence';
import type { Job } from '@/core/records/job';
import type { JobRecord } from '@/core/records/job-record';
import type { AccumulatorDue } from '@/core/shop/due';
import {
  forecastSentence,
  preChargeHistories,
  preChargesIn,
  readAgainBy,
  unitOf,
  type AccumulatorReplaced,
  type FoundInJob,
  type PreChargeHistory,
} from '@/core/shop/pre-charges';

interface Row {
  job_id: string;
  unit: string;
  accumulator: string;
  at: string;
  on: string | null;
  pre_charge_Pa: number | null;
  u_Pa: number | null;
  limit_Pa: number | null;
}

/** Brings what a job says of its unit's accumulators up to date with its record. */
export async function indexPreCharges(trx: Knex, record: JobRecord): Promise<void> {
  await trx('pre_charges').where({ job_id: record.id }).delete();
  const unit = unitOf(record.job);
  if (!unit || record.deleted) return;
  const rows = preChargesIn(record).map((event): Row => {
    const { accumulator, at } = event;
    const own = { job_id: record.id, unit, accumulator, at };
    return 'preCharge_Pa' in event
      ? {
          ...own,
          on: event.on,
          pre_charge_Pa: event.preCharge_Pa,
          u_Pa: event.u_Pa,
          limit_Pa: event.limit_Pa,
        }
      : { ...own, on: null, pre_charge_Pa: null, u_Pa: null, limit_Pa: null };
  });
  if (rows.length > 0) await trx('pre_charges').insert(rows);
}

type Tagged = Row & { tag: string };

const rowsOf = (db: Knex) =>
  db('pre_charges')
    .join('jobs', 'jobs.id', 'pre_charges.job_id')
    .select<Tagged[]>('pre_charges.*', 'jobs.tag');

const eventOf = ({ job_id, tag, accumulator, at, ...row }: Tagged): FoundInJob | AccumulatorReplaced =>
  row.on === null
    ? { accumulator, at }
    : {
        accumulator,
        at,
        on: row.on,
        preCharge_Pa: row.pre_charge_Pa!,
        u_Pa: row.u_Pa!,
        limit_Pa: row.limit_Pa!,
        jobId: job_id,
        tag,
      };

/** The gas of the accumulators of the unit that a job is about, by all its jobs. */
export async function preChargesOfUnit(db: Knex, job: Job): Promise<PreChargeHistory<FoundInJob>[]> {
  const unit = unitOf(job);
  return unit ? preChargeHistories((await rowsOf(db).where({ unit })).map(eventOf)) : [];
}

/** Accumulators whose pre-charge is to be read again, by the day from which it can be too low, soonest first. */
export async function dueAccumulators(db: Knex): Promise<AccumulatorDue[]> {
  const units = new Map<string, Tagged[]>();
  for (const row of await rowsOf(db)) {
    const own = units.get(row.unit);
    if (own) own.push(row);
    else units.set(row.unit, [row]);
  }
  const due = [...units.values()].flatMap((rows) =>
    preChargeHistories(rows.map(eventOf)).flatMap((history) => {
      const on = readAgainBy(history.forecast);
      return on ? [{ history, on, last: history.found.at(-1)! }] : [];
    }),
  );
  const jobs = await db('jobs')
    .whereIn(
      'id',
      due.map(({ last }) => last.jobId),
    )
    .select<{ id: string; body: string }[]>('id', 'body');
  const bodies = new Map(jobs.map(({ id, body }) => [id, JSON.parse(body) as Job]));
  return due
    .map(({ history, on, last: { jobId, tag } }): AccumulatorDue => {
      const { accumulator } = history;
      const { kind, from, serial } = bodies.get(jobId)!;
      const part = FAMILIES[kind].parts.find(({ id }) => id === accumulator)!;
      const name = [from, serial, printNames([part.name])].filter(Boolean).join(', ');
      return { jobId, tag, accumulator, name, on, says: forecastSentence(history) };
    })
    .sort((a, b) => a.on.localeCompare(b.on) || a.tag.localeCompare(b.tag));
}
