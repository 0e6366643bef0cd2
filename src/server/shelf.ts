import type { Knex } from 'knex';
import { z } from 'zod';
import { FAMILIES, FAMILY_KINDS, type FamilyKind } from '@/core/families/registry';
import { calibrationSchema, type Calibration } from '@/core/metrology/calibration';
import { instrumentSchema, type Instrument } from '@/core/metrology/instrument';
import { INITIAL_SETTINGS, settingsSchema, type Settings } from '@/core/shop/settings';
import type { Stored, StoredInstrument, StoredProfile, Version } from '@/core/records/views';
import { wrongDays } from '@/core/shop/plausible-day';
import { append, linksOf, writtenFrom } from './journal';
import { randomUUID } from 'node:crypto';
import { done, invalid, type Outcome } from './outcome';
import { readable } from './readable';
import {
  add,
  conflict,
  fromRow,
  list,
  missing,
  replace,
  setDeleted,
  shelfChain,
  type Shelf,
  type ShelfEntry,
} from './store';

type ProfileBody = StoredProfile['body'];

export const instruments: Shelf<Instrument> = {
  table: 'instruments',
  what: 'instrument',
  schema: instrumentSchema,
  columns: ({ tag }) => ({ tag }),
};

export const profiles = (kind: FamilyKind): Shelf<ProfileBody> => ({
  table: 'profiles',
  what: 'profile',
  schema: FAMILIES[kind].profile as z.ZodType<ProfileBody>,
  columns: ({ name }) => ({ kind, name, revision: FAMILIES[kind].revision }),
  revision: FAMILIES[kind].revision,
});
const anyProfile = profiles(FAMILY_KINDS[0]);

const kindOf = z.object({ kind: z.enum(FAMILY_KINDS, 'Kind of unit: choose one.') });

export async function listProfiles(db: Knex): Promise<StoredProfile[]> {
  const rows: ProfileRow[] = await db('profiles').where('deleted', false).orderBy('name');
  return readable('profile', rows, profileFrom);
}

export async function findProfile(db: Knex, id: string): Promise<StoredProfile | null> {
  const row = await db('profiles').where({ id, deleted: false }).first();
  return row ? profileFrom(row) : null;
}

interface ProfileRow {
  id: string;
  version: number;
  kind: FamilyKind;
  revision: number;
  body: string;
}

/** A profile in the present form of its family, whatever revision it was stored in. */
const profileFrom = ({ kind, revision, ...row }: ProfileRow): StoredProfile => ({
  id: row.id,
  version: row.version,
  kind,
  body: FAMILIES[kind].upcast(JSON.parse(row.body), revision) as ProfileBody,
});

/** Adds a profile; under a given id where it comes with a job from another shop. */
export async function addProfile(
  db: Knex,
  input: unknown,
  now: string,
  id?: string,
): Promise<Outcome<Stored<ProfileBody>>> {
  const kind = kindOf.safeParse(input);
  return kind.success ? add(db, profiles(kind.data.kind), input, now, id) : invalid(kind.error.issues);
}

export async function replaceProfile(
  db: Knex,
  id: string,
  version: number,
  input: unknown,
  now: string,
): Promise<Outcome<Stored<ProfileBody>>> {
  const kind = kindOf.safeParse(input);
  return kind.success
    ? replace(db, profiles(kind.data.kind), id, version, input, now)
    : invalid(kind.error.issues);
}

export const deleteProfile = (db: Knex, id: string, deleted: boolean, now: string) =>
  setDeleted(db, anyProfile, id, deleted, now);

/** Every version that a profile or instrument has had, newest first, with the calibrations among them. */
export async function versionsOf(db: Knex, what: 'profile' | 'instrument', id: string): Promise<Version[]> {
  const links = await linksOf(db, shelfChain({ what }, id));
  let version = 0;
  const versions = links.map((link): Version => {
    const { at, entry } = writtenFrom<ShelfEntry>(link);
    if (entry.type === 'deleted')
      return { at, version, what: entry.deleted ? 'taken off' : 'put back', body: null, calibration: null };
    version += 1;
    const kind = what === 'profile' ? (entry.body as ProfileBody).kind : null;
    const revision = entry.type === 'stored' ? (entry.revision ?? 1) : 1;
    const calibration = entry.type === 'calibrated' ? (entry.calibration as Calibration) : null;
    return {
      at,
      version,
      what: calibration ? 'calibrated' : version === 1 ? 'added' : 'changed',
      body: kind ? FAMILIES[kind].upcast(entry.body, revision) : entry.body,
      calibration,
    };
  });
  return versions.reverse();
}

export const listInstruments = (db: Knex): Promise<StoredInstrument[]> => list(db, instruments, 'tag');

export async function findInstrument(db: Knex, id: string): Promise<StoredInstrument | null> {
  const row = await db('instruments').where({ id, deleted: false }).first();
  return row ? fromRow<Instrument>(row) : null;
}

export async function instrumentByTag(db: Knex, tag: string): Promise<StoredInstrument | null> {
  const row = await db('instruments').where({ tag, deleted: false }).first();
  return row ? fromRow<Instrument>(row) : null;
}

const GAUGE_DAYS = { calibratedOn: 'Calibrated on', calibrationDue: 'Next calibration' };
/** Days of a gauge that cannot be meant; what is no gauge at all its schema says. */
const wrongGaugeDays = (input: unknown) =>
  wrongDays(instrumentSchema.safeParse(input).data ?? {}, GAUGE_DAYS);

export async function addInstrument(
  db: Knex,
  input: unknown,
  now: string,
): Promise<Outcome<StoredInstrument>> {
  const wrong = wrongGaugeDays(input);
  return wrong.length > 0 ? invalid(wrong) : add(db, instruments, input, now);
}

export async function replaceInstrument(
  db: Knex,
  id: string,
  version: number,
  input: unknown,
  now: string,
): Promise<Outcome<StoredInstrument>> {
  const wrong = wrongGaugeDays(input);
  return wrong.length > 0 ? invalid(wrong) : replace(db, instruments, id, version, input, now);
}

export const deleteInstrument = (db: Knex, id: string, deleted: boolean, now: string) =>
  setDeleted(db, instruments, id, deleted, now);

/** Records a calibration: the instrument's dates and correction table become those of its certificate. */
export async function calibrate(
  db: Knex,
  id: string,
  version: number,
  input: unknown,
  now: string,
): Promise<Outcome<StoredInstrument>> {
  const parsed = calibrationSchema.safeParse(input);
  if (!parsed.success) return invalid(parsed.error.issues);
  const wrong = wrongDays(parsed.data, { on: 'Calibrated on', due: 'Next calibration' });
  if (wrong.length > 0) return invalid(wrong);
  const found = await findInstrument(db, id);
  if (!found) return missing('instrument');
  const { on, due, correction } = parsed.data;
  const body = { ...found.body, calibratedOn: on, calibrationDue: due, correction };
  return replace(db, instruments, id, version, body, now, (stored) => ({
    type: 'calibrated',
    calibration: parsed.data,
    body: stored,
  }));
}

const SETTINGS_ROW = 1;
export const SETTINGS_CHAIN = 'settings';

export async function readSettings(db: Knex): Promise<Stored<Settings>> {
  const row = await db('settings').where({ id: SETTINGS_ROW }).first();
  const [stored] = readable('settings', row ? [row as Parameters<typeof fromRow>[0]] : [], (one) =>
    fromRow<Settings>(one),
  );
  // What was not yet a setting when these were saved stands as it does at first.
  return { id: 'settings', version: row?.version ?? 0, body: { ...INITIAL_SETTINGS, ...stored?.body } };
}

export async function writeSettings(
  db: Knex,
  version: number,
  input: unknown,
  at: string,
): Promise<Outcome<Stored<Settings>>> {
  const parsed = settingsSchema.safeParse(input);
  if (!parsed.success) return invalid(parsed.error.issues);
  return db.transaction(async (trx) => {
    const current = await readSettings(trx);
    if (current.version !== version) return conflict('set of settings', current);
    const row = { id: SETTINGS_ROW, version: version + 1, body: JSON.stringify(parsed.data) };
    await trx('settings').insert(row).onConflict('id').merge();
    await append(trx, SETTINGS_CHAIN, { id: randomUUID(), at, entry: { type: 'stored', body: parsed.data } });
    return done({ id: 'settings', version: version + 1, body: parsed.data });
  });
}
