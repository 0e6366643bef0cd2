/** @jest-environment node */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import knex, { type Knex } from 'knex';
import type { RunEvent } from '@/core/contract/events';
import type { Step } from '@/core/contract/steps';
import { FAMILIES } from '@/core/families/registry';
import { seeded } from '@/core/numeric/chance';
import { rehearse } from '@/core/procedure/rehearse';
import { judgedRun } from '@/core/records/judged-run';
import { profiles as demoProfiles } from '../demo/profiles';
import { instruments as demoInstruments } from '../demo/shelf';
import { openDatabase } from '../database';
import { indexJob, INDEX_VERSION } from '../job-index';
import { findJob } from '../jobs';
import { readRecord } from '../record';
import { findRun, usualRig } from '../runs';
import { listInstruments, listProfiles, readSettings } from '../shelf';
import { verify } from '../verify';
import { firstTables } from './001-first-tables';

const folder = mkdtempSync(path.join(tmpdir(), 'hard-pedal-migrations-'));
const file = path.join(folder, 'old.sqlite');
const [PROFILE, JOB, RUN] = ['11', '22', '33'].map((n) => `00000000-0000-4000-8000-0000000000${n}`) as [
  string,
  string,
  string,
];
const family = FAMILIES['remote-vacuum'];
const AT = '2026-11-20T08:00:00.000Z';

/** A step as it was written then: the vacuum was the one source, and nothing else was asked for before it. */
const stepThen = ({ state, gates: _gates, fluid: _fluid, attended_s: _attended, ...step }: Step) => ({
  ...step,
  vacuum: state.vacuum,
});

/** An event as it was written then. */
function eventThen(event: RunEvent): object {
  if (event.type === 'source-set') {
    const { set, ...rest } = event;
    return { ...rest, vacuum: set.to };
  }
  if (event.type !== 'captured') return event;
  const { by: _by, ...rest } = event;
  return rest;
}

/** A database as the first version of the application left it. */
async function oldDatabase(): Promise<number> {
  const db: Knex = knex({ client: 'better-sqlite3', connection: { filename: file }, useNullAsDefault: true });
  await db.schema.createTable('knex_migrations', (t) => {
    t.increments('id');
    t.string('name');
    t.integer('batch');
    t.timestamp('migration_time');
  });
  await db('knex_migrations').insert({ name: '001-first-tables', batch: 1, migration_time: AT });
  await firstTables(db);
  // Instruments had no correction table then.
  const old = demoInstruments.map(({ correction: _none, ...gauge }) => gauge);
  const profile = demoProfiles.tollan;
  await db('profiles').insert({
    id: PROFILE,
    version: 3,
    kind: 'remote-vacuum',
    name: profile.name,
    body: JSON.stringify(profile),
  });
  for (const [i, gauge] of old.entries())
    await db('instruments').insert({ id: `i${i}`, version: 2, tag: gauge.tag, body: JSON.stringify(gauge) });
  const job = {
    tag: 'OLD-1',
    kind: 'remote-vacuum',
    profileId: PROFILE,
    from: 'Tug',
    complaint: 'Creeps',
    fluid: 'dot4',
    promisedOn: null,
  };
  await db('jobs').insert({
    id: JOB,
    version: 1,
    tag: 'OLD-1',
    profile_id: PROFILE,
    created_at: AT,
    body: JSON.stringify(job),
  });
  const rig = usualRig(family.ports, demoInstruments, 'dot4');
  const conditions = {
    barometer_Pa: 101_325,
    temperature_K: 293.15,
    supplyKind: 'pump' as const,
    supplyHealth_Pa: 60_955,
    technician: 'P. Tarn',
    day: '2026-11-20',
    thresholds: { meets: 0.95, fails: 0.05 },
  };
  const context = {
    procedure: family.procedure(profile, rig),
    profile,
    rig,
    shelf: demoInstruments,
    conditions,
  };
  const truth = {
    parameters: family.healthy(profile).values,
    supply_Pa: 67_728,
    gauges: {},
    signs: {},
    noise_steps: 0,
  };
  const events = rehearse(family, context, truth, { random: seeded(3), startAt: AT });
  const oldContext = {
    ...context,
    procedure: { ...context.procedure, steps: context.procedure.steps.map(stepThen) },
    shelf: old,
    rig: usualRig(family.ports, old as never, 'dot4'),
  };
  await db('runs').insert({
    id: RUN,
    job_id: JOB,
    kind: 'remote-vacuum',
    context: JSON.stringify(oldContext),
    started_at: AT,
    finished_at: events.at(-1)!.at,
  });
  for (const [i, event] of events.entries())
    await db('run_events').insert({
      run_id: RUN,
      seq: i + 1,
      id: event.id,
      recorded_at: event.at,
      body: JSON.stringify(eventThen(event)),
    });
  await db.destroy();
  return events.length;
}

describe('a database of the first version', () => {
  let events = 0;
  beforeAll(async () => {
    events = await oldDatabase();
  });
  afterAll(() => rmSync(folder, { recursive: true, force: true }));

  test('opens with everything that was in it, as a sealed record', async () => {
    const db = await openDatabase(file);
    const run = (await findRun(db, RUN))!;
    expect(run.events).toHaveLength(events);
    // With every gauge that it was read on, where it stood, and what lay on the shelf beside.
    const tags = (of: readonly { tag: string }[]) => of.map(({ tag }) => tag);
    const { rig, shelf } = run.context;
    const tagged = (of: typeof rig) =>
      Object.fromEntries(Object.entries(of).map(([port, gauges]) => [port, tags(gauges)]));
    expect(tagged(rig)).toEqual(tagged(usualRig(FAMILIES['remote-vacuum'].ports, demoInstruments, 'dot4')));
    expect(tags(shelf)).toEqual(tags(demoInstruments));
    expect(judgedRun(run).assessment.call).toBe('healthy');
    expect(await findJob(db, JOB)).toMatchObject({ body: { tag: 'OLD-1' }, call: 'healthy', signed: false });
    expect((await readRecord(db, JOB))!.length).toBe(2 + events);
    expect((await listProfiles(db)).map(({ id }) => id)).toEqual([PROFILE]);
    expect((await listInstruments(db)).every(({ body }) => body.correction === null)).toBe(true);
    expect((await readSettings(db)).version).toBe(0);
    expect((await verify(db)).alterations).toEqual([]);
    await db.destroy();
  });
  test('opened again, it is left as it is; an outdated index is made anew', async () => {
    const db = await openDatabase(file);
    const seals = await db('journal').orderBy('seq').select('hash');
    await db('jobs').update({ headline: 'stale', call: 'faulty' });
    await db('derived').update({ version: INDEX_VERSION - 1 });
    await db.destroy();
    const again = await openDatabase(file);
    expect((await findJob(again, JOB))!.call).toBe('healthy');
    expect(await again('journal').orderBy('seq').select('hash')).toEqual(seals);
    await indexJob(again, (await readRecord(again, JOB))!);
    expect((await verify(again)).alterations).toEqual([]);
    await again.destroy();
  });
});
