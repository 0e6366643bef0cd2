import { randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import type { z } from 'zod';
import type { Stored } from '@/core/records/views';
import { done, invalid, refused, type Outcome } from './outcome';

interface Row {
  id: string;
  version: number;
  body: string;
}

export const fromRow = <T>(row: Row): Stored<T> => ({
  id: row.id,
  version: row.version,
  body: JSON.parse(row.body) as T,
});

/** A table of versioned JSON bodies with a few columns drawn out of them. */
export interface Shelf<T> {
  readonly table: string;
  readonly what: string;
  readonly schema: z.ZodType<T>;
  readonly columns: (body: T) => Record<string, unknown>;
}

/** Adds a thing. @returns the stored thing, or what is wrong with it by field */
export async function add<T>(
  db: Knex,
  shelf: Shelf<T>,
  input: unknown,
  extra: Record<string, unknown> = {},
): Promise<Outcome<Stored<T>>> {
  const parsed = shelf.schema.safeParse(input);
  if (!parsed.success) return invalid(parsed.error.issues);
  const stored = { id: randomUUID(), version: 1, body: parsed.data };
  const row = { ...stored, ...extra, ...shelf.columns(parsed.data), body: JSON.stringify(parsed.data) };
  return guardUnique(shelf, async () => {
    await db(shelf.table).insert(row);
    return done(stored);
  });
}

/** Replaces a thing, if it is still at the version the screen saw. */
export async function replace<T>(
  db: Knex,
  shelf: Shelf<T>,
  id: string,
  version: number,
  input: unknown,
): Promise<Outcome<Stored<T>>> {
  const parsed = shelf.schema.safeParse(input);
  if (!parsed.success) return invalid(parsed.error.issues);
  return guardUnique(shelf, async () => {
    const changed = await db(shelf.table)
      .where({ id, version })
      .update({ ...shelf.columns(parsed.data), version: version + 1, body: JSON.stringify(parsed.data) });
    if (changed === 1) return done({ id, version: version + 1, body: parsed.data });
    const now = await db<Row>(shelf.table).where({ id }).first();
    if (!now) return refused({ code: 'not-found', message: `There is no such ${shelf.what}.` });
    return refused({
      code: 'conflict',
      message: `This ${shelf.what} was changed on another screen while you were editing. Nothing of yours is lost: compare, then save again.`,
      current: fromRow(now),
    });
  });
}

async function guardUnique<T>(
  shelf: Shelf<T>,
  write: () => Promise<Outcome<Stored<T>>>,
): Promise<Outcome<Stored<T>>> {
  try {
    return await write();
  } catch (error) {
    const code = (error as { code?: string }).code;
    if (code === 'SQLITE_CONSTRAINT_UNIQUE') {
      return invalid([{ path: ['tag'], message: `Another ${shelf.what} has this tag already.` }]);
    }
    if (code === 'SQLITE_CONSTRAINT_FOREIGNKEY') {
      return invalid([{ path: ['profileId'], message: 'That profile is not on the shelf.' }]);
    }
    throw error;
  }
}
