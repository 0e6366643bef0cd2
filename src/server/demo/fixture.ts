import { execFile } from 'node:child_process';
import { copyFileSync, existsSync, mkdirSync, mkdtempSync, renameSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { promisify } from 'node:util';
import type { Knex } from 'knex';
import { openDatabase } from '../database';

/** The moment at which the demo world of tests is made. */
export const FIXTURE_NOW = '2026-11-23T10:00:00.000Z';

/** How often, in ms, and how many times to look for what another suite is making. */
const LOOK = { every: 100, times: 600 };

/**
 * The demo world of tests in a file, made by a process of its own the first time that any suite of this run asks. A
 * test runner is four times as slow at making it, and every suite would make its own.
 */
async function template(): Promise<string> {
  const folder = process.env.HARD_PEDAL_FIXTURE ?? mkdtempSync(path.join(tmpdir(), 'hard-pedal-template-'));
  const file = path.join(folder, 'seeded.sqlite');
  if (existsSync(file)) return file;
  try {
    mkdirSync(path.join(folder, 'making'));
  } catch {
    for (let look = 0; look < LOOK.times && !existsSync(file); look += 1) await pause(LOOK.every);
    return file;
  }
  const unfinished = `${file}.part`;
  await promisify(execFile)(process.execPath, [
    '--import',
    'tsx',
    'src/server/demo/cli/fixture.ts',
    unfinished,
    FIXTURE_NOW,
  ]);
  renameSync(unfinished, file);
  return file;
}

/** A database with the demo world in a file of its own: made once, then copied. */
export async function seededDatabase(file: string): Promise<Knex> {
  copyFileSync(await template(), file);
  return openDatabase(file);
}
