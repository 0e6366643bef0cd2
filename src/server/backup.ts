import { existsSync, mkdirSync, renameSync, rmSync } from 'node:fs';
import path from 'node:path';
import Sqlite from 'better-sqlite3';
import type { Verification } from '@/core/records/verification';
import { MIGRATION_NAMES } from './migrations';
import { openDatabase } from './database';
import { DATABASE_FILE, dataFolder, finishRestore, keepToOneself, restoreSteps, toDisk } from './folder';
import { verify } from './verify';

/** The file that the application works on. */
export const databaseFile = () => path.join(/*turbopackIgnore: true*/ dataFolder(), DATABASE_FILE);

/**
 * Writes a consistent copy of the database to a file while the application goes on: one moment of it, whole. The file
 * appears under its name only when it is complete.
 *
 * @param database the file that the application works on
 * @throws Error where the copy is there already
 */
export function backUp(database: string, file: string): void {
  if (existsSync(file)) throw new Error(`${file} is there already; nothing was written over it.`);
  const part = `${file}.part`;
  rmSync(part, { force: true });
  // A reader of its own, which writes nothing beside the application.
  const db = new Sqlite(database, { readonly: true, fileMustExist: true });
  try {
    db.prepare('VACUUM INTO ?').run(part);
  } finally {
    db.close();
  }
  keepToOneself(part);
  toDisk(part);
  renameSync(part, file);
  toDisk(path.dirname(file));
}

/** Takes out of a copy what PINs are checked against: it goes to wherever a browser saves it. */
export function withoutPins(copy: string): void {
  const db = new Sqlite(copy);
  try {
    db.exec('DELETE FROM pins; DELETE FROM pin_tries; VACUUM');
  } finally {
    db.close();
  }
}

/** Why a file cannot be restored, or null. */
export function backupProblem(file: string): string | null {
  if (!existsSync(file)) return `There is no file ${file}.`;
  let db: Sqlite.Database | null = null;
  try {
    db = new Sqlite(file, { readonly: true, fileMustExist: true });
    const names = db.prepare('SELECT name FROM knex_migrations').pluck().all() as string[];
    const newer = names.find((name) => !MIGRATION_NAMES.includes(name));
    if (newer) return 'This backup was written by a newer Hard Pedal. Update the application first.';
    if (db.pragma('integrity_check', { simple: true }) !== 'ok') return 'This backup is damaged.';
    return null;
  } catch {
    return 'This file is not a Hard Pedal backup.';
  } finally {
    db?.close();
  }
}

/**
 * Puts a backup in the place of the database, the application being stopped. What was there is kept beside it.
 *
 * @param stamp for the name under which the present database is kept
 * @returns where the database that was there is now, and what verifying the restored one found
 * @throws Error with a sentence where the backup cannot be restored
 */
export async function restore(
  folder: string,
  file: string,
  stamp: string,
): Promise<{ kept: string | null; verification: Verification }> {
  const problem = backupProblem(file);
  if (problem) throw new Error(problem);
  mkdirSync(folder, { recursive: true });
  finishRestore(folder);
  for (const step of restoreSteps(folder, file, stamp)) step();
  const target = path.join(folder, DATABASE_FILE);
  const db = await openDatabase(target);
  const verification = await verify(db);
  await db.destroy();
  const kept = `${target}.before-${stamp}`;
  return { kept: existsSync(kept) ? kept : null, verification };
}
