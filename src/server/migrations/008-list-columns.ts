import type { Knex } from 'knex';

/** What lists are narrowed by: who did a run, and of which unit a trace is. The index writes the first anew. */
export async function listColumns(db: Knex): Promise<void> {
  await db.schema.alterTable('runs', (t) => {
    t.text('technician');
    t.index(['technician', 'job_id']);
  });
  await db.schema.alterTable('traces', (t) => {
    t.text('profile_id');
  });
  await db('traces').update({ profile_id: db.raw("json_extract(body, '$.profileId')") });
}
