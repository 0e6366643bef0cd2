import type { Knex } from 'knex';
import { FAMILIES } from '@/core/families/registry';
import { canonicalJson } from '@/core/records/canonical';
import { FINDING_KINDS } from '@/core/records/entries';
import type { JobRecord } from '@/core/records/job-record';
import { partName } from '@/core/records/part-name';
import { judgedRun } from '@/core/records/judged-run';
import { jobChain } from './journal';
import { indexPreCharges } from './pre-charges';
import { readRecord } from './record';

/** Raised when what is derived from the journal changes: the index is then made anew at start. */
export const INDEX_VERSION = 4;

/** What of a job's row follows without judging anything. */
function plainRow(record: JobRecord) {
  return {
    id: record.id,
    version: record.version,
    tag: record.job.tag,
    profile_id: record.profile.id,
    created_at: record.createdAt,
    promised_on: record.job.promisedOn,
    body: canonicalJson(record.job),
    deleted: Number(record.deleted),
    signed: Number(record.signed),
    archived: Number(record.archived),
    open_run: Number(record.runs.some(({ finishedAt }) => !finishedAt)),
  };
}

/** Whether a row says what is wanted of it, whatever else it says. */
export const rowSays = (have: Record<string, unknown> | undefined, want: Record<string, unknown>): boolean =>
  have !== undefined && Object.entries(want).every(([column, value]) => have[column] === value);

/**
 * Whether the list has a job as its record has it, as far as that can be told without judging its tests: a record whose last entries were
 * taken out is not what the list shows of it.
 */
export async function isListed(db: Knex, record: JobRecord): Promise<boolean> {
  if (!rowSays(await db('jobs').where({ id: record.id }).first(), plainRow(record))) return false;
  const stored: { id: string; finished_at: string | null }[] = await db('runs').where({ job_id: record.id });
  const wanted = record.runs.map(({ id, finishedAt }) => ({ id, finished_at: finishedAt }));
  return (
    stored.length === wanted.length &&
    wanted.every((run) =>
      rowSays(
        stored.find(({ id }) => id === run.id),
        run,
      ),
    )
  );
}

/** Rows that lists and searches go by, made from a job's record alone. */
export function indexRows(record: JobRecord) {
  const runs = record.runs.map((run) => {
    const { headline, call } = run.finishedAt ? judgedRun(run).assessment : { headline: null, call: null };
    return {
      id: run.id,
      job_id: record.id,
      kind: run.kind as string,
      continues: run.continues,
      started_at: run.startedAt,
      finished_at: run.finishedAt,
      headline,
      call: call as string | null,
      technician: run.context.conditions.technician,
    };
  });
  const last = runs.findLast(({ finished_at }) => finished_at);
  return {
    job: {
      ...plainRow(record),
      headline: last?.headline ?? null,
      call: last?.call ?? null,
    },
    runs,
    text: wordsOf(
      record,
      runs.flatMap(({ headline }) => headline ?? []),
    ),
  };
}

/** Everything written in a job, for searching. */
function wordsOf(record: JobRecord, headlines: readonly string[]): string {
  const { job, profile } = record;
  const family = FAMILIES[profile.kind];
  const { name, maker } = profile.body as { name?: string; maker?: string };
  const fault = (id: string | null) => family.faults.find((one) => one.id === id)?.name ?? '';
  const place = (id: string | null) => family.leakPoints.find((one) => one.id === id)?.name ?? '';
  return [
    job.tag,
    job.from,
    job.complaint,
    name,
    maker,
    ...headlines,
    ...record.findings.flatMap(({ what }) => [
      FINDING_KINDS[what.kind],
      what.words,
      fault(what.fault),
      place(what.point),
    ]),
    ...record.work.flatMap(({ what }) => [partName(profile.kind, what.part), what.reason, what.serial]),
    ...record.identities.flatMap(({ what }) => [
      partName(profile.kind, what.part),
      what.claimed,
      what.found,
      what.decidedBy,
    ]),
    ...record.codes.flatMap(({ what }) => what.found.map(({ code }) => code)),
    ...record.photos.map(({ what }) => what.caption),
    ...record.corrections.map(({ what }) => what.words),
    ...record.reopenings.map(({ reason }) => reason),
    ...record.signatures.map(({ technician }) => technician),
    ...record.runs.flatMap(({ events, context }) => [
      context.conditions.technician,
      ...events.flatMap((event) =>
        event.type === 'observed' ? [event.note] : event.type === 'skipped' ? [event.reason] : [],
      ),
    ]),
  ]
    .filter(Boolean)
    .join('\n');
}

/** Brings the rows of one job up to date with its record. */
export async function indexJob(trx: Knex, record: JobRecord): Promise<void> {
  const { job, runs, text } = indexRows(record);
  const known = await trx('jobs').where({ id: job.id }).first('no');
  const no = known?.no ?? 1 + (await trx('jobs').max({ no: 'no' }).first())!.no;
  await trx('jobs')
    .insert({ ...job, no })
    .onConflict('id')
    .merge();
  await indexPreCharges(trx, record);
  for (const run of runs) await trx('runs').insert(run).onConflict('id').merge();
  await trx('job_search').where({ rowid: no }).delete();
  await trx('job_search').insert({ rowid: no, text });
}

/** Makes the index anew from the journal where it was made by an older version. */
export async function refreshIndex(db: Knex): Promise<void> {
  const row = await db('derived').where({ id: 1 }).first();
  if (row?.version === INDEX_VERSION) return;
  await db.transaction(async (trx) => {
    const chains: { chain: string }[] = await trx('journal')
      .distinct('chain')
      .where('chain', 'like', jobChain('%'));
    for (const { chain } of chains) {
      const record = await readRecord(trx, chain.slice(jobChain('').length));
      if (record) await indexJob(trx, record);
    }
    await trx('derived').insert({ id: 1, version: INDEX_VERSION }).onConflict('id').merge();
  });
}
