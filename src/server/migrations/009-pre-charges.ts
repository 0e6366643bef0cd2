import type { Knex } from 'knex';

/** Pre-charges that were found, and accumulators that were replaced, by the unit they belong to. The index writes them. */
export async function preCharges(db: Knex): Promise<void> {
  await db.schema.createTable('pre_charges', (t) => {
    t.string('job_id').notNullable().index();
    /** What tells the unit from others: a history goes by it. */
    t.string('unit').notNullable().index();
    t.string('accumulator').notNullable();
    t.string('at').notNullable();
    /** Day of the reading; null, with all that follows, where the accumulator was replaced. */
    t.string('on');
    t.double('pre_charge_Pa');
    t.double('u_Pa');
    t.double('limit_Pa');
  });
}
