import { copyFileSync, mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Knex } from 'knex';
import { openDatabase } from '../database';
import { seedDemo } from './seed';

/** The moment at which the demo world of tests is made. */
export const FIXTURE_NOW = '2026-11-23T10:00:00.000Z';

let template: Promise<string> | null = null;

async function makeTemplate(): Promise<string> {
  const file = path.join(mkdtempSync(path.join(tmpdir(), 'hard-pedal-template-')), 'seeded.sqlite');
  const db = await openDatabase(file);
  await seedDemo(db, new Date(FIXTURE_NOW));
  await db.raw('PRAGMA wal_checkpoint(TRUNCATE)');
  await db.destroy();
  return file;
}

/** A database with the demo world in a file of its own: made once, then copied. */
export async function seededDatabase(file: string): Promise<Knex> {
  template ??= makeTemplate();
  copyFileSync(await template, file);
  return openDatabase(file);
}
