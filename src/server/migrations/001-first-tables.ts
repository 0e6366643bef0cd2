import type { Knex } from 'knex';

export async function firstTables(db: Knex): Promise<void> {
  await db.schema.createTable('settings', (t) => {
    t.integer('id').primary();
    t.integer('version').notNullable();
    t.text('body').notNullable();
  });
  await db.schema.createTable('profiles', (t) => {
    t.text('id').primary();
    t.integer('version').notNullable();
    t.text('kind').notNullable();
    t.text('name').notNullable();
    t.text('body').notNullable();
  });
  await db.schema.createTable('instruments', (t) => {
    t.text('id').primary();
    t.integer('version').notNullable();
    t.text('tag').notNullable().unique();
    t.text('body').notNullable();
  });
  await db.schema.createTable('jobs', (t) => {
    t.text('id').primary();
    t.integer('version').notNullable();
    t.text('tag').notNullable();
    t.text('profile_id').notNullable().references('profiles.id');
    t.text('created_at').notNullable();
    t.text('promised_on');
    t.text('body').notNullable();
    t.index(['created_at']);
  });
  await db.schema.createTable('runs', (t) => {
    t.text('id').primary();
    t.text('job_id').notNullable().references('jobs.id');
    t.text('kind').notNullable();
    t.text('context').notNullable();
    t.text('started_at').notNullable();
    t.text('finished_at');
    t.index(['job_id']);
    t.index(['finished_at']);
  });
  await db.schema.createTable('run_events', (t) => {
    t.text('run_id').notNullable().references('runs.id');
    t.integer('seq').notNullable();
    t.text('id').notNullable().unique();
    t.text('recorded_at').notNullable();
    t.text('body').notNullable();
    t.primary(['run_id', 'seq']);
  });
}
