import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import { append, lastLine, linksOf, writtenFrom } from './journal';

/**
 * How far the journal had come, in a small file beside the database: its number of lines and the seal of the last. It is written behind
 * every commit and before the commit is acknowledged, so that a database of which the end was lost (a write-ahead log that was deleted or
 * damaged, an older copy put in its place) is noticed at the next start.
 */
export interface Head {
  readonly seq: number;
  readonly hash: string;
}

/** Chain of the losses that were noticed. */
const LOSSES = 'losses';

/** A loss that was noticed: lines behind the last one that is left. */
export interface Loss {
  readonly type: 'lost';
  readonly had: Head;
  readonly left: number;
}

const headFile = (database: string) => `${database}.head`;

/** So long, whatever it says: it is written over in its place. */
const LENGTH = 120;

const fileOf = (db: Knex): string =>
  (db.client as { config: { connection: { filename: string } } }).config.connection.filename;

const NONE: Head = { seq: 0, hash: '' };

/** The line that was written down last, by the database. */
const kept = new WeakMap<Knex, number>();

/** Writes down how far the journal has come. */
export async function keepHead(db: Knex): Promise<void> {
  // Of an empty journal too: it says that there is one.
  const head = (await lastLine(db)) ?? NONE;
  if (kept.get(db) === head.seq) return;
  const file = headFile(fileOf(db));
  writeFileSync(file, JSON.stringify(head).padEnd(LENGTH), { flag: existsSync(file) ? 'r+' : 'w' });
  kept.set(db, head.seq);
}

function headIn(file: string): Head | null {
  try {
    return JSON.parse(readFileSync(file, 'utf8')) as Head;
  } catch {
    // Half of it, or none: it says nothing.
    return null;
  }
}

/** How far the journal had come where it is not so far any more, or ends otherwise; null where it is. */
export async function shortOfHead(db: Knex): Promise<Head | null> {
  const had = headIn(headFile(fileOf(db)));
  if (!had || had.seq === NONE.seq) return null;
  const there = await db('journal').where({ seq: had.seq }).first('hash');
  return there?.hash === had.hash ? null : had;
}

/** Looks whether the end of the journal was lost since it was last written to, and writes down that it was. */
export async function noticeLoss(db: Knex, at: string): Promise<void> {
  const had = await shortOfHead(db);
  if (had) {
    const left = (await lastLine(db))?.seq ?? 0;
    const entry: Loss = { type: 'lost', had, left: Math.min(left, had.seq - 1) };
    await append(db, LOSSES, { id: randomUUID(), at, entry });
  }
  await keepHead(db);
}

/** A loss, when it was noticed, and at which line that was written down. */
export interface NoticedLoss {
  readonly at: string;
  readonly seq: number;
  readonly loss: Loss;
}

/** Losses that were noticed, the last one last. */
export async function losses(db: Knex): Promise<NoticedLoss[]> {
  const links = await linksOf(db, LOSSES);
  return links.map((link) => ({ at: link.at, seq: link.seq, loss: writtenFrom<Loss>(link).entry }));
}

/** What was lost, in a sentence. */
export const lossWords = ({ had, left }: Loss): string =>
  had.seq - left === 1
    ? `The last entry that was written (line ${had.seq} of the journal) was gone when the application was started.`
    : `The last ${had.seq - left} entries that were written (to line ${had.seq} of the journal) were gone when the application was started.`;
