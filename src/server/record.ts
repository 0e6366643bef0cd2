import { randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import { judgedChain } from '@/core/records/job-file';
import { jobRecord, type FromFile, type JobRecord } from '@/core/records/job-record';
import type { Judgement } from '@/core/records/judgement';
import type { StoredRun } from '@/core/records/views';
import { append, jobChain, jobEntryFrom, linksOf, writtenFrom, type JournalRow } from './journal';
import { storedEntry } from '@/core/records/stored-entry';

/** The whole record of a job, with the verdicts that stand outside it. */
export async function readRecord(db: Knex, jobId: string): Promise<JobRecord | null> {
  return recordOf(db, jobId, await rowsOf(db, jobId));
}

/** Rows of the journal that a record is made of. */
export interface RecordRows {
  readonly links: readonly JournalRow[];
  /** Those that hold verdicts outside its chain. */
  readonly judged: readonly JournalRow[];
}

export async function rowsOf(db: Knex, jobId: string): Promise<RecordRows> {
  const links = await linksOf(db, jobChain(jobId));
  return { links, judged: await judgedLinks(db, links) };
}

/** The record of a job from its rows. */
export const recordOf = async (
  db: Knex,
  jobId: string,
  { links, judged }: RecordRows,
): Promise<JobRecord | null> =>
  jobRecord(jobId, links.map(jobEntryFrom), judgementsFrom(judged), await fromFiles(db, jobId));

/** Chain that says which entries of a job came in a job file. It stays here: elsewhere all of them do. */
const fromFileChain = (jobId: string) => `from-file/${jobId}`;

async function fromFiles(db: Knex, jobId: string): Promise<FromFile[]> {
  const links = await linksOf(db, fromFileChain(jobId));
  return links.map((link) => {
    const { first, last } = writtenFrom<FromFile>(link).entry;
    return { first, last };
  });
}

/** Writes down that entries of a job came in a job file. */
export async function appendFromFile(trx: Knex, jobId: string, which: FromFile, at: string): Promise<void> {
  await append(trx, fromFileChain(jobId), { id: randomUUID(), at, entry: { type: 'from-file', ...which } });
}

/** Verdicts by run. */
export const judgementsFrom = (links: readonly JournalRow[]): ReadonlyMap<string, Judgement> =>
  new Map(
    links.map((link) => {
      const { entry } = jobEntryFrom(link);
      return [(entry as Judgement).run, entry as Judgement];
    }),
  );

/** The rows that hold verdicts of the runs among some rows, outside their record. */
export async function judgedLinks(db: Knex, links: readonly JournalRow[]): Promise<JournalRow[]> {
  const runs = [...new Set(links.flatMap(({ run_id }) => run_id ?? []))];
  return db<JournalRow>('journal').whereIn('chain', runs.map(judgedChain)).orderBy('seq');
}

/** Writes the verdicts of a run beside its record, where none are written yet. */
export async function appendJudgement(
  trx: Knex,
  id: string,
  judgement: Judgement,
  at: string,
): Promise<void> {
  const chain = judgedChain(judgement.run);
  if ((await linksOf(trx, chain)).length > 0) return;
  await append(trx, chain, { id, at, entry: storedEntry(judgement) });
}

/** A run with the whole record that it stands in. */
export async function findRunWithRecord(
  db: Knex,
  runId: string,
): Promise<{ record: JobRecord; run: StoredRun } | null> {
  const row = await db('runs').where({ id: runId }).first('job_id');
  const record = row ? await readRecord(db, row.job_id as string) : null;
  const run = record?.runs.find(({ id }) => id === runId);
  return record && run ? { record, run } : null;
}
