/** @jest-environment node */
import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { gunzipSync } from 'node:zlib';
import knex, { type Knex } from 'knex';
import { FAMILIES, type FamilyKind } from '@/core/families/registry';
import { ENTRY_REVISION, ENTRY_UPCASTS, presentEntry } from '@/core/records/stored-entry';
import { JOB_FILE_UPCASTS, JOB_FILE_VERSION } from '@/core/records/job-file';
import { nextAction } from '@/core/procedure/next-action';
import { judgedRun, saidOtherwise, stateOf } from '@/core/records/judged-run';
import type { JobRecord } from '@/core/records/job-record';
import type { Assessment, Result } from '@/core/contract/result';
import { openDatabase } from '../database';
import { exportJob, importJob } from '../job-files';
import { findJob } from '../jobs';
import { MIGRATION_NAMES } from '../migrations';
import { readRecord } from '../record';
import { findRun } from '../runs';
import { reportPdf } from '../reports';
import { verify } from '../verify';

/**
 * What version 0.1.0 wrote, kept as it wrote it: job files of every call, a re-test, signatures, both families; its
 * database; and in judged.json what its own rules made of every finished run.
 */
const KEPT = path.join(__dirname, '0.1.0');
const judged = JSON.parse(readFileSync(path.join(KEPT, 'judged.json'), 'utf8')) as Record<
  string,
  { tag: string; results: Result[]; assessment: Assessment }
>;
const filesIn = (kept: string) => readdirSync(kept).filter((name) => name.endsWith('.job.json'));
const FILES = filesIn(KEPT);
const textOf = (name: string, kept = KEPT) => readFileSync(path.join(kept, name), 'utf8');
/**
 * Job files with entries of the second revision, in which the vacuum was the one source: both families, a test half done,
 * a re-test of what was opened and closed, a third gauge put in another's place. Their verdicts stand in their own record.
 */
const SECOND = path.join(__dirname, 'revision-2');
const SECOND_FILES = filesIn(SECOND);
/** Job files of vehicles whose profiles knew nothing of what a stop follows from: the first revision of each such family. */
const VEHICLES = path.join(__dirname, 'vehicles-1');
/** A job file with entries of the fourth revision, in which nothing could be said to be other than it was. */
const FOURTH = path.join(__dirname, 'revision-4');
/** One whose entries are of the fifth revision. */
const FIFTH = path.join(__dirname, 'revision-5');
/** One whose entries are of the sixth revision: nobody had tried anything at home. */
const SIXTH = path.join(__dirname, 'revision-6');
const AT = '2026-12-01T08:00:00.000Z';

/** Families that 0.1.0 had. */
const FIRST_FAMILIES: readonly FamilyKind[] = ['remote-vacuum', 'rod-servo'];

const folder = mkdtempSync(path.join(tmpdir(), 'hard-pedal-kept-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const finished = (record: JobRecord) => record.runs.filter(({ finishedAt }) => finishedAt);

async function importInto(db: Knex, text: string): Promise<JobRecord> {
  const outcome = await importJob(db, text, AT);
  if (!outcome.ok) throw new Error(outcome.why.message);
  return (await readRecord(db, outcome.value.id))!;
}

/** Its verdicts are said as they were, nothing is found altered, and sent on it is what came in. */
async function opensTheSame(db: Knex, record: JobRecord, text: string): Promise<void> {
  for (const run of finished(record)) {
    expect(run.judged).toMatchObject({ how: 'finished' });
    expect(saidOtherwise(run)).toBeNull();
  }
  expect((await verify(db)).alterations).toEqual([]);
  const again = await exportJob(db, record.id);
  expect(JSON.parse(again.ok ? again.value : '').entries).toEqual(
    (JSON.parse(text) as { entries: unknown }).entries,
  );
  await db.destroy();
}

describe('a database of version 0.1.0', () => {
  let db: Knex;
  beforeAll(async () => {
    const file = path.join(folder, 'old.sqlite');
    writeFileSync(file, gunzipSync(readFileSync(path.join(KEPT, 'database.sqlite.gz'))));
    db = await openDatabase(file);
  });
  afterAll(() => db.destroy());

  test('can be narrowed by who tested, which 0.1.0 kept no column for', async () => {
    const runs = (await db('runs')) as { id: string; technician: string }[];
    expect(runs.length).toBeGreaterThan(0);
    for (const { id, technician } of runs)
      expect(technician).toBe((await findRun(db, id))!.context.conditions.technician);
  });

  test('its traces are found by the unit that they are of', async () => {
    const file = path.join(folder, 'with-trace.sqlite');
    writeFileSync(file, gunzipSync(readFileSync(path.join(KEPT, 'database.sqlite.gz'))));
    const old = knex({ client: 'better-sqlite3', connection: { filename: file }, useNullAsDefault: true });
    const row = { version: 1, name: 'A', made_at: AT };
    await old('traces').insert([
      { ...row, id: 'one', body: JSON.stringify({ profileId: 'unit' }) },
      { ...row, id: 'other', body: JSON.stringify({ profileId: null }) },
    ]);
    await old.destroy();
    const now = await openDatabase(file);
    expect(await now('traces').orderBy('id').select('id', 'profile_id')).toEqual([
      { id: 'one', profile_id: 'unit' },
      { id: 'other', profile_id: null },
    ]);
    await now.destroy();
  });

  test('says of every finished run what 0.1.0 said, to the last digit', async () => {
    expect(Object.keys(judged)).toHaveLength(9);
    for (const [id, then] of Object.entries(judged)) {
      const run = (await findRun(db, id))!;
      const { results, assessment } = judgedRun(run);
      expect({ results, assessment }).toEqual({ results: then.results, assessment: then.assessment });
      expect(run.judged).toMatchObject({ program: '0.1.0', how: 'moved' });
      const job = (await findJob(db, run.jobId))!;
      if (job.runs.at(-1)!.id === id) expect(job.call).toBe(then.assessment.call);
    }
  });
  test('is whole: seals, index, verdicts', async () => {
    expect((await verify(db)).alterations).toEqual([]);
  });
  test('gives its verdicts away with the job: another shop reads the same, and says by which version', async () => {
    const other = await openDatabase(path.join(folder, 'other.sqlite'));
    for (const { job_id } of (await db('runs').distinct('job_id')) as { job_id: string }[]) {
      const text = await exportJob(db, job_id);
      const record = await importInto(other, text.ok ? text.value : '');
      for (const run of finished(record)) {
        expect(judgedRun(run).results).toEqual(judged[run.id]!.results);
        expect(run.judged!.how).toBe('moved');
      }
    }
    expect((await verify(other)).alterations).toEqual([]);
    await other.destroy();
  });
  test('an altered verdict is found, and refused in a file', async () => {
    const [first] = Object.keys(judged);
    const run = (await findRun(db, first!))!;
    const text = await exportJob(db, run.jobId);
    const file = JSON.parse(text.ok ? text.value : '') as {
      judged: { entry: { assessment: { headline: string } } }[];
    };
    file.judged[0]!.entry.assessment.headline = 'All is well';
    const other = await openDatabase(path.join(folder, 'forged.sqlite'));
    const outcome = await importJob(other, JSON.stringify(file), AT);
    expect(outcome.ok ? '' : outcome.why.message).toMatch(/altered/);
    await other.destroy();
  });
});

describe('job files of version 0.1.0', () => {
  test.each(FILES)('%s comes in with its readings and limits, judged on import', async (name) => {
    const db = await openDatabase(path.join(folder, `${name}.sqlite`));
    const record = await importInto(db, textOf(name));
    for (const run of finished(record)) {
      expect(run.judged).toMatchObject({ how: 'imported' });
      expect(saidOtherwise(run)).toBeNull();
      const then = judged[run.id]!;
      const limits = ({ id, limits: kept, captures }: Result) => ({ id, kept, captures });
      // A limit that is worked out from what was read may move with the rules; the profile's own may not.
      // What was only noted then, a count, is judged now.
      const own = then.results.filter(({ expected, verdict }) => expected === null && verdict !== 'noted');
      const now = judgedRun(run).results;
      expect(own.map(limits)).toEqual(own.map(({ id }) => limits(now.find((result) => result.id === id)!)));
      expect((await reportPdf(db, run.id, 'A4')).ok).toBe(true);
    }
    expect((await verify(db)).alterations).toEqual([]);
    const again = await exportJob(db, record.id);
    expect(JSON.parse(again.ok ? again.value : '').entries).toEqual(
      (JSON.parse(textOf(name)) as { entries: unknown }).entries,
    );
    await db.destroy();
  });
  test('hold every call, a re-test, signatures and both families', () => {
    const entries = FILES.flatMap(
      (name) =>
        (JSON.parse(textOf(name)) as { entries: { entry: { type: string; kind?: string } }[] }).entries,
    ).map(({ entry }) => entry);
    expect(new Set(Object.values(judged).map(({ assessment }) => assessment.call)).size).toBe(5);
    expect(entries.filter(({ type }) => type === 'signed')).toHaveLength(2);
    expect(new Set(entries.flatMap(({ kind }) => kind ?? []))).toEqual(new Set(FIRST_FAMILIES));
  });
});

describe('job files with entries of the second revision', () => {
  test.each(SECOND_FILES)('%s opens the same: its verdicts, its state, its next step', async (name) => {
    const db = await openDatabase(path.join(folder, `${name}.second.sqlite`));
    const record = await importInto(db, textOf(name, SECOND));
    for (const run of finished(record)) {
      expect(run.judged).toMatchObject({ how: 'finished' });
      const judgedNow = [{ name: 'Useful applications from the tank', then: 'Noted', now: 'Meets' }];
      expect(saidOtherwise(run)).toEqual(
        run.kind === 'rod-servo' ? { headline: null, verdicts: judgedNow } : null,
      );
      expect(stateOf(run)).toMatchObject({ finished: true, sources: { vacuum: 'off' } });
    }
    for (const run of record.runs) {
      const set = run.events.filter(({ type }) => type === 'source-set');
      expect(set.length).toBeGreaterThan(0);
      for (const step of run.context.procedure.steps) expect(step.state.vacuum).toMatch(/^(on|off)$/);
    }
    expect((await verify(db)).alterations).toEqual([]);
    await db.destroy();
  });
  test('the half-done test goes on where it was left: the vacuum on, the boost ratio to be read', async () => {
    const db = await openDatabase(path.join(folder, 'goes-on.sqlite'));
    const record = await importInto(db, textOf('remote-half-done.job.json', SECOND));
    const run = record.runs.at(-1)!;
    expect(nextAction(run.context.procedure, stateOf(run))).toMatchObject({ kind: 'item', step: { id: 'ratio' } });
    expect(stateOf(run).sources).toEqual({ vacuum: 'on' });
    await db.destroy();
  });
});

describe('job files of vehicles of the first revision', () => {
  test.each(filesIn(VEHICLES))('%s opens the same, and makes up no mass', async (name) => {
    const db = await openDatabase(path.join(folder, `${name}.sqlite`));
    const record = await importInto(db, textOf(name, VEHICLES));
    expect(record.runs.length).toBeGreaterThan(0);
    for (const run of record.runs) {
      expect(run.context.profile).toMatchObject({ load: { stop: null } });
      expect(FAMILIES[run.kind].withoutPower!(run.context.profile)).toBeNull();
    }
    await opensTheSame(db, record, textOf(name, VEHICLES));
  });
});

describe('a job file with entries of the fourth revision', () => {
  test.each(filesIn(FOURTH))('%s opens the same, and nothing in it is said to be other than it was', async (name) => {
    const db = await openDatabase(path.join(folder, `${name}.fourth.sqlite`));
    const record = await importInto(db, textOf(name, FOURTH));
    expect(record).toMatchObject({ identities: [], findings: [{}], work: [{ what: { did: 'rebuilt' } }] });
    await opensTheSame(db, record, textOf(name, FOURTH));
  });
});

describe('a job file with entries of the fifth revision', () => {
  test.each(filesIn(FIFTH))('%s opens the same, and no trouble codes are made up', async (name) => {
    const db = await openDatabase(path.join(folder, `${name}.fifth.sqlite`));
    const record = await importInto(db, textOf(name, FIFTH));
    expect(record).toMatchObject({ codes: [], identities: [{ what: { decision: 'refused' } }] });
    await opensTheSame(db, record, textOf(name, FIFTH));
  });
  test.each(filesIn(SIXTH))('%s opens the same, and no home check is made up', async (name) => {
    const db = await openDatabase(path.join(folder, `${name}.sixth.sqlite`));
    const record = await importInto(db, textOf(name, SIXTH));
    expect(record.homeChecks).toEqual([]);
    await opensTheSame(db, record, textOf(name, SIXTH));
  });
});

describe('nothing that reads old records is exercised by nothing', () => {
  const entriesOf = (kept: string) =>
    filesIn(kept)
      .flatMap(
        (name) => (JSON.parse(textOf(name, kept)) as { entries: { entry: Record<string, unknown> }[] }).entries,
      )
      .map(({ entry }) => entry);
  const first = entriesOf(KEPT);
  const entries = [...first, ...entriesOf(SECOND), ...entriesOf(VEHICLES), ...entriesOf(FOURTH), ...entriesOf(FIFTH), ...entriesOf(SIXTH)];
  /** Kinds of entries that a revision changed. */
  const CHANGED: Readonly<Record<number, readonly string[]>> = {
    1: ['taken-in', 'run-started', 'run-event'],
    2: ['run-started', 'run-event'],
    // What a part may be said to have undergone was only added to.
    3: [],
    // Nor was anything of what it was said to be.
    4: [],
    // Nor of a vehicle's trouble codes.
    5: [],
    // Nor of what a customer tried at home.
    6: [],
  };
  test('every revision of an entry has kept entries that its upcast changes', () => {
    for (let from = 1; from < ENTRY_REVISION; from += 1) {
      const upcast = ENTRY_UPCASTS[from]!;
      expect(entries.some((entry) => (entry.entryRevision ?? 1) === from)).toBe(true);
      const changed = entries.filter(
        (entry) => (entry.entryRevision ?? 1) === from && JSON.stringify(upcast(entry)) !== JSON.stringify(entry),
      );
      expect(new Set(changed.map(({ type }) => type))).toEqual(new Set(CHANGED[from]));
    }
    expect(Object.keys(ENTRY_UPCASTS)).toHaveLength(ENTRY_REVISION - 1);
    expect(() => presentEntry({ type: 'archived', archived: true, entryRevision: 99 })).toThrow(RangeError);
  });
  test('every version of the job file has a kept file', () => {
    const versions = new Set(FILES.map((name) => (JSON.parse(textOf(name)) as { version: number }).version));
    expect(Object.keys(JOB_FILE_UPCASTS).map(Number)).toEqual([...versions]);
    expect(JOB_FILE_VERSION).toBe(1 + Math.max(...versions));
  });
  test('every revision of a family that is past has a kept profile that its upcast brings to the present', () => {
    for (const kind of Object.keys(FAMILIES) as FamilyKind[]) {
      const family = FAMILIES[kind];
      const kept = entries.flatMap((entry) => {
        const profile = entry.profile as { kind: string; revision?: number; body: unknown } | undefined;
        return profile?.kind === kind ? [{ revision: profile.revision ?? 1, body: profile.body }] : [];
      });
      for (let revision = 1; revision <= family.revision; revision += 1) {
        const old = kept.filter((one) => one.revision === revision);
        if (revision < family.revision || FIRST_FAMILIES.includes(kind)) expect(old.length).toBeGreaterThan(0);
        for (const { body } of old)
          expect(family.profile.safeParse(family.upcast(body, revision)).success).toBe(true);
      }
    }
  });
  test('every migration stands in a test of a database that lacked it', () => {
    // 0.1.0 had the first four: that a database of the very first version opens is held by migrations.test.ts.
    expect(existsSync(path.join(__dirname, '../migrations/migrations.test.ts'))).toBe(true);
    expect(MIGRATION_NAMES.slice(4)).toEqual(['005-judgements', '006-shelf-revisions', '007-recordings', '008-list-columns', '009-pre-charges', '010-trace-seals', '011-pins', '012-photos-made-here', '013-comparisons', '014-practice-cases', '015-days']);
  });
});
