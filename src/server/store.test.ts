import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Knex } from 'knex';
import { portName } from '@/core/families/port-names';
import { FAMILIES } from '@/core/families/registry';
import type { FluidKind } from '@/core/fluid/kinds';
import type { Quantity } from '@/core/quantities/units';
import type { RunEvent } from '@/core/contract/events';
import { seeded } from '@/core/numeric/chance';
import { rehearse, type BenchTruth } from '@/core/procedure/rehearse';
import type { StoredRun } from '@/core/records/views';
import { judgedRun, stateOf } from '@/core/records/judged-run';
import { jobQuerySchema } from '@/core/records/job-query';
import { searchJobs } from './job-list';
import { benchNow } from './bench';
import { cases } from './demo/cases';
import { seedDemo } from './demo/seed';
import { openDatabase } from './database';
import { seededDatabase } from './demo/fixture';
import { foreignRequest } from './loopback';
import { verify } from './verify';
import { addJob, findJob, replaceJob } from './jobs';
import { addNote } from './notes';
import { MIGRATION_NAMES } from './migrations';
import { appendEvent, findRun, openRuns, startRun, usualRig } from './runs';
import { portChoices } from './instrument-choices';
import {
  addProfile,
  findProfile,
  instrumentByTag,
  listInstruments,
  listProfiles,
  readSettings,
  replaceProfile,
  versionsOf,
  writeSettings,
} from './shelf';

let folder: string;
let db: Knex;
const NOW = '2026-11-23T10:00:00.000Z';

beforeEach(async () => {
  folder = mkdtempSync(path.join(tmpdir(), 'hard-pedal-unit-'));
  db = await seededDatabase(path.join(folder, 'test.sqlite'));
});

afterEach(async () => {
  await db.destroy();
  rmSync(folder, { recursive: true, force: true });
});

/** When a test was begun that is over by now. */
const MORNING = '2026-11-23T06:00:00.000Z';

async function freshRun() {
  const job = (await listJobs(db)).find(({ body }) => body.tag === 'GF-0425')!;
  const run = await startRun(db, job.id, NOW);
  if (!run.ok) throw new Error(run.why.message);
  return run.value;
}

/** Does all that comes before an item, or all but closing the run. */
async function broughtTo(run: StoredRun, item: string | null): Promise<readonly RunEvent[]> {
  const truth: BenchTruth = {
    parameters: FAMILIES[run.kind].healthy(run.context.profile).values,
    supply_Pa: 67_728,
    gauges: {},
    signs: {},
    noise_steps: 0,
  };
  const random = seeded(run.events.length + 1);
  const options = { random, startAt: MORNING, from: run.events, until: item ?? undefined };
  const events = rehearse(FAMILIES[run.kind], run.context, truth, options).filter(
    ({ type }) => type !== 'finished',
  );
  const answer = await appendEvent(db, run.id, { expectedVersion: run.events.length, events }, NOW);
  if (!answer.ok) throw new Error(answer.why.message);
  return answer.value;
}

const listJobs = async (all: Knex) => (await searchJobs(all, jobQuerySchema.parse({}))).jobs;

let count = 0;
const id = () => `00000000-0000-4000-8000-${String(++count).padStart(12, '0')}`;
const acknowledged = (): RunEvent => ({ id: id(), at: NOW, type: 'acknowledged', step: 'cautions' });
const captured = (change: object): RunEvent =>
  ({
    id: id(),
    at: NOW,
    type: 'captured',
    item: 'zero.G-11',
    value_SI: 0,
    typed: '0',
    by: 'typed',
    instrument: 'G-11',
    confirmedUnlikely: false,
    ...change,
  }) as RunEvent;

describe('the database', () => {
  test('is durable at power loss: WAL with synchronous=FULL, foreign keys on', async () => {
    const pragma = async (name: string) =>
      Object.values((await db.raw(`pragma ${name}`))[0] as object)[0] as unknown;
    expect(await pragma('journal_mode')).toBe('wal');
    expect(await pragma('synchronous')).toBe(2);
    expect(await pragma('foreign_keys')).toBe(1);
  });
  test('every migration has run, once, and a second start changes nothing', async () => {
    const again = await openDatabase(path.join(folder, 'test.sqlite'));
    const names = (await again('knex_migrations').select('name')).map(({ name }) => name as string);
    await again.destroy();
    expect(names).toEqual(MIGRATION_NAMES);
  });
});

describe('a run', () => {
  test('an event sent twice is recorded once', async () => {
    const run = await freshRun();
    const event = acknowledged();
    await appendEvent(db, run.id, { expectedVersion: 0, events: [event] }, NOW);
    const twice = await appendEvent(db, run.id, { expectedVersion: 0, events: [event] }, NOW);
    expect(twice).toEqual({ ok: true, value: [event] });
  });
  test('a booster that names no fluid gets the gauges of one: what two of them hold must not meet in its line', async () => {
    const shelf = (await listInstruments(db)).map(({ body }) => body);
    const output = { id: 'output', quantity: 'pressure' } as const;
    const tags = (fluid: FluidKind | null) => usualRig([output], shelf, fluid).output!.map(({ tag }) => tag);
    expect(tags('mineral')).toEqual(['C-83', 'C-84']);
    expect(tags(null)).toEqual(['G-21', 'G-22']);
  });
  test('a gauge is kept as wetted by the fluid that it was first read under, and is not connected to another', async () => {
    const run = await freshRun();
    const dry = (await instrumentByTag(db, 'T-05'))!;
    expect(dry.body.fluid).toBeNull();
    const soFar = await broughtTo(run, 'bypass.1.input');
    const event = captured({ item: 'bypass.1.input', instrument: 'T-05', value_SI: 10e5, typed: '10' });
    const version = { expectedVersion: soFar.length };
    const answer = await appendEvent(
      db,
      run.id,
      { ...version, events: [{ ...event, confirmedUnlikely: true }] },
      NOW,
    );
    expect(answer.ok).toBe(true);
    const wet = (await instrumentByTag(db, 'T-05'))!;
    expect(wet.body).toEqual({ ...dry.body, fluid: 'dot4' });
    expect((await versionsOf(db, 'instrument', wet.id))[0]).toMatchObject({ what: 'changed' });
    const job = (await findJob(db, run.jobId))!;
    const profile = (await findProfile(db, job.body.profileId))!;
    const mineral = { ...(profile.body as object), fluid: 'mineral', name: 'Tollan on mineral oil' };
    const other = await addProfile(db, mineral, NOW);
    const taken = await addJob(
      db,
      { ...job.body, tag: 'GF-0999', profileId: other.ok ? other.value.id : '', fluid: 'mineral' },
      NOW,
    );
    const refused = await startRun(db, taken.ok ? taken.value.id : '', NOW);
    expect(!refused.ok && refused.why.message).toMatch(
      // On the output the pack has gauges of its own that hold mineral oil.
      /^G-11, G-12 and their hoses hold DOT 4 .*takes Mineral oil/,
    );
  });
  test('an event made on an outdated view is refused with what happened meanwhile', async () => {
    const run = await freshRun();
    const first = acknowledged();
    await appendEvent(db, run.id, { expectedVersion: 0, events: [first] }, NOW);
    const late = await appendEvent(db, run.id, { expectedVersion: 0, events: [captured({})] }, NOW);
    expect(late).toMatchObject({ ok: false, why: { code: 'conflict', current: [first] } });
  });
  test.each([
    ['beyond full scale', captured({ value_SI: 11e5 }), /full scale of G-11/],
    ['an unknown gauge', captured({ instrument: 'G-99' }), /no gauge “G-99”/],
    ['not an event', { type: 'captured' }, /./],
    ['no number', captured({ value_SI: Number.NaN }), /./],
    [
      'unlikely, unconfirmed',
      captured({ item: 'switch.input', instrument: 'G-12', value_SI: 120e5 }),
      /no known fault gives 120/,
    ],
  ])('%s is refused with a sentence', async (_name, event, message) => {
    const run = await freshRun();
    const item = ('item' in event && event.item) || 'switch.input';
    const events = await broughtTo(run, item);
    const answer = await appendEvent(db, run.id, { expectedVersion: events.length, events: [event] }, NOW);
    expect(answer.ok).toBe(false);
    expect(!answer.ok && answer.why.message).toMatch(message);
    expect((await findRun(db, run.id))!.events).toHaveLength(events.length);
  });
  test('a part is changed only where its lines were read at zero, and the run ends only with them closed', async () => {
    const run = await freshRun();
    const soFar = await broughtTo(run, 'safe.input');
    const work = {
      part: 'diaphragm',
      did: 'replaced',
      reason: '',
      provenance: 'new',
      serial: '',
    };
    const change = () => addNote(db, run.jobId, { id: id(), entry: { type: 'work', work } }, NOW);
    const refused = await change();
    expect(!refused.ok && refused.why.message).toMatch(/may stand at vacuum supply; activation/);
    // Nor by a way round the job sheet.
    const disturbed = { id: id(), at: NOW, type: 'disturbed', steps: ['zeros'], rezero: false, why: 'x' };
    const around = await appendEvent(db, run.id, { expectedVersion: soFar.length, events: [disturbed] }, NOW);
    expect(!around.ok && around.why.message).toMatch(/written down on its job sheet/);
    await broughtTo((await findRun(db, run.id))!, null);
    expect(await change()).toMatchObject({ ok: true });
    const opened = (await findRun(db, run.id))!;
    expect(opened.events.at(-1)).toMatchObject({ type: 'added', step: { closing: true } });
    const finish = await appendEvent(
      db,
      run.id,
      { expectedVersion: opened.events.length, events: [{ id: id(), at: NOW, type: 'finished' }] },
      NOW,
    );
    expect(!finish.ok && finish.why.message).toMatch(/made safe/);
  });
  test('what another process wrote meanwhile counts: an entry by one statement is written only where all is as it was held', async () => {
    const run = await freshRun();
    const soFar = await broughtTo(run, 'bypass.1.input');
    const other = await openDatabase(path.join(folder, 'test.sqlite'));
    const read = (value_SI: number) =>
      captured({ item: 'bypass.1.input', instrument: 'G-12', value_SI, typed: String(value_SI / 1e5) });
    const send = (to: Knex, version: number, event: RunEvent) =>
      appendEvent(to, run.id, { expectedVersion: version, events: [event] }, NOW);
    const [first, second, third] = [read(10e5), read(10.2e5), read(10.4e5)];
    // The gauge is wetted by the first: the longer way. The second is the shorter one, here and there.
    expect((await send(db, soFar.length, first)).ok).toBe(true);
    expect((await send(db, soFar.length + 1, second)).ok).toBe(true);
    expect((await send(other, soFar.length + 2, third)).ok).toBe(true);
    const late = await send(db, soFar.length + 2, read(10.6e5));
    expect(late).toMatchObject({ ok: false, why: { code: 'conflict' } });
    expect(!late.ok && 'current' in late.why && (late.why.current as RunEvent[]).at(-1)).toEqual(third);
    expect(await send(db, soFar.length + 2, second)).toMatchObject({ ok: true });
    const events = (await findRun(db, run.id))!.events;
    expect(events.slice(-3)).toEqual([first, second, third]);
    // Nothing is added to what was deleted behind its back.
    await other('jobs').where({ id: run.jobId }).update({ deleted: true });
    expect((await send(db, events.length, read(10.8e5))).ok).toBe(false);
    await other('jobs').where({ id: run.jobId }).update({ deleted: false });
    expect((await verify(other)).alterations).toEqual([]);
    await other.destroy();
  });
  test('two screens at the same moment: one is recorded, the other is told', async () => {
    const run = await freshRun();
    const both = await Promise.all(
      [0, 1].map(() => appendEvent(db, run.id, { expectedVersion: 0, events: [acknowledged()] }, NOW)),
    );
    expect(both.filter(({ ok }) => ok)).toHaveLength(1);
    expect((await findRun(db, run.id))!.events).toHaveLength(1);
  });
  test('a finished run takes nothing more', async () => {
    const job = (await listJobs(db)).find(({ body }) => body.tag === 'GF-0412')!;
    const run = (await findRun(db, job.runs[0]!.id))!;
    const late = await appendEvent(
      db,
      run.id,
      { expectedVersion: run.events.length, events: [acknowledged()] },
      NOW,
    );
    expect(!late.ok && late.why.message).toBe('This run is finished; nothing more can be added to it.');
  });
  test('is judged for ever by what it was made under: a later change of profile leaves it alone', async () => {
    const run = await freshRun();
    const before = (await findRun(db, run.id))!.context;
    await db('profiles').update({ body: '{}' });
    await db('instruments').delete();
    expect((await findRun(db, run.id))!.context).toEqual(before);
  });
  test('cannot start without a gauge on every port', async () => {
    await db('instruments').where('tag', 'V-31').delete();
    const jobs = await listJobs(db);
    const refused = async (kind: string) => {
      const answer = await startRun(db, jobs.find(({ body }) => body.kind === kind)!.id, NOW);
      return !answer.ok && answer.why.message;
    };
    expect(await refused('remote-vacuum')).toMatch(/No gauge on the shelf stands on: Vacuum supply/);
    // A vehicle is tested with what is in the bag; without its vacuum gauge it is not.
    expect(await refused('vacuum-vehicle')).toMatch(
      /No gauge on the shelf stands on: Vacuum at the booster\. /,
    );
  });
});

describe('shelf and jobs', () => {
  test('a change on an outdated version is refused and shows both', async () => {
    const job = (await listJobs(db))[0]!;
    const mine = await replaceJob(db, job.id, job.version, { ...job.body, from: 'A' }, NOW);
    expect(mine.ok).toBe(true);
    const late = await replaceJob(db, job.id, job.version, { ...job.body, from: 'B' }, NOW);
    expect(late).toMatchObject({ ok: false, why: { code: 'conflict', current: { body: { from: 'A' } } } });
    const nobody = await replaceJob(db, id(), 1, { ...job.body, from: 'C' }, NOW);
    expect(nobody).toMatchObject({ ok: false, why: { code: 'not-found' } });
  });
  test('a job of a profile that is not there is refused at the field', async () => {
    const job = (await listJobs(db))[0]!;
    const answer = await addJob(db, { ...job.body, profileId: id() }, NOW);
    expect(answer).toMatchObject({
      ok: false,
      why: { fields: { profileId: expect.stringMatching(/not on the shelf/) as string } },
    });
  });
  test('an unknown kind of profile is refused', async () => {
    expect(await addProfile(db, { kind: 'steam' }, NOW)).toMatchObject({
      ok: false,
      why: { code: 'invalid' },
    });
  });
  test('a profile is changed at the version that was seen, by what is a profile, and its versions stay', async () => {
    const { id: which, version, body } = (await listProfiles(db))[0]!;
    expect(await replaceProfile(db, which, version, { kind: 'steam' }, NOW)).toMatchObject({
      ok: false,
      why: { code: 'invalid' },
    });
    const next = { ...body, name: 'Another name' };
    expect(await replaceProfile(db, which, version, next, NOW)).toMatchObject({
      ok: true,
      value: { version: version + 1, body: { name: 'Another name' } },
    });
    expect(await replaceProfile(db, which, version, body, NOW)).toMatchObject({
      ok: false,
      why: { code: 'conflict' },
    });
    const versions = await versionsOf(db, 'profile', which);
    expect(versions.map(({ what }) => what)).toEqual(['changed', 'added']);
    expect(versions[0]).toMatchObject({ version: 2, at: NOW, body: { name: 'Another name' } });
    expect(versions[1]!.body).toEqual(body);
  });
  test('settings keep a version of their own', async () => {
    const { version, body } = await readSettings(db);
    expect((await writeSettings(db, version, { ...body, altitude_m: 500 }, NOW)).ok).toBe(true);
    expect(await writeSettings(db, version, body, NOW)).toMatchObject({
      ok: false,
      why: { code: 'conflict' },
    });
    expect(await writeSettings(db, version + 1, { ...body, meets: 0.4 }, NOW)).toMatchObject({
      ok: false,
      why: { code: 'invalid' },
    });
  });
});

describe('the demo world', () => {
  test('has seven runs half done: a unit with the vacuum on, a vehicle with its engine idling, one with its pump on and charged, a car with both circuits charged, two circuits and a motor on a bench, a shuttle with its ignition on', async () => {
    const now = await benchNow(db);
    expect(now.map(({ stands, live }) => [stands, live.sources])).toEqual([
      ['Boost ratio', { vacuum: 'on' }],
      ['Two forces, with assist', expect.objectContaining({ engine: 'idle' })],
      ['Switched on, switched off', expect.objectContaining({ power: 'on', charge: 'full' })],
      ['Cut-in', expect.objectContaining({ engine: 'idle' })],
      ['Metering', expect.objectContaining({ pump: 'on', charge: 'full' })],
      ['Assist and current', { power: 'on' }],
      ['Four wheels at their targets', expect.objectContaining({ ignition: 'on', power: 'on' })],
    ]);
    // Every gauge of each of them is in use, so that none is taken for another.
    const [remote] = now;
    const { rig } = (await findRun(db, remote!.runId))!.context;
    expect(remote!.gauges).toEqual(Object.values(rig).flatMap((own) => own.map(({ tag }) => tag)));
    expect(remote!.gauges).toEqual(expect.arrayContaining(['G-11', 'G-12', 'G-22', 'V-31', 'V-41']));
  });
  test('each finished run comes out as what is hidden in it', async () => {
    const calls = Object.fromEntries(
      await Promise.all(
        (await listJobs(db))
          .filter(({ runs }) => runs[0]?.finishedAt)
          .map(
            async (job) =>
              [job.body.tag, judgedRun((await findRun(db, job.runs[0]!.id))!).assessment.call] as const,
          ),
      ),
    );
    expect(calls).toMatchObject({
      'GF-0412': 'healthy',
      'GF-0442': 'weak-supply',
      'GF-0443': 'faulty',
      'GF-0415': 'weak-supply',
      'GF-0418': 'faulty',
      'GF-0421': 'faulty',
    });
    expect(calls['GF-0419']).not.toBe('faulty');
  });
  test('is made once: a second time leaves what is there', async () => {
    expect(await seedDemo(db, new Date(NOW))).toBe(false);
    expect(await listJobs(db)).toHaveLength(cases.length);
  });
  test('every stored run reads back as a state, every instrument by its schema', async () => {
    for (const run of await openRuns(db)) expect(stateOf(run).version).toBe(run.events.length);
    expect((await listInstruments(db)).length).toBeGreaterThan(5);
    expect(await findJob(db, 'none')).toBeNull();
    expect(Object.keys(FAMILIES)).toContain('remote-vacuum');
  });
});

describe('who may ask', () => {
  test.each([
    ['127.0.0.1:3000', null, true],
    ['localhost:3000', 'http://localhost:3000', true],
    ['[::1]:3000', 'http://[::1]:3000', true],
    [null, null, false],
    ['bench.example', null, false],
    ['127.0.0.1.evil.example', null, false],
    ['127.0.0.1:3000', 'http://evil.example', false],
    ['127.0.0.1:3000', 'http://127.0.0.1:4000', false],
    ['127.0.0.1:3000', 'null', false],
  ])('host %s, origin %s: %s', (host, origin, allowed) => {
    const said = Object.entries({ host, origin }).filter(([, value]) => value !== null) as [string, string][];
    expect(foreignRequest(new Headers(said), false) === null).toBe(allowed);
  });
  const followed = { 'sec-fetch-mode': 'navigate', 'sec-fetch-dest': 'document' };
  test.each([
    ['the screen itself', 'same-origin', {}, true, true],
    ['an address that was typed in', 'none', followed, true, true],
    ['a link that was followed', 'cross-site', followed, true, false],
    ['a picture', 'cross-site', { 'sec-fetch-mode': 'no-cors', 'sec-fetch-dest': 'image' }, false, false],
    ['a frame', 'cross-site', { 'sec-fetch-mode': 'navigate', 'sec-fetch-dest': 'iframe' }, false, false],
    ['another port', 'same-site', {}, false, false],
  ])('%s, %s', (_what, site, more, page, read) => {
    const headers = new Headers({ host: '127.0.0.1:3000', 'sec-fetch-site': site, ...more });
    expect([true, false].map((isPage) => foreignRequest(headers, isPage) === null)).toEqual([page, read]);
  });
});

describe('units of another family', () => {
  const profileOf = async (kind: string) => (await listProfiles(db)).find((one) => one.kind === kind)!;
  const intake = async (kind: 'remote-vacuum' | 'rod-servo', profileKind: string) => ({
    tag: 'MIXED',
    kind,
    profileId: (await profileOf(profileKind)).id,
    from: '',
    complaint: '',
    fluid: 'unknown' as const,
    promisedOn: null,
  });
  test('a job whose kind is not its profile’s is refused at the field', async () => {
    const refused = await addJob(db, await intake('remote-vacuum', 'rod-servo'), NOW);
    expect(refused).toMatchObject({
      ok: false,
      why: { fields: { profileId: 'That profile is of another kind of unit.' } },
    });
  });
  test('its rig takes from a port only the gauges that read what is read there', async () => {
    const job = await addJob(db, await intake('rod-servo', 'rod-servo'), NOW);
    if (!job.ok) throw new Error(job.why.message);
    const run = await startRun(db, job.value.id, NOW);
    if (!run.ok) throw new Error(run.why.message);
    const tags = Object.fromEntries(
      Object.entries(run.value.context.rig).map(([port, gauges]) => [port, gauges.map(({ tag }) => tag)]),
    );
    expect(tags).toEqual({ input: ['G-11', 'G-12'], output: ['L-51'], supply: ['V-31'], clock: ['W-61'] });
    expect(run.value.context.procedure.id).toBe('rod-servo-bench');
  });
  test('the demo’s servo loses its tank by the non-return valve, and the run says so', async () => {
    const lorry = (await listJobs(db)).find(({ body }) => body.tag === 'GF-0422')!;
    const run = (await findRun(db, lorry.runs[0]!.id))!;
    const { results, assessment } = judgedRun(run);
    expect(assessment.call).toBe('faulty');
    const failing = results.filter(({ verdict }) => verdict === 'fails').map((one) => one.id);
    expect(failing).toEqual(expect.arrayContaining(['line-clamped', 'static-loss', 'standing-loss']));
    expect(results.find((one) => one.id === 'full-force')!.verdict).toBe('meets');
  });
  test('ports that families share are offered under both names', () => {
    const choices = new Map(portChoices().map(({ value, label }) => [value, label]));
    expect(choices.get('output')).toBe(
      'Fluid out / Rod force / Pressure of the bench master / Brake circuit 1',
    );
    expect(choices.get('activation')).toBe('Activation');
    expect(choices.get('clock')).toBe('Stopwatch');
    expect(choices.get('supply-2')).toBe('Accumulator, circuit 2 / Accumulator, rear circuit');
    // What a gauge reads tells which of them it stands on.
    expect(['pressure', 'force'].map((of) => portName('output', of as Quantity))).toEqual([
      'Fluid out / Pressure of the bench master / Brake circuit 1',
      'Rod force',
    ]);
  });
});
