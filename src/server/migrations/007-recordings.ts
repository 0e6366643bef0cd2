import type { Knex } from 'knex';

/** What the logger sends while a step is done, on disk as it grows. */
export async function recordings(db: Knex): Promise<void> {
  await db.schema.createTable('recordings', (t) => {
    t.string('id').primary();
    t.string('run_id').notNullable();
    t.string('step').notNullable();
    t.string('began_at').notNullable();
  });
  await db.schema.createTable('recording_parts', (t) => {
    t.string('recording_id').notNullable();
    t.integer('part').notNullable();
    /** The logger's channels, as JSON. */
    t.text('channels').notNullable();
    /** Doubles: time, then a value to each channel, row after row. */
    t.binary('rows').notNullable();
    t.primary(['recording_id', 'part']);
  });
}
