import type { Knex } from 'knex';
import { dueDates, type DueDate } from '@/core/shop/due';
import { listInstruments } from './shelf';

/** What falls due on the shelf, soonest first. */
export async function dueOnShelf(db: Knex): Promise<DueDate[]> {
  return dueDates((await listInstruments(db)).map(({ body }) => body));
}
