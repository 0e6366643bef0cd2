import type { Knex } from 'knex';
import type { JobFilter, JobQuery, JobSort } from '@/core/records/job-query';
import { PER_PAGE, searchWords } from '@/core/records/list-query';
import type { StoredJob } from '@/core/records/views';
import { jobRows, withRuns } from './jobs';
import { sortedBy, within, type Page } from './list';

const CURRENT = { deleted: false, archived: false };

const FILTERS: Record<JobFilter, Record<string, unknown>> = {
  current: CURRENT,
  'on-bench': { ...CURRENT, open_run: true },
  untested: { ...CURRENT, open_run: false, headline: null },
  unsigned: { ...CURRENT, signed: false, open_run: false },
  signed: { ...CURRENT, signed: true },
  archived: { deleted: false, archived: true },
  deleted: { deleted: true },
};

const SORTS: Record<JobSort, string> = {
  taken: 'jobs.created_at',
  promised: 'jobs.promised_on',
  tag: 'jobs.tag',
};

/** One page of a list of jobs, and how many there are in all. */
export async function searchJobs(db: Knex, query: JobQuery): Promise<Page<'jobs', StoredJob>> {
  const { q, show, kind, verdict, technician, sort, order, page } = query;
  const words = searchWords(q);
  const narrow = (rows: Knex.QueryBuilder) => {
    for (const [column, value] of Object.entries(FILTERS[show]))
      rows.where(`jobs.${column}`, value as string);
    if (show === 'unsigned') rows.whereNotNull('jobs.headline');
    within(rows, 'jobs.created_at', query);
    if (kind) rows.whereIn('jobs.profile_id', db('profiles').where({ kind }).select('id'));
    if (verdict) rows.where('jobs.call', verdict);
    if (technician) rows.whereIn('jobs.id', db('runs').where({ technician }).select('job_id'));
    // Searches everything written in the jobs: each word must begin a word of the job.
    if (words.length > 0) {
      const match = words.map((word) => `"${word}"*`).join(' ');
      rows.whereRaw('jobs.no IN (SELECT rowid FROM job_search WHERE job_search MATCH ?)', [match]);
    } else if (q.trim() !== '') rows.whereRaw('0');
    return rows;
  };
  const [{ total }] = (await narrow(db('jobs')).count({ total: '*' })) as [{ total: number }];
  const rows = await narrow(jobRows(db))
    .orderByRaw(...sortedBy(SORTS[sort], order))
    .orderBy('jobs.no', 'desc')
    .limit(PER_PAGE)
    .offset((page - 1) * PER_PAGE);
  return { jobs: await withRuns(db, rows), total };
}

/** Jobs that wait for their first test, the first promised first. */
export async function nextJobs(db: Knex, most: number): Promise<StoredJob[]> {
  const rows = await waitingJobs(db)
    .orderByRaw(...sortedBy(SORTS.promised, 'asc'))
    .orderBy('jobs.no')
    .limit(most);
  return withRuns(db, rows);
}

/** How many jobs wait for a test. */
export async function countWaiting(db: Knex): Promise<number> {
  const row = (await waitingJobs(db).clearSelect().count({ count: '*' }).first()) as { count: number };
  return Number(row.count);
}

const waitingJobs = (db: Knex) =>
  jobRows(db)
    .where({ 'jobs.deleted': false, 'jobs.archived': false, 'jobs.open_run': false })
    .whereNull('jobs.headline');
