import { copyFileSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import knex, { type Knex } from 'knex';
import sharp from 'sharp';
import { FAMILIES } from '@/core/families/registry';
import { jobQuerySchema, type JobQuery } from '@/core/records/job-query';
import type { JobEntry } from '@/core/records/entries';
import type { StoredJob } from '@/core/records/views';
import { backUp, backupProblem, restore } from './backup';
import { openDatabase } from './database';
import { FIXTURE_NOW as NOW, seededDatabase } from './demo/fixture';
import { isDiskTrouble } from './http';
import { exportJob, importJob } from './job-files';
import { searchJobs } from './job-list';
import { addJob, findJob, readRecord } from './jobs';
import { addNote } from './notes';
import type { Outcome } from './outcome';
import { addPhoto, keptPicture, readPicture } from './photos';
import { appendEvent, findRun, startRetest, startRun } from './runs';
import { addProfile, calibrate, deleteInstrument, listInstruments, versionsOf } from './shelf';
import { addTechnician, correctJob, listTechnicians, signJob } from './technicians';
import { verify } from './verify';

let folder: string;
let db: Knex;
let count = 0;
const id = () => `00000000-0000-4000-8000-${String(++count).padStart(12, '0')}`;
const file = (name: string) => path.join(folder, name);

beforeEach(async () => {
  folder = mkdtempSync(path.join(tmpdir(), 'hard-pedal-records-'));
  db = await seededDatabase(file('hard-pedal.sqlite'));
});
afterEach(async () => {
  await db.destroy();
  rmSync(folder, { recursive: true, force: true });
});

function taken<T>(outcome: Outcome<T>): T {
  if (!outcome.ok) throw new Error(outcome.why.message);
  return outcome.value;
}
const whyNot = (outcome: Outcome<unknown>) => (outcome.ok ? '' : outcome.why.message);
const ask = async (from: Knex, query: Partial<JobQuery>) =>
  searchJobs(from, jobQuerySchema.parse({ ...query }));
const jobOf = async (tag: string, from = db): Promise<StoredJob> =>
  (await ask(from, { q: tag })).jobs.find(({ body }) => body.tag === tag)!;
const note = async (job: string, entry: JobEntry) => addNote(db, job, { id: id(), entry }, NOW);
const FINDING = {
  type: 'finding',
  finding: { kind: 'noise', point: 'end-cap', words: 'Hisses like a kettle', fault: 'poppet-leak' },
} as const;
const WORK = {
  type: 'work',
  work: { part: 'diaphragm', did: 'replaced', reason: 'Torn', provenance: 'new', serial: 'D-77' },
} as const;
const picture = () => sharp({ create: { width: 40, height: 20, channels: 3, background: '#804020' } });

async function signer() {
  const { id: technician } = taken(await addTechnician(db, { name: 'Pell Tarn', pin: '4711' }, NOW));
  return { technician, pin: '4711' };
}

describe('the record of a job', () => {
  test('keeps findings and work, and what is taken back is kept and marked', async () => {
    const job = await jobOf('GF-0424');
    taken(await note(job.id, FINDING));
    const record = taken(await note(job.id, WORK));
    const [finding] = record.findings;
    expect(finding!.what).toEqual(FINDING.finding);
    const after = taken(await note(job.id, { type: 'withdrawn', entry: finding!.id }));
    expect(after.findings[0]).toMatchObject({ withdrawn: true, what: FINDING.finding });
    expect(taken(await note(job.id, { type: 'put-back', entry: finding!.id })).findings[0]!.withdrawn).toBe(
      false,
    );
  });
  test('sent twice, an entry is recorded once', async () => {
    const job = await jobOf('GF-0424');
    const once = { id: id(), entry: FINDING };
    taken(await addNote(db, job.id, once, NOW));
    expect(taken(await addNote(db, job.id, once, NOW)).findings).toHaveLength(1);
  });
  test.each([
    [{ ...WORK, work: { ...WORK.work, provenance: null } }, /new, reconditioned, used/],
    [{ ...WORK, work: { ...WORK.work, did: 'refused', reason: ' ' } }, /why it was refused/],
    [{ ...FINDING, finding: { ...FINDING.finding, words: '' } }, /write a few words/],
    [{ type: 'signed', technician: 'Me', head: '0'.repeat(64) }, /cannot be written down this way/],
    [{ type: 'withdrawn', entry: id() }, /nothing of that kind/],
  ])('%j is refused with a sentence', async (entry, sentence) => {
    const job = await jobOf('GF-0424');
    expect(whyNot(await note(job.id, entry as JobEntry))).toMatch(sentence);
  });
  test('deleted, a job is out of the lists and can be put back', async () => {
    const job = await jobOf('GF-0424');
    taken(await note(job.id, { type: 'deleted', deleted: true }));
    expect(await jobOf('GF-0424')).toBeUndefined();
    expect((await ask(db, { show: 'deleted' })).jobs.map(({ id: one }) => one)).toEqual([job.id]);
    expect(whyNot(await note(job.id, FINDING))).toMatch(/Put it back first/);
    taken(await note(job.id, { type: 'deleted', deleted: false }));
    expect(await jobOf('GF-0424')).toBeDefined();
  });
});

describe('search', () => {
  test('finds what is written anywhere, by the beginning of words, accents or not', async () => {
    const job = await jobOf('GF-0424');
    taken(await note(job.id, { ...FINDING, finding: { ...FINDING.finding, words: 'Geräusch am Deckel' } }));
    const tags = async (q: string) => (await ask(db, { q })).jobs.map(({ body }) => body.tag);
    expect(await tags('gerausch')).toEqual(['GF-0424']);
    expect(await tags('library dec')).toEqual(['GF-0424']);
    expect(await tags('0424')).toEqual(['GF-0424']);
    expect(await tags('poppet')).toEqual(['GF-0424']);
    expect(await tags('library loader')).toEqual([]);
    expect(await tags('"*')).toEqual([]);
  });
  test('lists by what the last test came to, sorts, and turns nonsense into everything', async () => {
    expect((await ask(db, { show: 'weak-supply' })).jobs.map(({ body }) => body.tag)).toEqual(['GF-0415']);
    const tags = (await ask(db, { sort: 'tag' })).jobs.map(({ body }) => body.tag);
    expect(tags).toEqual([...tags].sort());
    expect(jobQuerySchema.parse({ show: 'x', sort: '1', page: 'no' })).toEqual({
      q: '',
      show: 'current',
      sort: 'newest',
      page: 1,
    });
  });
});

describe('signing', () => {
  test('closes the record to all but corrections, until it is opened again with a reason', async () => {
    const job = await jobOf('GF-0412');
    const who = await signer();
    const signed = taken(await signJob(db, job.id, { id: id(), ...who }, NOW));
    expect(signed.signatures[0]).toMatchObject({ technician: 'Pell Tarn', place: signed.length });
    expect(whyNot(await note(job.id, FINDING))).toMatch(/is signed/);
    expect(whyNot(await startRun(db, job.id, NOW))).toMatch(/is signed/);
    const correction = { id: id(), ...who, about: null, words: 'The van is number 8.' };
    expect(taken(await correctJob(db, job.id, correction, NOW)).corrections[0]!.what.words).toBe(
      correction.words,
    );
    taken(await note(job.id, { type: 'reopened', reason: 'Back on the bench' }));
    expect(taken(await note(job.id, FINDING)).signed).toBe(false);
    const again = taken(await signJob(db, job.id, { id: id(), ...who }, NOW));
    expect(again.signatures).toHaveLength(2);
  });
  test('a wrong PIN signs nothing, and five of them bring a pause', async () => {
    const job = await jobOf('GF-0412');
    const { technician } = await signer();
    const wrong = () => signJob(db, job.id, { id: id(), technician, pin: '0000' }, NOW);
    for (let i = 0; i < 5; i += 1) expect(whyNot(await wrong())).toMatch(/Nothing was signed/);
    expect(whyNot(await signJob(db, job.id, { id: id(), technician, pin: '4711' }, NOW))).toMatch(
      /Wait 60 s/,
    );
    const later = new Date(Date.parse(NOW) + 61_000).toISOString();
    expect((await signJob(db, job.id, { id: id(), technician, pin: '4711' }, later)).ok).toBe(true);
  });
  test('not while a test is running, and the PIN itself is nowhere in the database', async () => {
    const who = await signer();
    const busy = await jobOf('GF-0423');
    expect(whyNot(await signJob(db, busy.id, { id: id(), ...who }, NOW))).toMatch(/not finished/);
    expect(JSON.stringify(await db('technicians'))).not.toContain('4711');
    expect(await listTechnicians(db)).toContainEqual({ id: who.technician, name: 'Pell Tarn' });
    expect(whyNot(await addTechnician(db, { name: 'Pell Tarn', pin: '1234' }, NOW))).toMatch(/already/);
    expect(whyNot(await addTechnician(db, { name: 'B', pin: '12' }, NOW))).toMatch(/four to twelve/);
  });
});

describe('verify', () => {
  test('finds nothing in what the application wrote', async () => {
    const found = await verify(db);
    expect(found.alterations).toEqual([]);
    expect(found.entries).toBeGreaterThan(400);
  });
  test.each<[string, (db: Knex) => Promise<unknown>, RegExp, RegExp]>([
    [
      'a reading',
      (to) =>
        to.raw(
          `UPDATE journal SET body = replace(body, '"type":"captured"', '"type":"captureD"') WHERE seq = 200`,
        ),
      /Job GF-/,
      /not as it was written/,
    ],
    [
      'a time',
      (to) => to('journal').where({ seq: 100 }).update({ at: '2020-01-01T00:00:00.000Z' }),
      /Job GF-/,
      /not as/,
    ],
    ['a line taken out', (to) => to('journal').where({ seq: 150 }).delete(), /journal/, /Line 150/],
    [
      'the last line taken out',
      (to) => to.raw('DELETE FROM journal WHERE seq = (SELECT max(seq) FROM journal)'),
      /journal/,
      /gone/,
    ],
    [
      'the list of jobs',
      (to) => to('jobs').where({ tag: 'GF-0421' }).update({ call: 'healthy' }),
      /GF-0421/,
      /list of jobs/,
    ],
    [
      'a gauge on the shelf',
      (to) => to.raw(`UPDATE instruments SET body = replace(body, '0.6', '0.1')`),
      /Instrument/,
      /not the last version/,
    ],
    [
      'a job without a record',
      (to) => to.raw(`UPDATE journal SET chain = 'x' || chain WHERE chain LIKE 'job/%'`),
      /./,
      /not as|no record/,
    ],
  ])('finds %s altered behind its back', async (_what, alter, where, what) => {
    await alter(db);
    const { alterations } = await verify(db);
    expect(alterations.some((one) => where.test(one.where) && what.test(one.what))).toBe(true);
  });
  test('finds and locates every single byte changed in a signed record, in the file itself', async () => {
    // A database with one short signed record, so that every byte of it can be turned.
    const small = file('small.sqlite');
    const one = await openDatabase(small);
    const profile = taken(await addProfile(one, FAMILIES['remote-vacuum'].typical, NOW));
    const job = taken(
      await addJob(
        one,
        {
          tag: 'GF-1',
          kind: 'remote-vacuum',
          profileId: profile.id,
          from: 'Tug',
          complaint: '',
          fluid: 'dot4',
          promisedOn: null,
        },
        NOW,
      ),
    );
    const { id: technician } = taken(await addTechnician(one, { name: 'O. Brack', pin: '4711' }, NOW));
    taken(await addNote(one, job.id, { id: id(), entry: FINDING }, NOW));
    taken(await signJob(one, job.id, { id: id(), technician, pin: '4711' }, NOW));
    await one.raw('PRAGMA wal_checkpoint(TRUNCATE)');
    const rows: { seq: number; id: string; hash: string; place: number }[] = await one('journal').where(
      'chain',
      'like',
      'job/%',
    );
    await one.raw('PRAGMA journal_mode = DELETE');
    await one.destroy();
    const whole = readFileSync(small);
    const turned = file('turned.sqlite');
    copyFileSync(small, turned);
    let tried = 0;
    for (const row of rows) {
      // A row lies in the file as id … body, seal, in one piece.
      const start = whole.indexOf(`${row.id}job/`);
      const end = whole.indexOf(row.hash, start) + row.hash.length;
      for (let at = start; at < end; at += 1) {
        const bytes = Buffer.from(whole);
        bytes[at]! ^= 1 << (at % 7);
        writeFileSync(turned, bytes);
        const raw = knex({
          client: 'better-sqlite3',
          connection: { filename: turned },
          useNullAsDefault: true,
        });
        const { alterations } = await verify(raw);
        await raw.destroy();
        tried += 1;
        const located = alterations.some(({ line }) => line === row.seq);
        if (!located)
          throw new Error(`byte ${at - start} of entry ${row.place}: ${JSON.stringify(alterations)}`);
      }
    }
    expect(tried).toBeGreaterThan(3000);
  }, 120_000);
});

describe('photos', () => {
  test('are kept upright, small, and without a trace of where they were taken', async () => {
    const bytes = await picture()
      .withExif({ IFD0: { Model: 'Somecam' }, IFD3: { GPSLatitude: '51/1 30/1 0/1', GPSLatitudeRef: 'N' } })
      .withMetadata({ orientation: 6 })
      .jpeg()
      .toBuffer();
    expect((await sharp(bytes).metadata()).orientation).toBe(6);
    const job = await jobOf('GF-0424');
    const record = taken(
      await addPhoto(db, job.id, { id: id(), point: 'end-cap', caption: 'Wet' }, bytes, NOW),
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
    const job = await jobOf('GF-0424');
    expect(whyNot(await addPhoto(db, job.id, { id: id(), point: null, caption: '' }, cut, NOW))).toMatch(
      sentence,
    );
    expect((await readRecord(db, job.id))!.photos).toEqual([]);
    expect(await db('photos')).toHaveLength(1);
  });
  test('a signed job takes none, and the picture is not kept either', async () => {
    const job = await jobOf('GF-0412');
    taken(await signJob(db, job.id, { id: id(), ...(await signer()) }, NOW));
    const bytes = await picture().png().toBuffer();
    expect(whyNot(await addPhoto(db, job.id, { id: id(), point: null, caption: '' }, bytes, NOW))).toMatch(
      /signed/,
    );
    expect(await db('photos')).toHaveLength(1);
  });
});

describe('a job file', () => {
  async function fullJob() {
    const job = await jobOf('GF-0421');
    taken(await note(job.id, FINDING));
    taken(await note(job.id, WORK));
    taken(
      await addPhoto(
        db,
        job.id,
        { id: id(), point: 'end-cap', caption: 'Torn' },
        await picture().png().toBuffer(),
        NOW,
      ),
    );
    taken(await signJob(db, job.id, { id: id(), ...(await signer()) }, NOW));
    return { job, text: taken(await exportJob(db, job.id)) };
  }
  test('taken into an empty installation and out again is the same file, and reads the same', async () => {
    const { job, text } = await fullJob();
    const other = await openDatabase(file('other.sqlite'));
    const there = taken(await importJob(other, text, NOW));
    expect(there).toMatchObject({ id: job.id, call: 'faulty', signed: true });
    expect(taken(await exportJob(other, job.id))).toBe(text);
    expect(await readRecord(other, job.id)).toEqual(await readRecord(db, job.id));
    expect(await findRun(other, there.runs[0]!.id)).toEqual(await findRun(db, there.runs[0]!.id));
    expect((await verify(other)).alterations).toEqual([]);
    expect(whyNot(await importJob(other, text, NOW))).toMatch(/already/);
    await other.destroy();
  });
  test('a file that goes further carries the job on; one that went another way is refused', async () => {
    const job = await jobOf('GF-0412');
    const before = taken(await exportJob(db, job.id));
    const other = await openDatabase(file('other.sqlite'));
    taken(await importJob(other, before, NOW));
    taken(await note(job.id, FINDING));
    const further = taken(await exportJob(db, job.id));
    taken(await importJob(other, further, NOW));
    expect((await readRecord(other, job.id))!.findings).toHaveLength(1);
    taken(await addNote(other, job.id, { id: id(), entry: WORK }, NOW));
    taken(await note(job.id, { ...WORK, work: { ...WORK.work, serial: 'D-78' } }));
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
    ['newer', (d) => ({ ...d, version: 2 }), /newer Hard Pedal/],
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
  test.each(altered)('%s is refused whole, with the reason', async (_what, alter, sentence) => {
    const { text } = await fullJob();
    const other = await openDatabase(file('other.sqlite'));
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
    const job = await jobOf('GF-0425');
    const run = taken(await startRun(db, job.id, NOW));
    let version = 0;
    const capture = async () => {
      const event = { id: id(), at: NOW, type: 'acknowledged', step: 'cautions' };
      taken(await appendEvent(db, run.id, { expectedVersion: version, event }, NOW));
      version += 1;
    };
    const work = (async () => {
      for (let i = 0; i < 30; i += 1) await capture();
    })();
    await new Promise((soon) => setTimeout(soon, 40));
    backUp(file('hard-pedal.sqlite'), file('night.backup'));
    await work;
    const restored = file('elsewhere');
    const { mkdirSync } = await import('node:fs');
    mkdirSync(restored);
    const { kept, verification } = await restore(restored, file('night.backup'), 'now');
    expect([kept, verification.alterations]).toEqual([null, []]);
    const there = await openDatabase(path.join(restored, 'hard-pedal.sqlite'));
    const entries: { hash: string }[] = await there('journal').orderBy('seq').select('hash');
    const all: { hash: string }[] = await db('journal').orderBy('seq').select('hash');
    expect(entries).toEqual(all.slice(0, entries.length));
    expect((await findJob(there, job.id))!.body.tag).toBe('GF-0425');
    await there.destroy();
  });
  test('restoring keeps what was there, and refuses what is no backup', async () => {
    backUp(file('hard-pedal.sqlite'), file('night.backup'));
    expect(() => backUp(file('hard-pedal.sqlite'), file('night.backup'))).toThrow(/there already/);
    taken(await note((await jobOf('GF-0424')).id, FINDING));
    await db.destroy();
    const { kept } = await restore(folder, file('night.backup'), 'stamp');
    const old = await openDatabase(kept!);
    expect((await readRecord(old, (await jobOf('GF-0424', old)).id))!.findings).toHaveLength(1);
    await old.destroy();
    db = await openDatabase(file('hard-pedal.sqlite'));
    expect((await readRecord(db, (await jobOf('GF-0424')).id))!.findings).toEqual([]);
    writeFileSync(file('text'), 'no database');
    expect(backupProblem(file('text'))).toMatch(/not a Hard Pedal backup/);
    expect(backupProblem(file('none'))).toMatch(/There is no file/);
  });
});

describe('a disk that cannot be written', () => {
  test.each([
    ['full', (to: Knex) => to.raw('PRAGMA max_page_count = 1')],
    ['read-only', (to: Knex) => to.raw('PRAGMA query_only = ON')],
  ])('%s: nothing is acknowledged, nothing half written', async (_what, spoil) => {
    const job = await jobOf('GF-0424');
    const long = { ...FINDING, finding: { ...FINDING.finding, words: 'x'.repeat(19_000) } };
    await spoil(db);
    const failed = await note(job.id, long).catch((error: Error) => error);
    expect(isDiskTrouble(failed as Error)).toBe(true);
    await db.raw('PRAGMA query_only = OFF');
    expect((await readRecord(db, job.id))!.findings).toEqual([]);
    expect((await verify(db)).alterations).toEqual([]);
  });
});

describe('parts changed', () => {
  test('after a finished test: the re-test carries the other readings over and asks for the stale ones only', async () => {
    const job = await jobOf('GF-0421');
    expect(whyNot(await startRetest(db, job.id, NOW))).toMatch(/Nothing has become stale/);
    taken(await note(job.id, WORK));
    const later = new Date(Date.parse(NOW) + 1000).toISOString();
    const run = taken(await startRetest(db, job.id, later));
    const before = (await findRun(db, job.runs[0]!.id))!;
    expect(run).toMatchObject({ continues: before.id, finishedAt: null });
    expect(run.events.length).toBe(before.events.length);
    expect(run.events.at(-1)).toMatchObject({ type: 'disturbed', why: 'Diaphragm' });
    expect((await findRun(db, before.id))!.finishedAt).toBe(before.finishedAt);
  });
  test('a gauge changed on the shelf since then cannot be carried over', async () => {
    const job = await jobOf('GF-0421');
    taken(await note(job.id, WORK));
    const gauge = (await listInstruments(db)).find(({ body }) => body.tag === 'G-22')!;
    const calibration = {
      on: '2026-11-20',
      due: '2027-11-20',
      certificate: 'C-1',
      found: 'in class',
      correction: null,
    };
    taken(await calibrate(db, gauge.id, gauge.version, calibration, NOW));
    expect(whyNot(await startRetest(db, job.id, NOW))).toMatch(/G-22.*test the unit again in full/);
  });
});

describe('the history of an instrument', () => {
  test('keeps every calibration, and a deletion can be undone', async () => {
    const gauge = (await listInstruments(db)).find(({ body }) => body.tag === 'V-41')!;
    const calibration = {
      on: '2026-11-20',
      due: '2027-11-20',
      certificate: 'C-2',
      found: 'read 0.2 high',
      correction: null,
    };
    const after = taken(await calibrate(db, gauge.id, gauge.version, calibration, NOW));
    expect(after.body).toMatchObject({ calibratedOn: '2026-11-20', calibrationDue: '2027-11-20' });
    taken(await deleteInstrument(db, gauge.id, true, NOW));
    expect((await listInstruments(db)).map(({ body }) => body.tag)).not.toContain('V-41');
    taken(await deleteInstrument(db, gauge.id, false, NOW));
    expect((await versionsOf(db, 'instrument', gauge.id)).map(({ what }) => what)).toEqual([
      'put back',
      'taken off',
      'calibrated',
      'added',
    ]);
    const early = { ...calibration, due: '2026-11-01' };
    expect(whyNot(await calibrate(db, gauge.id, after.version, early, NOW))).toMatch(/after this one/);
  });
});
