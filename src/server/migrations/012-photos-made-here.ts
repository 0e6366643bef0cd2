import type { Knex } from 'knex';

/**
 * Which pictures this application has made itself, of what a camera gave. Others, and all that were kept before it was written down, came
 * in as bytes of somebody else.
 */
export async function photosMadeHere(db: Knex): Promise<void> {
  await db.schema.alterTable('photos', (t) => {
    t.boolean('made_here').notNullable().defaultTo(false);
  });
}
