/** @jest-environment node */
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { type Knex } from 'knex';
import sharp from 'sharp';
import { judgedRun } from '@/core/records/judged-run';
import { backUp, backupProblem, restore } from './backup';
import { openDatabase } from './database';
import { Desk, FINDING, newId, picture, taken, WORK, whyNot } from './demo/desk';
import { FIXTURE_NOW as NOW } from './demo/fixture';
import { exportJob, importJob } from './job-files';
import { findJob } from './jobs';
import { readRecord } from './record';
import { addNote } from './notes';
import { addPhoto, keptPicture, readPicture } from './photos';
import { appendEvent, findRun, startRun } from './runs';
import { signJob } from './technicians';
import { troubleWords } from './trouble';
import { verify } from './verify';

let desk: Desk;
let db: Knex;
beforeEach(async () => {
  desk = await Desk.open();
  db = desk.db;
});
afterEach(() => desk.close());

describe('photos', () => {
  test('are kept upright, small, and without a trace of where they were taken', async () => {
    const bytes = await picture()
      .withExif({ IFD0: { Model: 'Somecam' }, IFD3: { GPSLatitude: '51/1 30/1 0/1', GPSLatitudeRef: 'N' } })
      .withMetadata({ orientation: 6 })
      .jpeg()
      .toBuffer();
    expect((await sharp(bytes).metadata()).orientation).toBe(6);
    const job = await desk.jobOf('GF-0424');
    const record = taken(
      await addPhoto(db, job.id, { id: newId(), point: 'end-cap', caption: 'Wet' }, bytes, NOW),
    );
    // 40 × 20 with orientation 6 is 20 wide and 40 high.
    expect(record.photos[0]!.what).toMatchObject({ width: 20, height: 40, point: 'end-cap', caption: 'Wet' });
    const stored = await sharp(taken(await readPicture(db, record.photos[0]!.what.sha256))).metadata();
    expect([stored.exif, stored.orientation, stored.width]).toEqual([undefined, undefined, 20]);
  });
  test('large ones are made smaller', async () => {
    const large = await sharp({ create: { width: 4000, height: 3000, channels: 3, background: '#888' } })
      .jpeg()
      .toBuffer();
    expect(taken(await keptPicture(large))).toMatchObject({ width: 1600, height: 1200 });
  });
  test.each([
    ['nothing', Buffer.alloc(0), /empty/],
    ['words', Buffer.from('not a photo at all'), /not a picture/],
    [
      'a drawing with a script',
      Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><script>1</script></svg>'),
      /not a picture/,
    ],
    ['a JPEG cut in the middle', null, /not a picture/],
    ['more than 20 MB', Buffer.alloc(20_000_001), /20 MB/],
  ])('%s is refused with a sentence, and nothing is added', async (_what, bytes, sentence) => {
    const cut =
      bytes ??
      (
        await sharp({ create: { width: 900, height: 900, channels: 3, background: '#123' } })
          .jpeg()
          .toBuffer()
      ).subarray(0, 700);
    const job = await desk.jobOf('GF-0424');
    expect(whyNot(await addPhoto(db, job.id, { id: newId(), point: null, caption: '' }, cut, NOW))).toMatch(
      sentence,
    );
    expect((await readRecord(db, job.id))!.photos).toEqual([]);
    expect(await db('photos')).toHaveLength(1);
  });
  test('a signed job takes none, and the picture is not kept either', async () => {
    const job = await desk.jobOf('GF-0412');
    taken(await signJob(db, job.id, { id: newId(), ...(await desk.signer()) }, NOW));
    const bytes = await picture().png().toBuffer();
    expect(whyNot(await addPhoto(db, job.id, { id: newId(), point: null, caption: '' }, bytes, NOW))).toMatch(
      /signed/,
    );
    expect(await db('photos')).toHaveLength(1);
  });
});

describe('a job file of another family', () => {
  test('of a servo comes into another shop the same: force, stopwatch and all', async () => {
    const job = await desk.jobOf('GF-0422');
    const text = taken(await exportJob(db, job.id));
    const other = await openDatabase(desk.file('servo.sqlite'));
    const there = taken(await importJob(other, text, NOW));
    expect(there.body).toMatchObject({ tag: 'GF-0422', kind: 'rod-servo' });
    expect(taken(await exportJob(other, job.id))).toBe(text);
    const run = (await findRun(other, there.runs[0]!.id))!;
    expect(run).toEqual(await findRun(db, there.runs[0]!.id));
    const timed = judgedRun(run).results.filter(({ quantity }) => quantity === 'duration');
    expect(timed.map(({ id }) => id)).toEqual(['pull-down', 'apply-time', 'release-time']);
    expect((await verify(other)).alterations).toEqual([]);
    await other.destroy();
  });
  test('with a figure of its profile made impossible is refused, and nothing is taken in', async () => {
    const job = await desk.jobOf('GF-0422');
    const text = taken(await exportJob(db, job.id)).replaceAll('"lever_m":0.14', '"lever_m":-0.14');
    const other = await openDatabase(desk.file('bent.sqlite'));
    expect(whyNot(await importJob(other, text, NOW))).toMatch(/Nothing was taken in\.$/);
    expect(await other('jobs')).toHaveLength(0);
    await other.destroy();
  });
});

describe('a job file', () => {
  async function fullJob() {
    const job = await desk.jobOf('GF-0421');
    taken(await desk.note(job.id, FINDING));
    taken(await desk.note(job.id, WORK));
    taken(
      await addPhoto(
        db,
        job.id,
        { id: newId(), point: 'end-cap', caption: 'Torn' },
        await picture().png().toBuffer(),
        NOW,
      ),
    );
    taken(await signJob(db, job.id, { id: newId(), ...(await desk.signer()) }, NOW));
    return { job, text: taken(await exportJob(db, job.id)) };
  }
  test('taken into an empty installation and out again is the same file, and reads the same', async () => {
    const { job, text } = await fullJob();
    const other = await openDatabase(desk.file('other.sqlite'));
    const there = taken(await importJob(other, text, NOW));
    expect(there).toMatchObject({ id: job.id, call: 'faulty', signed: true });
    expect(taken(await exportJob(other, job.id))).toBe(text);
    const mine = (await readRecord(db, job.id))!;
    expect(mine.fromFiles).toEqual([]);
    expect(await readRecord(other, job.id)).toEqual({
      ...mine,
      fromFiles: [{ first: 1, last: mine.length }],
    });
    expect(await findRun(other, there.runs[0]!.id)).toEqual(await findRun(db, there.runs[0]!.id));
    expect((await verify(other)).alterations).toEqual([]);
    expect(whyNot(await importJob(other, text, NOW))).toMatch(/already/);
    await other.destroy();
  });
  test('a file that goes further carries the job on; one that went another way is refused', async () => {
    const job = await desk.jobOf('GF-0412');
    const before = taken(await exportJob(db, job.id));
    const other = await openDatabase(desk.file('other.sqlite'));
    taken(await importJob(other, before, NOW));
    taken(await desk.note(job.id, FINDING));
    const further = taken(await exportJob(db, job.id));
    taken(await importJob(other, further, NOW));
    expect((await readRecord(other, job.id))!.findings).toHaveLength(1);
    taken(await addNote(other, job.id, { id: newId(), entry: WORK }, NOW));
    taken(await desk.note(job.id, { ...WORK, work: { ...WORK.work, serial: 'D-78' } }));
    expect(whyNot(await importJob(other, taken(await exportJob(db, job.id)), NOW))).toMatch(/another way/);
    expect(whyNot(await importJob(other, before, NOW))).toMatch(/already|another way/);
    await other.destroy();
  });
  type Draft = {
    version: unknown;
    format: string;
    job: string;
    photos: { sha256: string; jpeg: string }[];
    entries: { entry: Record<string, unknown>; place: number; id: string }[];
  };
  const altered: [string, (draft: Draft) => unknown, RegExp][] = [
    ['foreign', (d) => ({ ...d, format: 'recipe' }), /not a Hard Pedal job file/],
    ['newer', (d) => ({ ...d, version: 3 }), /newer Hard Pedal/],
    ['without a version', (d) => ({ ...d, version: undefined }), /version/],
    ['a list', () => [1, 2], /not a Hard Pedal job file/],
    ['with more in it', (d) => ({ ...d, extra: 1 }), /not as it should be/],
    [
      'altered in one word',
      (d) => {
        (d.entries[0]!.entry.job as { from: string }).from = 'Bus';
        return d;
      },
      /entry 1 is not as it was written/,
    ],
    ['of another job', (d) => ({ ...d, job: '00000000-0000-4000-8000-00000000eeee' }), /altered: entry 1/],
    [
      'with an entry taken out',
      (d) => ({ ...d, entries: d.entries.filter(({ place }) => place !== 5) }),
      /entry 5 is missing/,
    ],
    ['without its photo', (d) => ({ ...d, photos: [] }), /photo is missing/],
    [
      'with a strange photo',
      (d) => ({ ...d, photos: d.photos.map((p) => ({ ...p, jpeg: 'AAAA' })) }),
      /photo in this file has been altered/,
    ],
    [
      'with a path for a photo’s name',
      (d) => ({ ...d, photos: d.photos.map((p) => ({ ...p, sha256: '../../etc/passwd' })) }),
      /not as it should be/,
    ],
    ['with no entries', (d) => ({ ...d, entries: [] }), /not as it should be/],
  ];
  /** One file for them all: each is taken in, altered, by a shop that has nothing yet. */
  let whole: string | null = null;
  test.each(altered)('%s is refused whole, with the reason', async (_what, alter, sentence) => {
    const text = (whole ??= (await fullJob()).text);
    const other = await openDatabase(desk.file('other.sqlite'));
    const answer = await importJob(other, JSON.stringify(alter(JSON.parse(text) as Draft)), NOW);
    expect(whyNot(answer)).toMatch(sentence);
    expect(whyNot(answer)).toMatch(/Nothing was taken in\.$/);
    for (const table of ['jobs', 'runs', 'journal', 'profiles', 'photos'])
      expect(await other(table)).toEqual([]);
    await other.destroy();
  });
  test.each([
    ['broken', '{"format": "hard-pedal-job", ', /not whole JSON/],
    ['empty', '', /not whole JSON/],
    [
      'with a poisoned name',
      '{"format":"hard-pedal-job","version":1,"__proto__":{"admin":true}}',
      /names that no job file has/,
    ],
  ])('%s is refused', async (_what, text, sentence) => {
    expect(whyNot(await importJob(db, text, NOW))).toMatch(sentence);
  });
});

describe('backup', () => {
  test('taken while readings come in, it is one moment of the record, whole', async () => {
    const job = await desk.jobOf('GF-0425');
    const run = taken(await startRun(db, job.id, NOW));
    let version = 0;
    const capture = async () => {
      const event = { id: newId(), at: NOW, type: 'acknowledged', step: 'cautions' };
      taken(await appendEvent(db, run.id, { expectedVersion: version, events: [event] }, NOW));
      version += 1;
    };
    const work = (async () => {
      for (let i = 0; i < 30; i += 1) await capture();
    })();
    await new Promise((soon) => setTimeout(soon, 40));
    backUp(desk.file('hard-pedal.sqlite'), desk.file('night.backup'));
    await work;
    const restored = desk.file('elsewhere');
    const { mkdirSync } = await import('node:fs');
    mkdirSync(restored);
    const { kept, verification } = await restore(restored, desk.file('night.backup'), 'now');
    expect([kept, verification.alterations]).toEqual([null, []]);
    const there = await openDatabase(path.join(restored, 'hard-pedal.sqlite'));
    const entries: { hash: string }[] = await there('journal').orderBy('seq').select('hash');
    const all: { hash: string }[] = await db('journal').orderBy('seq').select('hash');
    expect(entries).toEqual(all.slice(0, entries.length));
    expect((await findJob(there, job.id))!.body.tag).toBe('GF-0425');
    await there.destroy();
  });
  test('restoring keeps what was there, and refuses what is no backup', async () => {
    backUp(desk.file('hard-pedal.sqlite'), desk.file('night.backup'));
    expect(() => backUp(desk.file('hard-pedal.sqlite'), desk.file('night.backup'))).toThrow(/there already/);
    taken(await desk.note((await desk.jobOf('GF-0424')).id, FINDING));
    await db.destroy();
    const { kept } = await restore(desk.folder, desk.file('night.backup'), 'stamp');
    const old = await openDatabase(kept!);
    expect((await readRecord(old, (await desk.jobOf('GF-0424', old)).id))!.findings).toHaveLength(1);
    await old.destroy();
    const back = await openDatabase(desk.file('hard-pedal.sqlite'));
    expect((await readRecord(back, (await desk.jobOf('GF-0424', back)).id))!.findings).toEqual([]);
    await back.destroy();
    writeFileSync(desk.file('text'), 'no database');
    expect(backupProblem(desk.file('text'))).toMatch(/not a Hard Pedal backup/);
    expect(backupProblem(desk.file('none'))).toMatch(/There is no file/);
  });
});

describe('a disk that cannot be written', () => {
  test.each([
    ['full', (to: Knex) => to.raw('PRAGMA max_page_count = 1'), /disk is full/],
    ['read-only', (to: Knex) => to.raw('PRAGMA query_only = ON'), /can only be read/],
  ])('%s: nothing is acknowledged, nothing half written', async (_what, spoil, words) => {
    const job = await desk.jobOf('GF-0424');
    const long = { ...FINDING, finding: { ...FINDING.finding, words: 'x'.repeat(19_000) } };
    await spoil(db);
    const failed = await desk.note(job.id, long).catch((error: Error) => error);
    expect(troubleWords(failed)).toMatch(words);
    await db.raw('PRAGMA query_only = OFF');
    expect((await readRecord(db, job.id))!.findings).toEqual([]);
    expect((await verify(db)).alterations).toEqual([]);
  });
});
