import { randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import { FAMILIES } from '@/core/families/registry';
import { canonicalJson } from '@/core/records/canonical';
import type { JobEntry } from '@/core/records/entries';
import { jobSchema, type Job } from '@/core/records/job';
import { admitEntry, recordRefusalSentence, withEntry, type JobRecord } from '@/core/records/job-record';
import type { StoredJob } from '@/core/records/views';
import { wrongDays } from '@/core/shop/plausible-day';
import { storedEntry } from '@/core/records/stored-entry';
import { append, findEntry, jobChain, NAMED_ALREADY, type JournalRow, type NewEntry } from './journal';
import { indexJob } from './job-index';
import { done, invalid, refused, type Outcome } from './outcome';
import { readable } from './readable';
import { readRecord } from './record';
import { findProfile } from './shelf';
import { conflict, missing } from './store';
import { StoreTrouble } from './trouble';

/** Takes in a unit: the first entry of its record. */
export async function addJob(db: Knex, input: unknown, at: string): Promise<Outcome<StoredJob>> {
  const read = await readIntake(db, input);
  if (!read.ok) return read;
  const id = randomUUID();
  const outcome = await write(db, id, { id: randomUUID(), at, entry: { type: 'taken-in', ...read.value } });
  return outcome.ok ? done((await findJob(db, id))!) : outcome;
}

/** Changes what was taken in, if it is still at the version the screen saw. What stood before stays in the record. */
export async function replaceJob(
  db: Knex,
  id: string,
  version: number,
  input: unknown,
  at: string,
): Promise<Outcome<StoredJob>> {
  const read = await readIntake(db, input);
  if (!read.ok) return read;
  return db.transaction(async (trx) => {
    const now = await findJob(trx, id);
    if (!now) return missing('job');
    if (now.version !== version) return conflict('job', now);
    const outcome = await write(trx, id, { id: randomUUID(), at, entry: { type: 'changed', ...read.value } });
    return outcome.ok ? done((await findJob(trx, id))!) : outcome;
  });
}

async function readIntake(db: Knex, input: unknown) {
  const parsed = jobSchema.safeParse(input);
  if (!parsed.success) return invalid(parsed.error.issues);
  const wrong = wrongDays(parsed.data, { promisedOn: 'Promised' });
  if (wrong.length > 0) return invalid(wrong);
  const found = await findProfile(db, parsed.data.profileId);
  if (!found) return invalid([{ path: ['profileId'], message: 'That profile is not on the shelf.' }]);
  if (found.kind !== parsed.data.kind)
    return invalid([{ path: ['profileId'], message: 'That profile is of another kind of unit.' }]);
  const { id, kind, body } = found;
  const profile = { id, kind, revision: FAMILIES[kind].revision, body: body as unknown };
  return done({ job: parsed.data, profile });
}

/** Adds an entry to a job's record, whatever is derived from it included. Sent twice, it is recorded once. */
export async function write(db: Knex, jobId: string, fresh: NewEntry<JobEntry>): Promise<Outcome<JobRecord>> {
  return db.transaction(async (trx) => {
    const record = await readRecord(trx, jobId);
    const known = await findEntry(trx, fresh.id);
    if (known && (!record || known.chain !== jobChain(jobId) || !saysTheSame(known, fresh.entry)))
      return refused({ code: 'refused', message: NAMED_ALREADY });
    if (known) return done(record!);
    const refusal = admitEntry(record, fresh.entry);
    if (refusal === 'not-begun') return missing('job');
    if (refusal) return refused({ code: 'refused', message: recordRefusalSentence(refusal) });
    const link = await append(trx, jobChain(jobId), { ...fresh, entry: storedEntry(fresh.entry) });
    const next = withEntry(jobId, record, { ...fresh, place: link.place });
    await indexJob(trx, next);
    return done(next);
  });
}

/** Whether an entry says what is sent under its name. What a signature is over has changed once it is written. */
function saysTheSame({ body }: JournalRow, entry: JobEntry): boolean {
  const said = (one: object) => canonicalJson({ ...one, head: null });
  return said(JSON.parse(body) as object) === said(storedEntry(entry));
}

export async function findJob(db: Knex, id: string): Promise<StoredJob | null> {
  const row = await jobRows(db).where('jobs.id', id).first();
  if (!row) return null;
  const [job] = await withRuns(db, [row]);
  if (!job) throw new StoreTrouble('This job is damaged in the list and cannot be read. Verify all records.');
  return job;
}

/** Rows of jobs with the names of their profiles. */
export const jobRows = (db: Knex) =>
  db('jobs')
    .join('profiles', 'profiles.id', 'jobs.profile_id')
    .select('jobs.*', 'profiles.name as profile_name');

interface JobRow {
  id: string;
  version: number;
  body: string;
  created_at: string;
  profile_name: string;
  headline: string | null;
  call: StoredJob['call'];
  signed: number;
  archived: number;
  deleted: number;
}

/** Jobs as lists show them, each with its runs. */
export async function withRuns(db: Knex, rows: JobRow[]): Promise<StoredJob[]> {
  const ids = rows.map(({ id }) => id);
  const runs = await db('runs')
    .whereIn('job_id', ids)
    .orderBy('started_at')
    .select('id', 'job_id', 'started_at', 'finished_at', 'technician');
  const byJob = new Map<string, StoredJob['runs'][number][]>(ids.map((id) => [id, []]));
  for (const run of runs)
    byJob.get(run.job_id)!.push({
      id: run.id,
      startedAt: run.started_at,
      finishedAt: run.finished_at,
      technician: run.technician,
    });
  return readable('job', rows, (row) => ({
    id: row.id,
    version: row.version,
    body: JSON.parse(row.body) as Job,
    createdAt: row.created_at,
    profileName: row.profile_name,
    headline: row.headline,
    call: row.call,
    signed: Boolean(row.signed),
    archived: Boolean(row.archived),
    deleted: Boolean(row.deleted),
    runs: byJob.get(row.id)!,
  }));
}

/** Tags of jobs by their identity. */
export async function tagsOf(db: Knex, ids: readonly string[]): Promise<Record<string, string>> {
  const rows = (await db('jobs')
    .whereIn('id', [...new Set(ids)])
    .select('id', 'tag')) as { id: string; tag: string }[];
  return Object.fromEntries(rows.map(({ id, tag }) => [id, tag]));
}
