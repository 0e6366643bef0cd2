import type { Knex } from 'knex';
import {
  JOBS_PER_PAGE,
  searchWords,
  type JobFilter,
  type JobQuery,
  type JobSort,
} from '@/core/records/job-query';
import type { StoredJob } from '@/core/records/views';
import { jobRows, withRuns } from './jobs';

const CURRENT = { deleted: false, archived: false };

const FILTERS: Record<JobFilter, Record<string, unknown>> = {
  current: CURRENT,
  'on-bench': { ...CURRENT, open_run: true },
  untested: { ...CURRENT, open_run: false, headline: null },
  faulty: { ...CURRENT, call: 'faulty' },
  open: { ...CURRENT, call: 'open' },
  incomplete: { ...CURRENT, call: 'incomplete' },
  'weak-supply': { ...CURRENT, call: 'weak-supply' },
  healthy: { ...CURRENT, call: 'healthy' },
  unsigned: { ...CURRENT, signed: false, open_run: false },
  signed: { ...CURRENT, signed: true },
  archived: { deleted: false, archived: true },
  deleted: { deleted: true },
};

const SORTS: Record<JobSort, readonly { column: string; order: 'asc' | 'desc'; nulls?: 'last' }[]> = {
  newest: [{ column: 'jobs.created_at', order: 'desc' }],
  oldest: [{ column: 'jobs.created_at', order: 'asc' }],
  promised: [{ column: 'jobs.promised_on', order: 'asc', nulls: 'last' }],
  tag: [{ column: 'jobs.tag', order: 'asc' }],
};

/** One page of a list of jobs, and how many there are in all. */
export interface JobList {
  readonly jobs: readonly StoredJob[];
  readonly total: number;
}

/** Searches everything written in the jobs: each word must begin a word of the job. */
export async function searchJobs(db: Knex, { q, show, sort, page }: JobQuery): Promise<JobList> {
  const words = searchWords(q);
  const narrow = (query: Knex.QueryBuilder) => {
    for (const [column, value] of Object.entries(FILTERS[show]))
      query.where(`jobs.${column}`, value as string);
    if (show === 'unsigned') query.whereNotNull('jobs.headline');
    if (words.length > 0) {
      const match = words.map((word) => `"${word}"*`).join(' ');
      query.whereRaw('jobs.no IN (SELECT rowid FROM job_search WHERE job_search MATCH ?)', [match]);
    } else if (q.trim() !== '') query.whereRaw('0');
    return query;
  };
  const [{ total }] = (await narrow(db('jobs')).count({ total: '*' })) as [{ total: number }];
  const rows = await narrow(jobRows(db))
    .orderBy([...SORTS[sort], { column: 'jobs.no', order: 'desc' }])
    .limit(JOBS_PER_PAGE)
    .offset((page - 1) * JOBS_PER_PAGE);
  return { jobs: await withRuns(db, rows), total };
}

/** Jobs that wait for their first test, the first promised first. */
export async function nextJobs(db: Knex, most: number): Promise<StoredJob[]> {
  const rows = await jobRows(db)
    .where({ 'jobs.deleted': false, 'jobs.archived': false, 'jobs.open_run': false })
    .whereNull('jobs.headline')
    .orderBy([{ column: 'jobs.promised_on', order: 'asc', nulls: 'last' }, 'jobs.no'])
    .limit(most);
  return withRuns(db, rows);
}
