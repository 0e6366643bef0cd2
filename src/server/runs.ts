import { randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import { z } from 'zod';
import { FAMILIES } from '@/core/families/registry';
import type { Instrument } from '@/core/metrology/instrument';
import { checkCapture } from '@/core/procedure/check-capture';
import { runEventSchema, type RunEvent } from '@/core/procedure/events';
import { instrumentsOf, zeroGate } from '@/core/procedure/measured-item';
import { findItem } from '@/core/procedure/procedure';
import { admitEvent, reduceRun, runRefusalSentence, type RunState } from '@/core/procedure/run';
import { refusalSentence } from '@/core/quantities/refusal';
import { conditionsFrom } from '@/core/records/settings';
import type { StoredRun } from '@/core/records/views';
import type { Rig, RunContext } from '@/core/twin/family';
import { findJob } from './jobs';
import { done, invalid, refused, type Outcome } from './outcome';
import { listInstruments, listProfiles, readSettings } from './shelf';

/** The bench's gauges by the port they usually stand on. */
export function usualRig(ports: readonly { id: string }[], shelf: readonly Instrument[]): Rig {
  return Object.fromEntries(ports.map(({ id }) => [id, shelf.filter((gauge) => gauge.usualPort === id)]));
}

/**
 * Starts a bench test. Profile, gauges, conditions and steps are kept with the run as they are now: a run is judged
 * for ever by what it was made under.
 */
export async function startRun(db: Knex, jobId: string, now: string): Promise<Outcome<StoredRun>> {
  const job = await findJob(db, jobId);
  const profile = job && (await listProfiles(db)).find(({ id }) => id === job.body.profileId);
  if (!job || !profile) return refused({ code: 'not-found', message: 'There is no such job.' });
  const family = FAMILIES[profile.kind];
  const shelf = (await listInstruments(db)).map(({ body }) => body);
  const rig = usualRig(family.ports, shelf);
  const bare = family.ports.filter(({ id }) => rig[id]!.length === 0).map(({ name }) => name);
  if (bare.length > 0) {
    return invalid([
      {
        path: ['instruments'],
        message: `No gauge on the shelf stands on: ${bare.join(', ')}. Add one on the Shelf.`,
      },
    ]);
  }
  const conditions = conditionsFrom((await readSettings(db)).body, now.slice(0, 10));
  const procedure = family.procedure(profile.body, rig);
  const context: RunContext<unknown> = { procedure, profile: profile.body, rig, shelf, conditions };
  const run: StoredRun = {
    id: randomUUID(),
    jobId,
    kind: profile.kind,
    context,
    events: [],
    startedAt: now,
    finishedAt: null,
  };
  await db('runs').insert({
    id: run.id,
    job_id: jobId,
    kind: run.kind,
    context: JSON.stringify(context),
    started_at: now,
    finished_at: null,
  });
  return done(run);
}

interface RunRow {
  id: string;
  job_id: string;
  kind: StoredRun['kind'];
  context: string;
  started_at: string;
  finished_at: string | null;
}

const runFrom = (row: RunRow, events: RunEvent[]): StoredRun => ({
  id: row.id,
  jobId: row.job_id,
  kind: row.kind,
  context: JSON.parse(row.context) as RunContext<unknown>,
  events,
  startedAt: row.started_at,
  finishedAt: row.finished_at,
});

async function eventsOf(db: Knex, runId: string): Promise<RunEvent[]> {
  const rows = await db('run_events').where({ run_id: runId }).orderBy('seq').select('body');
  return rows.map(({ body }) => JSON.parse(body) as RunEvent);
}

export async function findRun(db: Knex, id: string): Promise<StoredRun | null> {
  const row = await db<RunRow>('runs').where({ id }).first();
  return row ? runFrom(row, await eventsOf(db, id)) : null;
}

/** Runs not yet finished, oldest first. */
export async function openRuns(db: Knex): Promise<StoredRun[]> {
  const rows = await db<RunRow>('runs').whereNull('finished_at').orderBy('started_at');
  return Promise.all(rows.map(async (row) => runFrom(row, await eventsOf(db, row.id))));
}

const appendSchema = z.strictObject({ expectedVersion: z.int().min(0), event: runEventSchema });

/**
 * Adds one event to a run: one small transaction, acknowledged only after it is on disk. An event sent twice is
 * recorded once; an event made on an outdated view of the run is refused together with what happened meanwhile.
 */
export async function appendEvent(
  db: Knex,
  runId: string,
  input: unknown,
  now: string,
): Promise<Outcome<RunEvent[]>> {
  const parsed = appendSchema.safeParse(input);
  if (!parsed.success) return invalid(parsed.error.issues);
  const { event, expectedVersion } = parsed.data;
  return db.transaction(async (trx) => {
    const row = await trx<RunRow>('runs').where({ id: runId }).first();
    if (!row) return refused({ code: 'not-found', message: 'There is no such run.' });
    const run = runFrom(row, await eventsOf(trx, runId));
    if (run.events.some(({ id }) => id === event.id)) return done([...run.events]);
    if (run.events.length !== expectedVersion) {
      const message =
        'Another screen added to this run first. What you entered is kept here; nothing was recorded twice.';
      return refused({ code: 'conflict', message, current: run.events });
    }
    const refusal = refusalOf(run, event);
    if (refusal) return invalid([{ path: ['event'], message: refusal }]);
    await insertEvents(trx, runId, [event], run.events.length, now);
    return done([...run.events, event]);
  });
}

/** Writes events behind those already there, and closes the run with its last one. */
export async function insertEvents(
  db: Knex,
  runId: string,
  events: readonly RunEvent[],
  after: number,
  now: string,
): Promise<void> {
  for (const [i, event] of events.entries()) {
    await db('run_events').insert({
      run_id: runId,
      seq: after + i + 1,
      id: event.id,
      recorded_at: now,
      body: JSON.stringify(event),
    });
    if (event.type === 'finished') await db('runs').where({ id: runId }).update({ finished_at: event.at });
  }
}

/** The state of a stored run. */
export function stateOf(run: StoredRun): RunState {
  const { procedure, rig, shelf } = run.context;
  return reduceRun(procedure, run.events, zeroGate(instrumentsOf(rig, shelf)));
}

function refusalOf(run: StoredRun, event: RunEvent): string | null {
  const state = stateOf(run);
  const { procedure, rig, shelf } = run.context;
  const refusal = admitEvent(procedure, state, event);
  if (refusal) return runRefusalSentence(refusal);
  if (event.type !== 'captured') return null;
  const item = findItem(procedure, event.item)?.item;
  const gauge = instrumentsOf(rig, shelf).get(event.instrument);
  if (item?.kind !== 'reading' || !gauge) return `There is no gauge “${event.instrument}” on this bench.`;
  const problem = checkCapture(FAMILIES[run.kind], run.context, state, item, gauge, event.value_SI);
  if (!problem) return null;
  if (problem.code !== 'unlikely') return refusalSentence(problem, item.prompt, 'mixed');
  return event.confirmedUnlikely
    ? null
    : 'No known fault would give this reading. Read the gauge again, or confirm it.';
}
