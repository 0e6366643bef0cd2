import type { Knex } from 'knex';
import type { ListQuery } from '@/core/records/list-query';

/** One page of a list under its name, and how many rows there are in all. */
export type Page<Name extends string, Row> = Readonly<Record<Name, readonly Row[]>> & {
  readonly total: number;
};

/** Narrows rows to those of a time column within days of the bench's own calendar, first and last counted in. */
export function within(
  rows: Knex.QueryBuilder,
  column: string,
  { from, to }: Pick<ListQuery, 'from' | 'to'>,
): void {
  if (from) rows.where(column, '>=', new Date(`${from}T00:00`).toISOString());
  if (!to) return;
  const next = new Date(`${to}T00:00`);
  next.setDate(next.getDate() + 1);
  rows.where(column, '<', next.toISOString());
}

/** A column in order, rows without a value last: the query builder's own way of saying so drops the order. */
export const sortedBy = (column: string, order: ListQuery['order']) =>
  [`?? ${order} nulls last`, [column]] as const;

/** Names of all who have tested, in order. */
export async function testers(db: Knex): Promise<string[]> {
  const rows = (await db('runs').distinct('technician').whereNotNull('technician').orderBy('technician')) as {
    technician: string;
  }[];
  return rows.map(({ technician }) => technician).filter(Boolean);
}
