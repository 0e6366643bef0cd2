import { mkdirSync } from 'node:fs';
import path from 'node:path';
import knex, { type Knex } from 'knex';
import { noticeLoss } from './head-file';
import { refreshIndex } from './job-index';
import { markRunning } from './running';
import { migrationSource } from './migrations';

/** Name of the database in the data folder. */
export const DATABASE_FILE = 'hard-pedal.sqlite';

/** A database that is on no disk. */
export const IN_MEMORY = ':memory:';

/** Folder that holds the database: HARD_PEDAL_DATA, else ./data. */
export const dataFolder = () => path.resolve(/*turbopackIgnore: true*/ process.env.HARD_PEDAL_DATA ?? 'data');

/**
 * Opens a database file and brings it up to date. WAL with synchronous=FULL: what is acknowledged is on disk even
 * if the power goes (the build's default under WAL is not durable there).
 */
export async function openDatabase(file: string): Promise<Knex> {
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

const held = globalThis as typeof globalThis & { hardPedalDatabase?: Promise<Knex> };

/** The application's one database, opened on first use and kept over hot reloads. */
export function database(): Promise<Knex> {
  held.hardPedalDatabase ??= open();
  return held.hardPedalDatabase;
}

async function open(): Promise<Knex> {
  try {
    const folder = dataFolder();
    mkdirSync(folder, { recursive: true });
    markRunning(folder);
    return await openDatabase(path.join(/*turbopackIgnore: true*/ folder, DATABASE_FILE));
  } catch (error) {
    held.hardPedalDatabase = undefined;
    throw error;
  }
}
