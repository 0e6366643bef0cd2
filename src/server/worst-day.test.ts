/** @jest-environment node */
import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  truncateSync,
  writeFileSync,
} from 'node:fs';
import { spawnSync } from 'node:child_process';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { jobQuerySchema } from '@/core/records/job-query';
import { INITIAL_SETTINGS } from '@/core/shop/settings';
import { backUp, restore } from './backup';
import { benchNow } from './bench';
import { assertInPlace, damage, database, openDatabase } from './database';
import { Desk, taken, whyNot } from './demo/desk';
import { FIXTURE_NOW as NOW } from './demo/fixture';
import { seedDemo } from './demo/seed';
import { finishRestore, noteBackup, readyFolder, restoreSteps } from './folder';
import { answer } from './http';
import { searchJobs } from './job-list';
import { MIGRATION_NAMES } from './migrations';
import { done } from './outcome';
import { leftOutWords } from './readable';
import { openRuns } from './runs';
import { listInstruments, listProfiles, readSettings } from './shelf';
import { traceQuerySchema } from '@/core/records/trace-query';
import { searchTraces } from './trace-list';
import { listTraces } from './traces';
import { markRunning, runningServer } from './running';
import { addTechnician } from './technicians';
import { troubleWords } from './trouble';
import { verify } from './verify';

let desk: Desk;
let backup: string;
let folder: string;
beforeAll(async () => {
  desk = await Desk.open();
  backup = desk.file('night.backup');
  backUp(desk.file('hard-pedal.sqlite'), backup);
});
afterAll(() => desk.close());
beforeEach(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'hard-pedal-worst-'));
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

const file = (name = '') => path.join(folder, `hard-pedal.sqlite${name}`);
const jobsIn = async (name: string) => {
  const db = await openDatabase(name);
  const { n } = (await db('jobs').count({ n: '*' }).first()) as { n: number };
  const { alterations } = await verify(db);
  await db.destroy();
  return { jobs: n, alterations };
};
const whole = async () => ({ jobs: (await desk.db('jobs')).length, alterations: [] });

describe('restoring', () => {
  test.each([
    ['is damaged', () => writeFileSync(file(), Buffer.alloc(20_000, 7))],
    ['was cut', () => (writeFileSync(file(), readFileSync(backup)), truncateSync(file(), 10_000))],
    ['has no header', () => writeFileSync(file(), readFileSync(backup).fill(0, 0, 100))],
    ['is empty', () => writeFileSync(file(), '')],
  ])('works over a database that %s, and keeps it with all that goes with it', async (_what, spoil) => {
    spoil();
    const before = readFileSync(file());
    writeFileSync(file('-wal'), 'what was not in it yet');
    writeFileSync(file('.head'), 'how far it had come');
    const { kept, verification } = await restore(folder, backup, 'stamp');
    expect(verification.alterations).toEqual([]);
    expect(kept).toBe(file('.before-stamp'));
    expect(readFileSync(kept!).equals(before)).toBe(true);
    expect(readFileSync(file('.before-stamp-wal'), 'utf8')).toBe('what was not in it yet');
    expect(readFileSync(file('.before-stamp.head'), 'utf8')).toBe('how far it had come');
    expect(await jobsIn(file())).toEqual(await whole());
  });

  test('works where there is no database at all', async () => {
    const { kept } = await restore(path.join(folder, 'new'), backup, 'stamp');
    expect(kept).toBeNull();
    expect(await jobsIn(path.join(folder, 'new', 'hard-pedal.sqlite'))).toEqual(await whole());
  });

  test('that is ended at any step is finished or undone at the next start: never is there half of one', async () => {
    const small = desk.file('small.sqlite');
    const other = await openDatabase(small);
    taken(await addTechnician(other, { name: 'New Hand', pin: '471100' }, NOW));
    await other.destroy();
    const smallBackup = desk.file('small.backup');
    backUp(small, smallBackup);
    const count = restoreSteps(folder, smallBackup, 'stamp').length;
    const ends: string[] = [];
    for (let ended = 0; ended <= count; ended += 1) {
      folder = mkdtempSync(path.join(tmpdir(), 'hard-pedal-worst-'));
      const old = await openDatabase(file());
      taken(await addTechnician(old, { name: 'Old Hand', pin: '471100' }, NOW));
      await old.destroy();
      for (const step of restoreSteps(folder, smallBackup, 'stamp').slice(0, ended)) step();
      finishRestore(folder);
      const now = await openDatabase(file());
      const [only, ...others] = (await now('technicians').select('name')) as { name: string }[];
      expect(others).toEqual([]);
      const isOld = only!.name === 'Old Hand';
      expect(only!.name).toBe(isOld ? 'Old Hand' : 'New Hand');
      expect((await verify(now)).alterations).toEqual([]);
      await now.destroy();
      for (const left of ['.restoring', '.restoring.part']) expect(existsSync(file(left))).toBe(false);
      expect(existsSync(path.join(folder, 'restore.json'))).toBe(false);
      expect(existsSync(file('.before-stamp'))).toBe(!isOld);
      ends.push(isOld ? 'old' : 'new');
      rmSync(folder, { recursive: true });
    }
    // As planned it is undone, from the plan on it is finished.
    const planned = ends.indexOf('new');
    expect(planned).toBeGreaterThan(0);
    expect(ends.slice(planned)).not.toContain('old');
  });
});

describe('a data folder', () => {
  const why = () => {
    try {
      readyFolder(folder);
      return '';
    } catch (error) {
      return troubleWords(error) ?? String(error);
    }
  };

  test('whose database is gone, or empty, is no new shop: it says so, with the last backup', async () => {
    await (await openDatabase(file())).destroy();
    expect(why()).toBe('');
    noteBackup(folder, '/media/stick/night.backup', '2026-11-25T20:00:00.000Z');
    rmSync(file());
    expect(why()).toMatch(
      /is not there .*there has been one.*last backup is of 2026-11-25: \/media\/stick\/night/,
    );
    writeFileSync(file(), '');
    expect(why()).toMatch(/is empty .*there has been one/);
    expect(readFileSync(file()).length).toBe(0);
    rmSync(file('.head'));
    writeFileSync(file('.before-2026'), 'an older one');
    expect(why()).toMatch(/there has been one/);
  });

  test('that another process works on is refused; one whose number was given to another is not taken for it', () => {
    const other = process.ppid;
    const began = readFileSync(`/proc/${other}/stat`, 'utf8').split(') ')[1]!.split(' ')[19]!;
    writeFileSync(path.join(folder, 'running.pid'), `${other} ${began}`);
    expect(runningServer(folder)).toBe(other);
    expect(why()).toMatch(
      new RegExp(`Another Hard Pedal works on this data folder already \\(process ${other}\\)`),
    );
    writeFileSync(path.join(folder, 'running.pid'), `${other} ${Number(began) + 1}`);
    expect(runningServer(folder)).toBeNull();
    expect(why()).toBe('');
    markRunning(folder);
    expect(runningServer(folder)).toBe(process.pid);
  });

  test('is cleared of copies that nobody sent', () => {
    mkdirSync(path.join(folder, 'tmp'));
    writeFileSync(path.join(folder, 'tmp', 'x.sqlite'), 'half');
    expect(why()).toBe('');
    expect(existsSync(path.join(folder, 'tmp'))).toBe(false);
  });

  test('of a shop is never filled with the demo world', async () => {
    const db = await openDatabase(file());
    taken(await addTechnician(db, { name: 'Pell Tarn', pin: '471100' }, NOW));
    expect(await seedDemo(db, new Date(NOW))).toBe(false);
    expect(await db('instruments')).toEqual([]);
    await db.destroy();
  });
});

describe('while it runs', () => {
  const held = globalThis as typeof globalThis & { hardPedalDatabase?: unknown };
  const { HARD_PEDAL_DATA: usual } = process.env;
  beforeEach(() => {
    held.hardPedalDatabase = undefined;
    process.env.HARD_PEDAL_DATA = folder;
    // What went wrong is written there, for whoever keeps the machine.
    jest.spyOn(process.stderr, 'write').mockReturnValue(true);
  });
  afterEach(async () => {
    await (await database().catch(() => null))?.destroy();
    held.hardPedalDatabase = undefined;
    if (usual === undefined) delete process.env.HARD_PEDAL_DATA;
    else process.env.HARD_PEDAL_DATA = usual;
    jest.restoreAllMocks();
  });
  const write = () =>
    answer(async (db) => {
      await db('derived').where({ id: 1 }).update({ version: 4 });
      return done({});
    });
  const said = async (response: Response) => ((await response.json()) as { title: string }).title;

  test.each([
    ['removed', () => rmSync(folder, { recursive: true })],
    [
      'replaced',
      () => {
        renameSync(folder, `${folder}-old`);
        mkdirSync(folder);
        writeFileSync(file(), readFileSync(backup));
      },
    ],
  ])('a folder that is %s takes nothing more that is acknowledged', async (_what, spoil) => {
    expect((await write()).status).toBe(200);
    spoil();
    for (let i = 0; i < 3; i += 1) {
      const response = await write();
      expect(response.status).toBe(500);
      expect(await said(response)).toMatch(/removed or replaced while the application runs/);
    }
    const db = await database();
    expect(() => assertInPlace(db)).toThrow(/removed or replaced/);
    rmSync(`${folder}-old`, { recursive: true, force: true });
  });

  test('an opening that failed is tried again', async () => {
    writeFileSync(file(), Buffer.alloc(20_000, 7));
    const first = await write();
    expect(first.status).toBe(500);
    expect(await said(first)).toMatch(/database is damaged.*npm run restore/);
    rmSync(file());
    rmSync(file('-wal'), { force: true });
    expect((await write()).status).toBe(200);
  });

  test('damage is found and said', async () => {
    writeFileSync(file(), readFileSync(backup));
    const db = await database();
    expect(await damage(db)).toBeNull();
    await db.destroy();
    held.hardPedalDatabase = undefined;
    const bytes = readFileSync(file());
    writeFileSync(file(), bytes.fill(0xab, 40 * 4096, 60 * 4096));
    expect(await damage(await database())).toMatch(/database is damaged/);
  });
});

describe('one damaged row', () => {
  test('takes down neither Bench, nor Jobs, nor Shelf, and is said to be left out', async () => {
    const db = await openDatabase(file());
    await db.destroy();
    writeFileSync(file(), readFileSync(backup));
    const here = await openDatabase(file());
    const counts = async () => {
      const { jobs } = await searchJobs(here, jobQuerySchema.parse({}));
      const { traces: listedTraces } = await searchTraces(here, traceQuerySchema.parse({}));
      const [onBench, profiles, gauges, traces] = await Promise.all([
        benchNow(here),
        listProfiles(here),
        listInstruments(here),
        listTraces(here),
      ]);
      return [jobs, listedTraces, onBench, profiles, gauges, traces].map(({ length }) => length);
    };
    const before = await counts();
    expect(leftOutWords()).toBeNull();
    // What a failing disk turns over is in no index.
    await here.raw('drop index traces_job');
    const cut = (table: string, where: object) => here(table).where(where).update({ body: '{"na' });
    for (const table of ['profiles', 'instruments', 'traces'])
      await cut(table, { id: (await here(table).first('id')).id });
    const { jobs } = await searchJobs(here, jobQuerySchema.parse({}));
    const listed = jobs.find(({ runs }) => runs.every(({ finishedAt }) => finishedAt));
    await cut('jobs', { id: listed!.id });
    const [open] = await openRuns(here);
    const { seq } = await here('journal').where({ run_id: open!.id }).orderBy('place').first('seq');
    await here('journal').where({ seq }).update({ body: '{"na' });
    expect(await counts()).toEqual(before.map((count) => count - 1));
    expect(leftOutWords()).toMatch(/^5 things cannot be read and are left out of the lists/);
    await here('settings').update({ body: '{"na' });
    expect((await readSettings(here)).body).toEqual(INITIAL_SETTINGS);
    await here.destroy();
  });
});

test.each([
  ['ENOSPC', /disk is full/],
  ['EROFS', /can only be read/],
  ['EACCES', /cannot be opened.*no right/],
  ['SQLITE_IOERR_WRITE', /did not take/],
  ['SQLITE_CORRUPT', /damaged/],
])('%s has a sentence of its own', (code, sentence) => {
  expect(troubleWords(Object.assign(new Error('x'), { code }))).toMatch(sentence);
});

test('what is no trouble of the disk has none', () => {
  expect(troubleWords(new TypeError('x is not a function'))).toBeNull();
  expect(whyNot(done(1))).toBe('');
});

describe('the command line', () => {
  const say = (command: string, ...words: string[]) => {
    const { status, stdout, stderr } = spawnSync(
      process.execPath,
      ['--import', 'tsx', `src/server/cli/${command}.ts`, ...words],
      {
        env: { ...process.env, HARD_PEDAL_DATA: folder },
        encoding: 'utf8',
      },
    );
    return { status, said: stdout + stderr };
  };
  test.each([
    ['verify', []],
    ['pin', ['P.', 'Tarn']],
    ['backup', ['/tmp/hard-pedal-not-made.sqlite']],
  ])('%s in a folder without a shop says so, and makes nothing', (command, words) => {
    expect(say(command, ...words)).toMatchObject({
      status: 1,
      said: expect.stringContaining(`There is no shop in ${folder}`) as string,
    });
    expect(readdirSync(folder)).toEqual([]);
    expect(existsSync('/tmp/hard-pedal-not-made.sqlite')).toBe(false);
  });
  test('verify looks and touches nothing: a sound shop, one of an older program, and no database at all', async () => {
    backUp(desk.file('hard-pedal.sqlite'), file());
    const before = readFileSync(file());
    expect(say('verify')).toMatchObject({
      status: 0,
      said: expect.stringMatching(/are as they were written/) as string,
    });
    expect(readFileSync(file()).equals(before)).toBe(true);
    const older = await openDatabase(file());
    await older('knex_migrations')
      .where({ name: MIGRATION_NAMES.at(-1) })
      .delete();
    await older.destroy();
    expect(say('verify')).toMatchObject({
      status: 1,
      said: expect.stringMatching(/An older Hard Pedal wrote this/) as string,
    });
    writeFileSync(file(), 'none'.repeat(2000));
    expect(say('verify')).toMatchObject({
      status: 1,
      said: expect.stringMatching(/^The database is damaged\./m) as string,
    });
  });
});
