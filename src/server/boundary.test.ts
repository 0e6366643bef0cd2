/** @jest-environment node */
import { unkeptText, unkeptWords } from '@/core/records/text';
import { NO_HASH, sealOf } from '@/core/records/chain';
import { canonicalJson } from '@/core/records/canonical';
import { openDatabase } from './database';
import { Desk, FINDING, newId, taken, WORK, whyNot } from './demo/desk';
import { FIXTURE_NOW as NOW } from './demo/fixture';
import { bodyOf } from './request';
import { exportJob, importJob } from './job-files';
import { addJob } from './jobs';
import { addInstrument, calibrate, listInstruments, replaceInstrument } from './shelf';
import { sha256 } from './journal';
import { addNote } from './notes';
import { appendEvent, findRun } from './runs';
import { signJob } from './technicians';
import { verify } from './verify';

let desk: Desk;
beforeEach(async () => {
  desk = await Desk.open();
});
afterEach(() => desk.close());

describe('text', () => {
  const sent = (body: string) =>
    bodyOf(new Request('http://127.0.0.1/x', { method: 'POST', body: new TextEncoder().encode(body) }));

  test.each([
    [
      'half of a pair',
      '{"job":{"from":"Bus \\ud83d"}}',
      /^job, from: there is a character .* cannot be kept/,
    ],
    ['nothing at all', '{"words":["a","b\\u0000"]}', /^words, 1: /],
    ['in a name', '{"a\\udc00":1}', /^there is a character/],
  ])('with %s is refused where it comes in', async (_what, body, sentence) => {
    await expect(sent(body)).rejects.toThrow(sentence);
  });

  test('of any language, with pairs that are whole, is taken as it is', async () => {
    const body = { from: 'Fähre 🚍', complaint: 'Тормоз\n\tзанят', list: [null, 1, 'ß'] };
    expect(await sent(JSON.stringify(body))).toEqual(body);
    expect(unkeptText(body)).toBeNull();
    expect(unkeptWords([])).toMatch(/^there is/);
  });

  test('in a job file is refused, and nothing is taken in', async () => {
    const job = await desk.jobOf('GF-0421');
    const file = JSON.parse(taken(await exportJob(desk.db, job.id))) as {
      job: string;
      entries: { id: string; place: number; at: string; entry: { job?: { from: string } }; hash: string }[];
    };
    file.entries[0]!.entry.job!.from = 'Bus \ud83d';
    let before = NO_HASH;
    for (const line of file.entries) {
      line.hash = sealOf(`job/${file.job}`, { ...line, body: canonicalJson(line.entry) }, before, sha256);
      before = line.hash;
    }
    const other = await openDatabase(desk.file('other.sqlite'));
    expect(whyNot(await importJob(other, JSON.stringify(file), NOW))).toMatch(
      /cannot be kept.*Nothing was taken in\.$/,
    );
    expect(await other('journal')).toEqual([]);
    await other.destroy();
  });
});

describe('the name of an entry', () => {
  test('sent twice is written once; with something else under it, or in another job, it is refused', async () => {
    const [one, other] = [await desk.jobOf('GF-0421'), await desk.jobOf('GF-0424')];
    const id = newId();
    const add = (job: string, entry: typeof FINDING | typeof WORK) =>
      addNote(desk.db, job, { id, entry }, NOW);
    const first = taken(await add(one.id, FINDING));
    expect(taken(await add(one.id, FINDING)).length).toBe(first.length);
    const louder = { ...FINDING, finding: { ...FINDING.finding, words: 'Louder' } };
    for (const answer of [
      await addNote(desk.db, one.id, { id, entry: louder }, NOW),
      await add(one.id, WORK),
      await add(other.id, FINDING),
    ]) {
      expect(answer.ok ? '' : answer.why.code).toBe('refused');
      expect(whyNot(answer)).toMatch(/name .* stands for something else/);
    }
    expect((await verify(desk.db)).alterations).toEqual([]);
  });

  test('of a signature sent twice is written once', async () => {
    const job = await desk.jobOf('GF-0421');
    const signing = { id: newId(), ...(await desk.signer()) };
    const first = taken(await signJob(desk.db, job.id, signing, NOW));
    expect(taken(await signJob(desk.db, job.id, signing, NOW)).length).toBe(first.length);
  });

  test('of an event with something else under it, or in another test, is refused', async () => {
    const [one, other] = (await desk.db('runs').whereNull('finished_at').limit(2).select('id')) as {
      id: string;
    }[];
    const run = (await findRun(desk.db, one!.id))!;
    const known = run.events.at(-1)!;
    const send = async (id: string, event: object) =>
      appendEvent(
        desk.db,
        id,
        { expectedVersion: (await findRun(desk.db, id))!.events.length, events: [event] },
        NOW,
      );
    expect(taken(await send(one!.id, known))).toEqual(run.events);
    const changed = { ...known, at: '2026-11-21T10:00:00.000Z' };
    for (const answer of [await send(one!.id, changed), await send(other!.id, known)]) {
      expect(answer.ok ? '' : answer.why.code).toBe('refused');
      expect(whyNot(answer)).toMatch(/name .* stands for something else/);
    }
    expect((await findRun(desk.db, one!.id))!.events).toEqual(run.events);
  });
});

test('an event by a clock that is ahead of the records’ own is refused: a wait would be over too soon', async () => {
  const { id } = await desk.db('runs').whereNull('finished_at').first('id');
  const run = (await findRun(desk.db, id))!;
  const at = (ahead_s: number) => new Date(Date.parse(NOW) + ahead_s * 1000).toISOString();
  const send = (ahead_s: number) => {
    const event = { id: newId(), at: at(ahead_s), type: 'acknowledged', step: 'cautions' };
    return appendEvent(desk.db, id, { expectedVersion: run.events.length, events: [event] }, NOW);
  };
  expect(whyNot(await send(61))).toMatch(/clock of this screen is ahead/);
  expect((await findRun(desk.db, id))!.events).toEqual(run.events);
  const soon = await send(60);
  expect(soon.ok ? '' : soon.why.message).not.toMatch(/ahead/);
});

describe('a day that cannot be meant', () => {
  test.each(['0001-01-01', '9999-12-31'])('%s is refused with the field that it stands in', async (day) => {
    const job = await desk.jobOf('GF-0421');
    const intake = { ...job.body, tag: 'DAY-1', promisedOn: day };
    expect(whyNot(await addJob(desk.db, intake, NOW))).toMatch(/^Promised: the year/);
    const [gauge] = await listInstruments(desk.db);
    const { id, version, body } = gauge!;
    const fresh = { ...body, tag: 'DAY-1' };
    expect(whyNot(await addInstrument(desk.db, { ...fresh, calibrationDue: day }, NOW))).toMatch(
      /^Next calibration: the year/,
    );
    expect(
      whyNot(await replaceInstrument(desk.db, id, version, { ...body, calibratedOn: day }, NOW)),
    ).toMatch(/^Calibrated on: the year/);
    const calibration = { on: '2026-11-01', due: null, certificate: '', found: '', correction: null };
    const dated = day > '2026' ? { due: day } : { on: day };
    expect(whyNot(await calibrate(desk.db, id, version, { ...calibration, ...dated }, NOW))).toMatch(
      /the year/,
    );
    expect((await addInstrument(desk.db, fresh, NOW)).ok).toBe(true);
  });
});
