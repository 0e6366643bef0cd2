import type { Knex } from 'knex';

/** A profile on the shelf says which revision of its family it was written in: the first, until now. */
export async function shelfRevisions(db: Knex): Promise<void> {
  await db.schema.alterTable('profiles', (t) => t.integer('revision').notNullable().defaultTo(1));
}
