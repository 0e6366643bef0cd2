import type { Knex } from 'knex';
import { jobSchema, type Job } from '@/core/records/job';
import type { StoredJob } from '@/core/records/views';
import { add, fromRow, replace, type Shelf } from './store';

const jobs: Shelf<Job> = {
  table: 'jobs',
  what: 'job',
  schema: jobSchema,
  columns: ({ tag, profileId, promisedOn }) => ({ tag, profile_id: profileId, promised_on: promisedOn }),
};

export const addJob = (db: Knex, input: unknown, now: string) => add(db, jobs, input, { created_at: now });

export const replaceJob = (db: Knex, id: string, version: number, input: unknown) =>
  replace(db, jobs, id, version, input);

const withProfile = (db: Knex) =>
  db('jobs')
    .join('profiles', 'profiles.id', 'jobs.profile_id')
    .select('jobs.*', 'profiles.name as profile_name');

/** Jobs, newest first. */
export async function listJobs(db: Knex): Promise<StoredJob[]> {
  return withRuns(db, await withProfile(db).orderBy('jobs.created_at', 'desc'));
}

export async function findJob(db: Knex, id: string): Promise<StoredJob | null> {
  return (await withRuns(db, await withProfile(db).where('jobs.id', id)))[0] ?? null;
}

type JobRow = Parameters<typeof fromRow>[0] & { created_at: string; profile_name: string };

async function withRuns(db: Knex, rows: JobRow[]): Promise<StoredJob[]> {
  const runs = await db('runs')
    .whereIn(
      'job_id',
      rows.map(({ id }) => id),
    )
    .orderBy('started_at')
    .select('id', 'job_id', 'started_at', 'finished_at');
  return rows.map((row) => ({
    ...fromRow<Job>(row),
    createdAt: row.created_at,
    profileName: row.profile_name,
    runs: runs
      .filter((run) => run.job_id === row.id)
      .map((run) => ({ id: run.id, startedAt: run.started_at, finishedAt: run.finished_at })),
  }));
}
