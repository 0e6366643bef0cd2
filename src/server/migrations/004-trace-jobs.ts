import type { Knex } from 'knex';

/** The traces of a job are found by it, however many there are. */
export async function traceJobs(db: Knex): Promise<void> {
  await db.raw("create index traces_job on traces (json_extract(body, '$.jobId'))");
}
