import type { Knex } from 'knex';

/** Candidates for another kind of assist against a vehicle. */
export async function comparisons(db: Knex): Promise<void> {
  await db.schema.createTable('comparisons', (t) => {
    t.text('id').primary();
    t.integer('version').notNullable();
    t.text('name').notNullable();
    t.text('body').notNullable();
    t.boolean('deleted').notNullable().defaultTo(false);
  });
}
