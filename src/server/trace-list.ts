import type { Knex } from 'knex';
import { PER_PAGE } from '@/core/records/list-query';
import type { TraceQuery, TraceSort } from '@/core/records/trace-query';
import type { TraceRecord } from '@/core/records/trace-record';
import type { ListedTrace } from '@/core/records/views';
import { within, type Page } from './list';
import { readable } from './readable';
import { fromRow } from './store';

/** A row of traces with what is known of its run and job. */
type ListedRow = Parameters<typeof fromRow>[0] &
  Pick<ListedTrace, 'headline' | 'technician' | 'kind'> & { readonly job_tag: string | null };

/** A field of what is kept of a trace: none of one that is damaged, which would end the query. */
const inBody = (field: 'jobId' | 'duration_s') =>
  `case when json_valid(traces.body) then json_extract(traces.body, '$.${field}') end`;

const SORTS: Record<TraceSort, string> = {
  made: 'traces.made_at',
  name: 'traces.name',
  length: inBody('duration_s'),
};

/** One page of a list of traces, and how many there are in all. Each word must stand in the name or in the job's tag. */
export async function searchTraces(db: Knex, query: TraceQuery): Promise<Page<'traces', ListedTrace>> {
  const { q, run, kind, verdict, technician, sort, order, page } = query;
  const narrowed = () => {
    const rows = db('traces')
      .leftJoin('runs', 'runs.id', 'traces.run_id')
      .leftJoin('profiles', 'profiles.id', 'traces.profile_id')
      .leftJoin('jobs', 'jobs.id', db.raw(inBody('jobId')))
      .where('traces.deleted', false);
    within(rows, 'traces.made_at', query);
    if (run) rows.where('traces.run_id', run);
    if (kind) rows.where('profiles.kind', kind);
    if (verdict) rows.where('runs.call', verdict);
    if (technician) rows.where('runs.technician', technician);
    for (const word of q.split(/\s+/).filter(Boolean))
      rows.whereRaw("instr(lower(traces.name || ' ' || coalesce(jobs.tag, '')), lower(?)) > 0", [word]);
    return rows;
  };
  const [{ total }] = (await narrowed().count({ total: '*' })) as [{ total: number }];
  const rows = await narrowed()
    .select('traces.*', 'runs.headline', 'runs.technician', 'jobs.tag as job_tag', 'profiles.kind')
    .orderByRaw(`${SORTS[sort]} ${order}`)
    .orderBy('traces.made_at', 'desc')
    .limit(PER_PAGE)
    .offset((page - 1) * PER_PAGE);
  const traces = readable('trace', rows as ListedRow[], (row) => ({
    ...fromRow<TraceRecord>(row),
    jobTag: row.job_tag,
    headline: row.headline,
    technician: row.technician,
    kind: row.kind,
  }));
  return { traces, total };
}
