import type { Knex } from 'knex';

/** Cases of practice: what is told of them, and what is hidden, sealed until they are over. */
export async function practiceCases(db: Knex): Promise<void> {
  await db.schema.createTable('practice_cases', (t) => {
    t.text('id').primary();
    t.text('job_id').notNullable().references('jobs.id');
    t.text('run_id').notNullable();
    t.text('kind').notNullable();
    t.integer('level').notNullable();
    t.text('technician').notNullable();
    t.text('complaint').notNullable();
    /** Seed and truth, enciphered with a key that is in no backup. */
    t.text('sealed').notNullable();
    /** Why it counts for nothing; null where it counts. */
    t.text('not_counted');
    /** By how much its own clock is ahead: waits that were passed, ms. */
    t.integer('ahead_ms').notNullable().defaultTo(0);
    t.text('began_at').notNullable();
    t.text('ended_at');
    t.text('finding');
    /** Seed, truth and debriefing once it is over, JSON. */
    t.text('told');
    t.index(['job_id']);
  });
}
