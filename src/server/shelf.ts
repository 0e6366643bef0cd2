import type { Knex } from 'knex';
import { z } from 'zod';
import { FAMILIES, FAMILY_KINDS, type FamilyKind } from '@/core/families/registry';
import { instrumentSchema, type Instrument } from '@/core/metrology/instrument';
import { INITIAL_SETTINGS, settingsSchema, type Settings } from '@/core/records/settings';
import type { Stored, StoredInstrument, StoredProfile } from '@/core/records/views';
import { done, invalid, refused, type Outcome } from './outcome';
import { add, fromRow, replace, type Shelf } from './store';

type ProfileBody = StoredProfile['body'];

const instruments: Shelf<Instrument> = {
  table: 'instruments',
  what: 'instrument',
  schema: instrumentSchema,
  columns: ({ tag }) => ({ tag }),
};

const profiles = (kind: FamilyKind): Shelf<ProfileBody> => ({
  table: 'profiles',
  what: 'profile',
  schema: FAMILIES[kind].profile as z.ZodType<ProfileBody>,
  columns: ({ name }) => ({ kind, name }),
});

const kindOf = z.object({ kind: z.enum(FAMILY_KINDS, 'Kind of unit: choose one.') });

export async function listProfiles(db: Knex): Promise<StoredProfile[]> {
  const rows = await db('profiles').orderBy('name');
  return rows.map((row) => ({ ...fromRow<ProfileBody>(row), kind: row.kind }));
}

export async function addProfile(db: Knex, input: unknown): Promise<Outcome<Stored<ProfileBody>>> {
  const kind = kindOf.safeParse(input);
  return kind.success ? add(db, profiles(kind.data.kind), input) : invalid(kind.error.issues);
}

export async function replaceProfile(
  db: Knex,
  id: string,
  version: number,
  input: unknown,
): Promise<Outcome<Stored<ProfileBody>>> {
  const kind = kindOf.safeParse(input);
  return kind.success
    ? replace(db, profiles(kind.data.kind), id, version, input)
    : invalid(kind.error.issues);
}

export async function listInstruments(db: Knex): Promise<StoredInstrument[]> {
  return (await db('instruments').orderBy('tag')).map((row) => fromRow<Instrument>(row));
}

export const addInstrument = (db: Knex, input: unknown) => add(db, instruments, input);

export const replaceInstrument = (db: Knex, id: string, version: number, input: unknown) =>
  replace(db, instruments, id, version, input);

const SETTINGS_ROW = 1;

export async function readSettings(db: Knex): Promise<Stored<Settings>> {
  const row = await db('settings').where({ id: SETTINGS_ROW }).first();
  return row
    ? { ...fromRow<Settings>(row), id: 'settings' }
    : { id: 'settings', version: 0, body: INITIAL_SETTINGS };
}

export async function writeSettings(
  db: Knex,
  version: number,
  input: unknown,
): Promise<Outcome<Stored<Settings>>> {
  const parsed = settingsSchema.safeParse(input);
  if (!parsed.success) return invalid(parsed.error.issues);
  return db.transaction(async (trx) => {
    const now = await readSettings(trx);
    if (now.version !== version) {
      const message =
        'The settings were changed on another screen while you were editing. Compare, then save again.';
      return refused({ code: 'conflict', message, current: now });
    }
    const row = { id: SETTINGS_ROW, version: version + 1, body: JSON.stringify(parsed.data) };
    await trx('settings').insert(row).onConflict('id').merge();
    return done({ id: 'settings', version: version + 1, body: parsed.data });
  });
}
