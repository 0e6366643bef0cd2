import { randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import type { z } from 'zod';
import type { Stored } from '@/core/records/views';
import { append } from './journal';
import { done, invalid, refused, type Outcome } from './outcome';
import { readable } from './readable';

interface Row {
  id: string;
  version: number;
  body: string;
  deleted?: boolean;
}

export const fromRow = <T>(row: Row): Stored<T> => ({
  id: row.id,
  version: row.version,
  body: JSON.parse(row.body) as T,
});

/** A table of versioned JSON bodies with a few columns drawn out of them; every version is in the journal. */
export interface Shelf<T> {
  readonly table: string;
  readonly what: string;
  readonly schema: z.ZodType<T>;
  readonly columns: (body: T) => Record<string, unknown>;
  /** Revision of its bodies, written beside each; none where they have only ever had one form. */
  readonly revision?: number;
}

/** One entry in the history of a thing on the shelf. */
export type ShelfEntry =
  | { readonly type: 'stored'; readonly body: unknown; readonly revision?: number }
  | { readonly type: 'calibrated'; readonly calibration: unknown; readonly body: unknown }
  | { readonly type: 'deleted'; readonly deleted: boolean };

/** Name of a thing's chain in the journal. */
export const shelfChain = ({ what }: Pick<Shelf<unknown>, 'what'>, id: string) => `${what}/${id}`;

/** Adds a thing. @returns the stored thing, or what is wrong with it by field */
export async function add<T>(
  db: Knex,
  shelf: Shelf<T>,
  input: unknown,
  now: string,
  id: string = randomUUID(),
): Promise<Outcome<Stored<T>>> {
  const parsed = shelf.schema.safeParse(input);
  if (!parsed.success) return invalid(parsed.error.issues);
  const body = parsed.data;
  return guardUnique(shelf, () =>
    db.transaction(async (trx) => {
      await trx(shelf.table).insert({ id, version: 1, ...shelf.columns(body), body: JSON.stringify(body) });
      await written(trx, shelf, id, { type: 'stored', body, revision: shelf.revision }, now);
      return done({ id, version: 1, body });
    }),
  );
}

/** Replaces a thing, if it is still at the version the screen saw. */
export async function replace<T>(
  db: Knex,
  shelf: Shelf<T>,
  id: string,
  version: number,
  input: unknown,
  now: string,
  entryOf: (body: T) => ShelfEntry = (body) => ({ type: 'stored', body, revision: shelf.revision }),
): Promise<Outcome<Stored<T>>> {
  const parsed = shelf.schema.safeParse(input);
  if (!parsed.success) return invalid(parsed.error.issues);
  const body = parsed.data;
  return guardUnique(shelf, () =>
    db.transaction(async (trx) => {
      const changed = await trx(shelf.table)
        .where({ id, version, deleted: false })
        .update({ ...shelf.columns(body), version: version + 1, body: JSON.stringify(body) });
      if (changed === 1) {
        await written(trx, shelf, id, entryOf(body), now);
        return done({ id, version: version + 1, body });
      }
      const current = await trx<Row>(shelf.table).where({ id, deleted: false }).first();
      return current ? conflict<T>(shelf.what, fromRow(current)) : missing(shelf.what);
    }),
  );
}

/** Takes a thing off the shelf, or puts it back: nothing is ever thrown away. */
export async function setDeleted<T>(
  db: Knex,
  shelf: Shelf<T>,
  id: string,
  deleted: boolean,
  now: string,
): Promise<Outcome<Stored<T>>> {
  return guardUnique(shelf, () =>
    db.transaction(async (trx) => {
      const changed = await trx(shelf.table).where({ id, deleted: !deleted }).update({ deleted });
      const row = await trx<Row>(shelf.table).where({ id }).first();
      if (!row) return missing(shelf.what);
      if (changed === 1) await written(trx, shelf, id, { type: 'deleted', deleted }, now);
      return done(fromRow<T>(row));
    }),
  );
}

/** What is on a shelf, without what was taken off it. */
export async function list<T>(db: Knex, shelf: Pick<Shelf<T>, 'table'>, by: string): Promise<Stored<T>[]> {
  const rows = (await db(shelf.table).where('deleted', false).orderBy(by)) as Row[];
  return readable(shelf.table.replace(/s$/, ''), rows, (row) => fromRow<T>(row));
}

const written = (trx: Knex, shelf: Pick<Shelf<unknown>, 'what'>, id: string, entry: ShelfEntry, at: string) =>
  append(trx, shelfChain(shelf, id), { id: randomUUID(), at, entry });

export const missing = (what: string) => refused({ code: 'not-found', message: `There is no such ${what}.` });

export const conflict = <T>(what: string, current: Stored<T>) =>
  refused({
    code: 'conflict',
    message: `This ${what} was changed on another screen while you were editing. Nothing of yours is lost: compare, then save again.`,
    current,
  });

async function guardUnique<T>(
  shelf: Shelf<T>,
  write: () => Promise<Outcome<Stored<T>>>,
): Promise<Outcome<Stored<T>>> {
  try {
    return await write();
  } catch (error) {
    if ((error as { code?: string }).code !== 'SQLITE_CONSTRAINT_UNIQUE') throw error;
    return invalid([{ path: ['tag'], message: `Another ${shelf.what} has this tag already.` }]);
  }
}
