import type { Knex } from 'knex';

/** Traces: what is said of each, its readings as packed columns, and how each kind of logger writes. */
export async function traces(db: Knex): Promise<void> {
  await db.schema.createTable('traces', (t) => {
    t.text('id').primary();
    t.integer('version').notNullable();
    t.text('name').notNullable();
    t.text('made_at').notNullable();
    t.text('run_id').references('runs.id');
    t.boolean('deleted').notNullable().defaultTo(false);
    t.text('body').notNullable();
    t.index(['deleted', 'made_at']);
    t.index(['run_id']);
  });
  await db.schema.createTable('trace_data', (t) => {
    t.text('trace_id').primary().references('traces.id');
    t.text('starts_s').notNullable();
    t.binary('overview').notNullable();
    t.binary('analysis').notNullable();
  });
  await db.schema.createTable('trace_chunks', (t) => {
    t.text('trace_id').notNullable().references('traces.id');
    t.integer('chunk').notNullable();
    t.integer('column').notNullable();
    t.binary('data').notNullable();
    t.primary(['trace_id', 'chunk', 'column']);
  });
  await db.schema.createTable('log_layouts', (t) => {
    t.text('logger').primary();
    t.text('layout').notNullable();
    t.text('used_at').notNullable();
  });
}
