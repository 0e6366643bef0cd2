import {
  chmodSync,
  closeSync,
  copyFileSync,
  existsSync,
  fsyncSync,
  mkdirSync,
  openSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import path from 'node:path';
import { markRunning } from './running';
import { StoreTrouble } from './trouble';

/** Name of the database in the data folder. */
export const DATABASE_FILE = 'hard-pedal.sqlite';

/** Folder that holds the database: HARD_PEDAL_DATA, else ./data. */
export const dataFolder = () => path.resolve(/*turbopackIgnore: true*/ process.env.HARD_PEDAL_DATA ?? 'data');

/** Where copies are made that nobody keeps: what is left there belongs to an application that was ended. */
const scratch = (folder: string) => path.join(/*turbopackIgnore: true*/ folder, 'tmp');

/** A file for a copy that is thrown away once it was sent. */
export function scratchFile(name: string): string {
  mkdirSync(scratch(dataFolder()), { recursive: true });
  return path.join(scratch(dataFolder()), name);
}

/** What a customer said, and what PINs are checked against, is nobody else's on this machine: the file is its owner's alone. */
export function keepToOneself(file: string): void {
  try {
    chmodSync(file, 0o600);
  } catch {
    // A disk that knows no owners, as a stick is: whoever holds it reads it.
  }
}

/** Waits until a file or folder is on disk, not only in memory. */
export function toDisk(name: string): void {
  const handle = openSync(name, 'r');
  fsyncSync(handle);
  closeSync(handle);
}

/** The files of a database: itself, what is not yet in it, and how far it had come. */
const TAILS = ['', '-wal', '-shm', '.head'] as const;
/** Written once the copy is whole on the disk: from then on a restore is finished, whatever comes between. */
const PLAN = 'restore.json';

/**
 * What putting a backup in the place of the database takes, one after the other. The old one is not opened: it may be damaged. It is
 * moved aside with everything that belongs to it.
 *
 * @param stamp for the name under which the old one is kept
 */
export function restoreSteps(folder: string, file: string, stamp: string): readonly (() => void)[] {
  const fresh = path.join(folder, `${DATABASE_FILE}.restoring`);
  const part = `${fresh}.part`;
  return [
    () => copyFileSync(file, part),
    () => toDisk(part),
    () => renameSync(part, fresh),
    () => toDisk(folder),
    () => writeFileSync(path.join(folder, PLAN), JSON.stringify({ stamp })),
    () => toDisk(path.join(folder, PLAN)),
    ...movingSteps(folder, stamp),
  ];
}

function movingSteps(folder: string, stamp: string): (() => void)[] {
  const target = path.join(folder, DATABASE_FILE);
  const fresh = `${target}.restoring`;
  return [
    ...TAILS.map((tail) => () => {
      if (existsSync(`${target}${tail}`)) renameSync(`${target}${tail}`, `${target}.before-${stamp}${tail}`);
    }),
    () => renameSync(fresh, target),
    () => toDisk(folder),
    () => rmSync(path.join(folder, PLAN)),
  ];
}

/** Finishes a restore that was ended half way, or takes away what it had copied so far. For the next start. */
export function finishRestore(folder: string): void {
  const target = path.join(folder, DATABASE_FILE);
  const plan = path.join(folder, PLAN);
  rmSync(`${target}.restoring.part`, { force: true });
  if (!existsSync(plan) || !existsSync(`${target}.restoring`)) {
    rmSync(plan, { force: true });
    // Copied, and not yet planned: it is as if nobody had begun.
    rmSync(`${target}.restoring`, { force: true });
    return;
  }
  for (const step of movingSteps(folder, stampIn(plan))) step();
}

/** The name under which the old one was to be kept. Half of a plan is none: the copy is whole all the same. */
function stampIn(plan: string): string {
  try {
    return (JSON.parse(readFileSync(plan, 'utf8')) as { stamp: string }).stamp;
  } catch {
    return 'restore';
  }
}

/**
 * Makes a data folder ready to be worked on: nobody else works on it, a restore that was ended half way is finished, and the shop that it
 * belongs to has its database.
 *
 * @throws StoreTrouble where another process works on it, or the database of a shop is not there
 */
export function readyFolder(folder: string): void {
  mkdirSync(folder, { recursive: true });
  markRunning(folder);
  rmSync(scratch(folder), { recursive: true, force: true });
  finishRestore(folder);
  const database = path.join(/*turbopackIgnore: true*/ folder, DATABASE_FILE);
  const size = existsSync(database) ? statSync(database).size : 0;
  if (size === 0 && hadOne(folder))
    throw new StoreTrouble(
      `The database of this shop is ${existsSync(database) ? 'empty' : 'not there'} (${database}), and there has been one. Nothing is made anew in its place. Stop the application, then put the last good backup there: npm run restore -- FILE.${lastBackupWords(folder)}`,
    );
}

/** Whether a folder has held the database of a shop: what goes with one is still there. */
const hadOne = (folder: string): boolean =>
  readdirSync(folder).some(
    (name) => name === `${DATABASE_FILE}.head` || name.startsWith(`${DATABASE_FILE}.before-`),
  );

/** Where it is written down which backup was made last. */
const LAST = 'last-backup.json';

/** Writes down that a backup was made. */
export const noteBackup = (folder: string, file: string, at: string): void =>
  writeFileSync(path.join(/*turbopackIgnore: true*/ folder, LAST), JSON.stringify({ file, at }));

/** Which backup was made last, in a sentence; empty where none is known. */
export function lastBackupWords(folder: string): string {
  try {
    const { file, at } = JSON.parse(
      readFileSync(path.join(/*turbopackIgnore: true*/ folder, LAST), 'utf8'),
    ) as Record<'file' | 'at', string>;
    return ` The last backup is of ${at.slice(0, 10)}: ${file}.`;
  } catch {
    return '';
  }
}
