import { closeSync, copyFileSync, openSync, readFileSync, writeSync } from 'node:fs';
import knex, { type Knex } from 'knex';
import { FAMILIES } from '@/core/families/registry';
import { jobQuerySchema, type JobQuery } from '@/core/records/job-query';
import type { JobEntry } from '@/core/records/entries';
import { openDatabase } from './database';
import { Desk, FINDING, newId, taken, WORK, whyNot } from './demo/desk';
import { FIXTURE_NOW as NOW } from './demo/fixture';
import { listRemoved } from './removed';
import { searchJobs } from './job-list';
import { addJob } from './jobs';
import { addNote } from './notes';
import { findRun, startRetest, startRun } from './runs';
import { readRecord } from './record';
import { addProfile, calibrate, deleteInstrument, listInstruments, readSettings, versionsOf } from './shelf';
import { addTechnician, correctJob, deleteTechnician, listTechnicians, signJob } from './technicians';
import { verify } from './verify';

let desk: Desk;
let db: Knex;
beforeEach(async () => {
  desk = await Desk.open();
  db = desk.db;
});
afterEach(() => desk.close());
const ask = async (from: Knex, query: Partial<JobQuery>) =>
  searchJobs(from, jobQuerySchema.parse({ ...query }));

describe('the record of a job', () => {
  test('keeps findings and work, and what is taken back is kept and marked', async () => {
    const job = await desk.jobOf('GF-0424');
    taken(await desk.note(job.id, FINDING));
    const record = taken(await desk.note(job.id, WORK));
    const [finding] = record.findings;
    expect(finding!.what).toEqual(FINDING.finding);
    const after = taken(await desk.note(job.id, { type: 'withdrawn', entry: finding!.id }));
    expect(after.findings[0]).toMatchObject({ withdrawn: true, what: FINDING.finding });
    expect(
      taken(await desk.note(job.id, { type: 'put-back', entry: finding!.id })).findings[0]!.withdrawn,
    ).toBe(false);
  });
  test('sent twice, an entry is recorded once', async () => {
    const job = await desk.jobOf('GF-0424');
    const once = { id: newId(), entry: FINDING };
    taken(await addNote(db, job.id, once, NOW));
    expect(taken(await addNote(db, job.id, once, NOW)).findings).toHaveLength(1);
  });
  test.each([
    [{ ...WORK, work: { ...WORK.work, provenance: null } }, /new, reconditioned, used/],
    [{ ...WORK, work: { ...WORK.work, did: 'refused', reason: ' ' } }, /why it was refused/],
    [{ ...FINDING, finding: { ...FINDING.finding, words: '' } }, /write a few words/],
    [{ type: 'signed', technician: 'Me', head: '0'.repeat(64) }, /cannot be written down this way/],
    [{ type: 'withdrawn', entry: newId() }, /nothing of that kind/],
  ])('%j is refused with a sentence', async (entry, sentence) => {
    const job = await desk.jobOf('GF-0424');
    expect(whyNot(await desk.note(job.id, entry as JobEntry))).toMatch(sentence);
  });
  test('deleted, a job is out of the lists and can be put back', async () => {
    const job = await desk.jobOf('GF-0424');
    taken(await desk.note(job.id, { type: 'deleted', deleted: true }));
    expect(await desk.jobOf('GF-0424')).toBeUndefined();
    expect((await ask(db, { show: 'deleted' })).jobs.map(({ id: one }) => one)).toEqual([job.id]);
    expect(whyNot(await desk.note(job.id, FINDING))).toMatch(/Put it back first/);
    taken(await desk.note(job.id, { type: 'deleted', deleted: false }));
    expect(await desk.jobOf('GF-0424')).toBeDefined();
  });
});

describe('search', () => {
  test('finds what is written anywhere, by the beginning of words, accents or not', async () => {
    const job = await desk.jobOf('GF-0424');
    taken(
      await desk.note(job.id, { ...FINDING, finding: { ...FINDING.finding, words: 'Geräusch am Deckel' } }),
    );
    const tags = async (q: string) => (await ask(db, { q })).jobs.map(({ body }) => body.tag);
    expect(await tags('gerausch')).toEqual(['GF-0424']);
    expect(await tags('library dec')).toEqual(['GF-0424']);
    expect(await tags('0424')).toEqual(['GF-0424']);
    expect(await tags('poppet')).toEqual(['GF-0424']);
    expect(await tags('library loader')).toEqual([]);
    expect(await tags('"*')).toEqual([]);
  });
  const tagsOf = async (query: Partial<JobQuery>) => (await ask(db, query)).jobs.map(({ body }) => body.tag);
  test('lists by what the last test came to, sorts, and turns nonsense into everything', async () => {
    expect(await tagsOf({ verdict: 'weak-supply' })).toEqual([
      'GF-0442',
      'GF-0433',
      'GF-0428',
      'GF-0426',
      'GF-0415',
    ]);
    const tags = await tagsOf({ sort: 'tag', order: 'asc' });
    expect(tags).toEqual([...tags].sort());
    expect(await tagsOf({ sort: 'tag', order: 'desc' })).toEqual([...tags].reverse());
    expect(jobQuerySchema.parse({ show: 'x', sort: '1', page: 'no' })).toEqual({
      q: '',
      from: '',
      to: '',
      kind: '',
      verdict: '',
      technician: '',
      show: 'current',
      sort: 'taken',
      order: 'desc',
      page: 1,
    });
  });
});

describe('who tests', () => {
  test('is whom the settings name, or one of the technicians; nobody else can be named', async () => {
    const job = await desk.jobOf('GF-0425');
    const { technician: id } = await desk.signer();
    expect(whyNot(await startRun(db, job.id, NOW, { technician: newId() }))).toMatch(/technician/);
    const usual = taken(await startRun(db, job.id, NOW));
    expect(usual.context.conditions.technician).toBe((await readSettings(db)).body.technician);
    const other = await desk.jobOf('GF-0424');
    const run = taken(await startRun(db, other.id, NOW, { technician: id }));
    expect(run.context.conditions.technician).toBe('Pell Tarn');
  });
});

describe('signing', () => {
  test('closes the record to all but corrections, until it is opened again with a reason', async () => {
    const job = await desk.jobOf('GF-0412');
    const who = await desk.signer();
    const signed = taken(await signJob(db, job.id, { id: newId(), ...who }, NOW));
    expect(signed.signatures[0]).toMatchObject({ technician: 'Pell Tarn', place: signed.length });
    expect(whyNot(await desk.note(job.id, FINDING))).toMatch(/is signed/);
    expect(whyNot(await startRun(db, job.id, NOW))).toMatch(/is signed/);
    const correction = { id: newId(), ...who, about: null, words: 'The van is number 8.' };
    expect(taken(await correctJob(db, job.id, correction, NOW)).corrections[0]!.what.words).toBe(
      correction.words,
    );
    taken(await desk.note(job.id, { type: 'reopened', reason: 'Back on the bench' }));
    expect(taken(await desk.note(job.id, FINDING)).signed).toBe(false);
    const again = taken(await signJob(db, job.id, { id: newId(), ...who }, NOW));
    expect(again.signatures).toHaveLength(2);
  });
  test('a correction is no one’s without their PIN, and without words there is none', async () => {
    const job = await desk.jobOf('GF-0412');
    const who = await desk.signer();
    const { length } = taken(await signJob(db, job.id, { id: newId(), ...who }, NOW));
    const correction = { id: newId(), ...who, about: null, words: 'The van is number 8.' };
    expect(whyNot(await correctJob(db, job.id, { ...correction, words: ' ' }, NOW))).toMatch(/^Correction/);
    expect(whyNot(await correctJob(db, job.id, { ...correction, pin: '000000' }, NOW))).toMatch(/PIN/);
    expect((await readRecord(db, job.id))!.length).toBe(length);
    expect(whyNot(await signJob(db, job.id, { ...who }, NOW))).toMatch(/^id: /);
    expect(whyNot(await signJob(db, newId(), { id: newId(), ...who }, NOW))).toMatch(/no such job/);
  });
  test('a wrong PIN signs nothing, and five of them bring a pause', async () => {
    const job = await desk.jobOf('GF-0412');
    const { technician } = await desk.signer();
    const wrong = () => signJob(db, job.id, { id: newId(), technician, pin: '0000' }, NOW);
    for (let i = 0; i < 5; i += 1) expect(whyNot(await wrong())).toMatch(/Nothing was recorded/);
    expect(whyNot(await signJob(db, job.id, { id: newId(), technician, pin: '471100' }, NOW))).toMatch(
      /Wait 60 s/,
    );
    const later = new Date(Date.parse(NOW) + 61_000).toISOString();
    expect((await signJob(db, job.id, { id: newId(), technician, pin: '471100' }, later)).ok).toBe(true);
  });
  test('not while a test is running, and the PIN itself is nowhere in the database', async () => {
    const who = await desk.signer();
    const busy = await desk.jobOf('GF-0423');
    expect(whyNot(await signJob(db, busy.id, { id: newId(), ...who }, NOW))).toMatch(/not finished/);
    // Twelve figures: four of them stand in a random key by chance once in some hundred runs.
    const longPin = '471108152342';
    taken(await addTechnician(db, { name: 'Ansa Reeve', pin: longPin, by: who }, NOW));
    const stored = JSON.stringify([await db('technicians'), await db('pins')]);
    expect(stored).toContain('Ansa Reeve');
    expect(stored).not.toContain(longPin);
    expect(await listTechnicians(db)).toContainEqual({ id: who.technician, name: 'Pell Tarn' });
    expect(whyNot(await addTechnician(db, { name: 'Pell Tarn', pin: '123456', by: who }, NOW))).toMatch(
      /there is, or was, a technician of that name/,
    );
    expect(whyNot(await addTechnician(db, { name: 'B', pin: '12345', by: who }, NOW))).toMatch(
      /six digits at least/,
    );
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
          `UPDATE journal SET body = replace(body, '"type":"captured"', '"type":"captureD"')
           WHERE seq = (SELECT min(seq) FROM journal WHERE body LIKE '%"type":"captured"%')`,
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
    const small = desk.file('small.sqlite');
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
    const { id: technician } = taken(await addTechnician(one, { name: 'O. Brack', pin: '471100' }, NOW));
    taken(await addNote(one, job.id, { id: newId(), entry: FINDING }, NOW));
    taken(await signJob(one, job.id, { id: newId(), technician, pin: '471100' }, NOW));
    await one.raw('PRAGMA wal_checkpoint(TRUNCATE)');
    const rows: { seq: number; id: string; hash: string; place: number }[] = await one('journal').where(
      'chain',
      'like',
      'job/%',
    );
    await one.raw('PRAGMA journal_mode = DELETE');
    await one.destroy();
    const whole = readFileSync(small);
    const turned = desk.file('turned.sqlite');
    copyFileSync(small, turned);
    const file = openSync(turned, 'r+');
    let tried = 0;
    for (const row of rows) {
      // A row lies in the file as id … body, seal, in one piece.
      const start = whole.indexOf(`${row.id}job/`);
      const end = whole.indexOf(row.hash, start) + row.hash.length;
      for (let at = start; at < end; at += 1) {
        writeSync(file, Buffer.of(whole[at]! ^ (1 << (at % 7))), 0, 1, at);
        const raw = knex({
          client: 'better-sqlite3',
          connection: { filename: turned },
          useNullAsDefault: true,
        });
        const { alterations } = await verify(raw);
        await raw.destroy();
        writeSync(file, whole, at, 1, at);
        tried += 1;
        const located = alterations.some(({ line }) => line === row.seq);
        if (!located)
          throw new Error(`byte ${at - start} of entry ${row.place}: ${JSON.stringify(alterations)}`);
      }
    }
    closeSync(file);
    expect(tried).toBeGreaterThan(3000);
  });
});

describe('parts changed', () => {
  test('after a finished test: the re-test carries the other readings over and asks for the stale ones only', async () => {
    const job = await desk.jobOf('GF-0421');
    expect(whyNot(await startRetest(db, job.id, NOW))).toMatch(/Nothing has become stale/);
    taken(await desk.note(job.id, WORK));
    const later = new Date(Date.parse(NOW) + 1000).toISOString();
    const run = taken(await startRetest(db, job.id, later));
    const before = (await findRun(db, job.runs[0]!.id))!;
    expect(run).toMatchObject({ continues: before.id, finishedAt: null });
    expect(run.events.length).toBe(before.events.length + 1);
    expect(run.events.at(-2)).toMatchObject({
      type: 'disturbed',
      why: 'Diaphragm',
      opens: ['supply', 'activation'],
    });
    // What was opened is closed and looked at before anything else.
    expect(run.events.at(-1)).toMatchObject({ type: 'added', step: { closing: true, mandatory: true } });
    expect((await findRun(db, before.id))!.finishedAt).toBe(before.finishedAt);
  });
  test('a gauge changed on the shelf since then cannot be carried over', async () => {
    const job = await desk.jobOf('GF-0421');
    taken(await desk.note(job.id, WORK));
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
    const by = await desk.signer();
    const { technician } = by;
    taken(await deleteTechnician(db, technician, true, { by }, '2026-11-24T09:00:00.000Z'));
    expect(await listRemoved(db)).toMatchObject([
      {
        what: 'technician',
        name: 'Pell Tarn',
        path: `/technicians/${technician}`,
        at: '2026-11-24T09:00:00.000Z',
      },
      { what: 'instrument', path: `/instruments/${gauge.id}`, at: NOW },
    ]);
    taken(await deleteInstrument(db, gauge.id, false, NOW));
    expect((await versionsOf(db, 'instrument', gauge.id)).map(({ what }) => what)).toEqual([
      'put back',
      'taken off',
      'calibrated',
      'added',
    ]);
    expect((await listRemoved(db)).map(({ what }) => what)).toEqual(['technician']);
    const early = { ...calibration, due: '2026-11-01' };
    expect(whyNot(await calibrate(db, gauge.id, after.version, early, NOW))).toMatch(/after this one/);
  });
});
