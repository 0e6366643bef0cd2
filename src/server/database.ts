import { closeSync, openSync, statSync } from 'node:fs';
import path from 'node:path';
import knex, { type Knex } from 'knex';
import { noticeLoss } from './head-file';
import { refreshIndex } from './job-index';
import { DATABASE_FILE, dataFolder, keepToOneself, lastBackupWords, readyFolder } from './folder';
import { migrationSource } from './migrations';
import { DAMAGED, StoreTrouble, troubleWords } from './trouble';

/** A database that is on no disk. */
export const IN_MEMORY = ':memory:';

/**
 * Opens a database file and brings it up to date. WAL with synchronous=FULL: what is acknowledged is on disk even
 * if the power goes (the build's default under WAL is not durable there).
 */
export async function openDatabase(file: string): Promise<Knex> {
  if (file !== IN_MEMORY) {
    // There before SQLite makes it, which would let others read it.
    closeSync(openSync(file, 'a', 0o600));
    keepToOneself(file);
  }
  const db = knex({
    client: 'better-sqlite3',
    connection: { filename: file },
    useNullAsDefault: true,
    pool: {
      min: 1,
      max: 1,
      afterCreate: (raw: { pragma: (text: string) => unknown }, done: (error: Error | null) => void) => {
        raw.pragma('journal_mode = WAL');
        raw.pragma('synchronous = FULL');
        raw.pragma('foreign_keys = ON');
        raw.pragma('busy_timeout = 5000');
        done(null);
      },
    },
    migrations: { migrationSource },
  });
  await db.migrate.latest();
  await refreshIndex(db);
  if (file !== IN_MEMORY) await noticeLoss(db, new Date().toISOString());
  return db;
}

/** What pages and routes share, each of which has modules of its own. */
const held = globalThis as typeof globalThis & {
  hardPedalDatabase?: Promise<Knex>;
  hardPedalPlaces?: WeakMap<Knex, Place & { readonly file: string }>;
};

/** The application's one database, opened on first use and kept over hot reloads. */
export function database(): Promise<Knex> {
  held.hardPedalDatabase ??= open();
  return held.hardPedalDatabase;
}

async function open(): Promise<Knex> {
  try {
    const folder = dataFolder();
    readyFolder(folder);
    const file = path.join(/*turbopackIgnore: true*/ folder, DATABASE_FILE);
    const db = await openDatabase(file);
    opened().set(db, { file, ...placeOf(file) });
    return db;
  } catch (error) {
    held.hardPedalDatabase = undefined;
    throw error;
  }
}

interface Place {
  readonly dev: number;
  readonly ino: number;
}

/** Where the application's database stood as it was opened. */
const opened = () => (held.hardPedalPlaces ??= new WeakMap());

function placeOf(file: string): Place {
  const { dev, ino } = statSync(file);
  return { dev, ino };
}

/**
 * Makes sure that the database that is written to is the one in the data folder: a folder that was removed or replaced takes what is
 * written with it.
 *
 * @throws StoreTrouble where it is not
 */
export function assertInPlace(db: Knex): void {
  const was = opened().get(db);
  if (!was) return;
  let now: Place | null = null;
  try {
    now = placeOf(was.file);
  } catch {
    // It is not there at all.
  }
  if (now?.dev !== was.dev || now.ino !== was.ino)
    throw new StoreTrouble(
      `The data folder was removed or replaced while the application runs (${was.file}). What was entered since is not kept. Put the folder back, then start the application anew.`,
    );
}

/** That the database cannot be read through, in a sentence with the way to the last backup; null where it can. */
export async function damage(db: Knex): Promise<string | null> {
  try {
    const [{ quick_check: found } = { quick_check: '' }] = (await db.raw('PRAGMA quick_check(1)')) as {
      quick_check: string;
    }[];
    return found === 'ok' ? null : `${DAMAGED}${lastBackupWords(dataFolder())}`;
  } catch (error) {
    return troubleWords(error);
  }
}
