import type { Knex } from 'knex';
import { comparisonSchema, type Comparison } from '@/core/shop/comparison';
import type { Stored } from '@/core/records/views';
import { add, fromRow, list, replace, setDeleted, type Shelf } from './store';

export const comparisons: Shelf<Comparison> = {
  table: 'comparisons',
  what: 'comparison',
  schema: comparisonSchema,
  columns: ({ place }) => ({ name: place.name }),
};

export const listComparisons = (db: Knex): Promise<Stored<Comparison>[]> => list(db, comparisons, 'name');

export async function findComparison(db: Knex, id: string): Promise<Stored<Comparison> | null> {
  const row = await db('comparisons').where({ id, deleted: false }).first();
  return row ? fromRow<Comparison>(row) : null;
}

export const addComparison = (db: Knex, input: unknown, now: string) => add(db, comparisons, input, now);

export const replaceComparison = (db: Knex, id: string, version: number, input: unknown, now: string) =>
  replace(db, comparisons, id, version, input, now);

export const deleteComparison = (db: Knex, id: string, deleted: boolean, now: string) =>
  setDeleted(db, comparisons, id, deleted, now);
