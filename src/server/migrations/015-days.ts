import type { Knex } from 'knex';

/** Who is here on a day, and what was fixed of its plan by hand. */
export async function days(db: Knex): Promise<void> {
  await db.schema.createTable('days', (t) => {
    t.text('day').primary();
    t.integer('version').notNullable();
    t.text('body').notNullable();
  });
}
