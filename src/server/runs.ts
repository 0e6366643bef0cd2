import { randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import { z } from 'zod';
import { FAMILIES } from '@/core/families/registry';
import type { Instrument } from '@/core/metrology/instrument';
import { mixes, type FluidKind } from '@/core/fluid/kinds';
import { checkCapture, wettedSentence } from '@/core/procedure/check-capture';
import { runEventSchema, type RunEvent, type RunEventOf } from '@/core/contract/events';
import { instrumentsOf } from '@/core/procedure/measured-item';
import { findItem } from '@/core/contract/steps';
import { byOwnSteps } from '@/core/procedure/own-steps';
import { stepsToRepeat } from '@/core/procedure/retest';
import { admitEvent, runRefusalSentence } from '@/core/procedure/admission';
import type { JobEntryOf } from '@/core/records/entries';
import { recordRefusalSentence, runFrom, withEvent } from '@/core/records/job-record';
import { judgementOf, stateOf } from '@/core/records/judged-run';
import { bareOf } from '@/core/shop/first-steps';
import { canonicalJson } from '@/core/records/canonical';
import { conditionsFrom } from '@/core/shop/settings';
import { retestOf } from '@/core/records/staleness';
import { storedEntry } from '@/core/records/stored-entry';
import type { StoredRun } from '@/core/records/views';
import { standardPressure_Pa } from '@/core/air/atmosphere';
import type { Job } from '@/core/records/job';
import type { Conditions, Rig, RunContext } from '@/core/contract/run-context';
import type { Port } from '@/core/contract/family';
import { portNamer } from '@/core/families/port-names';
import { heldAfter, heldRun, hold, standingOf, type Standing } from './held-runs';
import type { Link } from '@/core/records/chain';
import {
  append,
  appendAlone,
  findEntry,
  jobChain,
  jobEntryFrom,
  NAMED_ALREADY,
  type JournalRow,
} from './journal';
import { indexJob } from './job-index';
import { write } from './jobs';
import { findRunWithRecord, judgedLinks, judgementsFrom, readRecord } from './record';
import { done, invalid, refused, type Outcome } from './outcome';
import { aheadOfClock_s } from './case-of-run';
import { arePracticeGauges } from '@/core/practice/simulated-gauges';
import { readableOnes } from './readable';
import { findProfile, instrumentByTag, listInstruments, readSettings, replaceInstrument } from './shelf';
import { missing } from './store';
import { listTechnicians } from './technicians';

/** What a master cylinder of a bench holds where nothing else is said. */
const BRAKE_FLUID: FluidKind = 'dot4';

/**
 * The bench's gauges by the port they usually stand on: what a port is read in says which of them fit there. Of a port with a
 * set for each fluid, those that may meet the unit's own; where none may, all of them, which is refused. A unit that names no fluid
 * drives a master cylinder of the bench: of gauges of two fluids there, those on brake fluid.
 */
export function usualRig(
  ports: readonly Pick<Port, 'id' | 'quantity'>[],
  shelf: readonly Instrument[],
  fluid: FluidKind | null,
): Rig {
  return Object.fromEntries(
    ports.map(({ id, quantity }) => {
      const fitting = shelf.filter((gauge) => gauge.usualPort === id && gauge.quantity === quantity);
      const on = (held: FluidKind) => fitting.filter((gauge) => !gauge.fluid || mixes(gauge.fluid, held));
      const [first] = fitting.flatMap((gauge) => gauge.fluid ?? []);
      const sets = fluid ? [on(fluid)] : [on(BRAKE_FLUID), on(first ?? BRAKE_FLUID)];
      return [id, sets.find((set) => set.length > 0) ?? fitting];
    }),
  );
}

/**
 * Starts a bench test. Profile, gauges, conditions and steps are kept with the run as they are now: a run is judged
 * for ever by what it was made under.
 *
 * @param how by whom, where it is not whom the settings name; gauges, where they are not the shelf's
 */
export async function startRun(
  db: Knex,
  jobId: string,
  now: string,
  { technician, gauges }: { technician?: string | null; gauges?: readonly Instrument[] } = {},
): Promise<Outcome<StoredRun>> {
  const record = await readRecord(db, jobId);
  if (!record) return missing('job');
  const found = await findProfile(db, record.job.profileId);
  const profile = found ?? { kind: record.profile.kind, body: record.profile.body };
  const family = FAMILIES[profile.kind];
  const shelf = gauges ?? (await gaugesNow(db, record.runs[0]));
  const fluid = family.fluid(profile.body);
  const rig = usualRig(family.ports, shelf, fluid);
  const bare = bareOf(profile.kind, shelf);
  if (bare.length > 0) {
    return invalid([
      {
        path: ['instruments'],
        message: `No gauge on the shelf stands on: ${bare.join(', ')}. Add one on the Shelf.`,
      },
    ]);
  }
  const wetted = Object.values(rig)
    .flat()
    .filter((gauge) => fluid && gauge.fluid && !mixes(gauge.fluid, fluid));
  const holds = wetted[0]?.fluid;
  if (fluid && holds) {
    const tags = wetted.flatMap((gauge) => (gauge.fluid === holds ? gauge.tag : []));
    return invalid([{ path: ['instruments'], message: wettedSentence(tags, holds, fluid) }]);
  }
  const conditions = await conditionsNow(db, now, record.job, technician);
  if (!conditions.ok) return conditions;
  const procedure = family.procedure(profile.body, rig);
  const context: RunContext<unknown> = {
    procedure,
    profile: profile.body,
    rig,
    shelf,
    conditions: conditions.value,
  };
  const { kind } = profile;
  const fresh = { run: randomUUID(), kind, revision: family.revision, context, continues: null };
  return begin(db, jobId, fresh, now);
}

/** Starts a re-test: the last run's readings are carried over, and only what has become stale is to be done again. */
export async function startRetest(
  db: Knex,
  jobId: string,
  now: string,
  technician?: string | null,
): Promise<Outcome<StoredRun>> {
  const record = await readRecord(db, jobId);
  if (!record) return missing('job');
  const conditions = await conditionsNow(db, now, record.job, technician);
  if (!conditions.ok) return conditions;
  const plan = retestOf(record, conditions.value.day);
  if (!plan) return refused({ code: 'refused', message: 'Nothing has become stale since the last test.' });
  const { steps, rezero, why, opens, closing } = plan;
  return carryOn(db, record.runs.at(-1)!, conditions.value, now, [
    { type: 'disturbed', steps, rezero, why, opens },
    ...(closing ? [{ type: 'added' as const, ...closing }] : []),
  ]);
}

/**
 * Goes on from a finished run to settle which of two gauges is wrong: its readings are carried over, and a third gauge
 * is put in the place of one of them.
 */
export async function startSettling(db: Knex, runId: string, now: string): Promise<Outcome<StoredRun>> {
  const found = await findRunWithRecord(db, runId);
  if (!found) return missing('run');
  const { record, run: before } = found;
  if (record.runs.at(-1)!.id !== runId || !before.finishedAt)
    return refused({
      code: 'refused',
      message: 'Only the job’s last test can be gone on from, once it is finished.',
    });
  const settling = FAMILIES[before.kind].settling?.(before.context, stateOf(before));
  if (!settling)
    return refused({
      code: 'refused',
      message: 'No two gauges of that test disagree so that a third would settle it.',
    });
  const conditions = await conditionsNow(db, now, record.job);
  if (!conditions.ok) return conditions;
  const { procedure } = before.context;
  const safety = procedure.steps.filter(({ mandatory }) => mandatory).map(({ id }) => id);
  const rezero = conditions.value.day !== before.context.conditions.day;
  return carryOn(db, before, conditions.value, now, [
    {
      type: 'disturbed',
      steps: stepsToRepeat(procedure, safety, rezero),
      rezero,
      why: `Two gauges disagree: ${settling.step.title}`,
    },
    { type: 'added', ...settling },
  ]);
}

/** What holds for the bench now, and who tests: one of the technicians, or else whom the settings name. */
async function conditionsNow(
  db: Knex,
  now: string,
  { altitude_m = null }: Pick<Job, 'altitude_m'>,
  technician?: string | null,
): Promise<Outcome<Conditions>> {
  const here = conditionsFrom((await readSettings(db)).body, now.slice(0, 10));
  const conditions = altitude_m === null ? here : { ...here, barometer_Pa: standardPressure_Pa(altitude_m) };
  if (!technician) return done(conditions);
  const named = (await listTechnicians(db)).find(({ id }) => id === technician);
  return named ? done({ ...conditions, technician: named.name }) : missing('technician');
}

/** Gauges that a job is tested with: those of the shelf, or in practice those of the simulated bench that it began with. */
async function gaugesNow(db: Knex, before: StoredRun | undefined): Promise<readonly Instrument[]> {
  if (before && arePracticeGauges(before.context.shelf)) return before.context.shelf;
  return (await listInstruments(db)).map(({ body }) => body);
}

/** A new run that goes on from one that is finished. */
async function carryOn(
  db: Knex,
  before: StoredRun,
  conditions: Conditions,
  now: string,
  deeds: readonly (Omit<RunEventOf<'disturbed'>, 'id' | 'at'> | Omit<RunEventOf<'added'>, 'id' | 'at'>)[],
): Promise<Outcome<StoredRun>> {
  const shelf = await gaugesNow(db, before);
  const moved = Object.values(before.context.rig)
    .flat()
    .filter((gauge) => !shelf.some((now) => sameGauge(now, gauge)));
  if (moved.length > 0) {
    const message = `Changed on the Shelf since that test: ${moved.map(({ tag }) => tag).join(', ')}. Its readings cannot be carried over; test the unit again in full.`;
    return refused({ code: 'refused', message });
  }
  const { earlier: _known, ...carried } = before.context;
  const context = { ...carried, conditions };
  const run = {
    run: randomUUID(),
    kind: before.kind,
    revision: FAMILIES[before.kind].revision,
    context,
    continues: before.id,
  };
  return db.transaction(async (trx) => {
    const started = await begin(trx, before.jobId, run, now);
    if (!started.ok) return started;
    const events = deeds.map((deed) => ({ ...deed, id: randomUUID(), at: now }) as RunEvent);
    await insertEvents(trx, started.value, events, now);
    return done((await findRun(trx, started.value.id))!);
  });
}

async function begin(
  db: Knex,
  jobId: string,
  run: Omit<JobEntryOf<'run-started'>, 'type'>,
  at: string,
): Promise<Outcome<StoredRun>> {
  const entry = { type: 'run-started', ...run } as const;
  const outcome = await write(db, jobId, { id: randomUUID(), at, entry });
  return outcome.ok ? done(outcome.value.runs.at(-1)!) : outcome;
}

interface RunRow {
  id: string;
  job_id: string;
  finished_at: string | null;
}

/** A run from its own entries in the journal, and from those of the run it continues. */
export async function findRun(db: Knex, id: string): Promise<StoredRun | null> {
  const row = await db<RunRow>('runs').where({ id }).first();
  return row ? readRun(db, row, Infinity) : null;
}

/** A run that began before a place in the record of its job. */
async function readRun(db: Knex, row: RunRow, before: number): Promise<StoredRun | null> {
  const links: JournalRow[] = await db<JournalRow>('journal')
    .where({ run_id: row.id, chain: jobChain(row.job_id) })
    .orderBy('place');
  const [first, ...rest] = links.map(jobEntryFrom);
  // Of the same job, and further back each time: there is no going round in circles.
  if (!first || first.place >= before) return null;
  const started = first.entry as JobEntryOf<'run-started'>;
  const earlier =
    started.continues &&
    (await db<RunRow>('runs').where({ id: started.continues, job_id: row.job_id }).first());
  const run = rest.reduce<StoredRun>(
    (sofar, { entry }) =>
      entry.type === 'run-event'
        ? withEvent(sofar, entry.event)
        : { ...sofar, judged: entry as JobEntryOf<'judged'> },
    runFrom(
      row.job_id,
      row.finished_at ? started : goingOn(started),
      first.at,
      earlier ? await readRun(db, earlier, first.place) : null,
    ),
  );
  const beside = judgementsFrom(await judgedLinks(db, links)).get(row.id);
  return { ...run, judged: run.judged ?? beside ?? null };
}

/** A test that is not finished goes on by this program's own steps, where it has all that were written down. */
function goingOn(started: JobEntryOf<'run-started'>): JobEntryOf<'run-started'> {
  const { kind, context } = started;
  const own = byOwnSteps(FAMILIES[kind].procedure(context.profile, context.rig), context.procedure);
  return own.ok ? { ...started, context: { ...context, procedure: own.procedure } } : started;
}

/** Runs not yet finished, oldest first. */
export async function openRuns(db: Knex): Promise<StoredRun[]> {
  const rows: { id: string; tag: string }[] = await db('runs')
    .join('jobs', 'jobs.id', 'runs.job_id')
    .where('jobs.deleted', false)
    .whereNull('runs.finished_at')
    .orderBy('runs.started_at')
    .select('runs.id', 'jobs.tag');
  const runs = await readableOnes('test of', rows, ({ id }) => findRun(db, id));
  return runs.flatMap((run) => run ?? []);
}

/** What is sent to add an event to a run. */
export const appendSchema = z.strictObject({
  expectedVersion: z.int().min(0),
  /** What was done: several where they are one deed. All are taken in or none. */
  events: z.array(runEventSchema).min(1).max(100),
});

/** By how much the clock of a screen may be ahead of the application's, s: a wait would be over too soon. */
const MOST_AHEAD_S = 60;
const AHEAD =
  'The clock of this screen is ahead of the clock of the machine that keeps the records. Set it right; nothing was recorded.';

/**
 * Adds what was done to a run: one small transaction, acknowledged only after it is on disk. An event sent twice is
 * recorded once; one made on an outdated view of the run is refused together with what happened meanwhile.
 */
export async function appendEvent(
  db: Knex,
  runId: string,
  input: unknown,
  now: string,
): Promise<Outcome<readonly RunEvent[]>> {
  const parsed = appendSchema.safeParse(input);
  if (!parsed.success) return invalid(parsed.error.issues);
  const { events, expectedVersion } = parsed.data;
  const ahead_s = Math.max(...events.map(({ at }) => Date.parse(at) - Date.parse(now))) / 1000;
  if (ahead_s > MOST_AHEAD_S && ahead_s > MOST_AHEAD_S + (await aheadOfClock_s(db, runId)))
    return refused({ code: 'refused', message: AHEAD });
  const alone = events.length === 1 ? await addAlone(db, runId, events[0]!, expectedVersion, now) : null;
  if (alone) return done(alone);
  let after: Standing | null = null;
  const outcome = await db.transaction(async (trx): Promise<Outcome<readonly RunEvent[]>> => {
    const before = await standingOf(db, trx, runId, findRun);
    if (!before) return missing('run');
    const { run } = before;
    const named = await Promise.all(events.map((event) => standsAlready(trx, run, event)));
    if (named.includes('otherwise')) return refused({ code: 'refused', message: NAMED_ALREADY });
    if (named.every((stands) => stands === 'so')) return done(run.events);
    if (run.events.length !== expectedVersion) {
      const message =
        'Another screen added to this run first. What you entered is kept here; nothing was recorded twice.';
      return refused({ code: 'conflict', message, current: run.events });
    }
    if (before.signed || before.deleted) {
      const message = recordRefusalSentence(before.deleted ? 'deleted' : 'signed');
      return refused({ code: 'refused', message });
    }
    let next = before;
    for (const [i, event] of events.entries()) {
      const refusal = refusalOf(next, event);
      if (refusal) return invalid([{ path: ['events', i], message: refusal }]);
      next = heldAfter(next, event);
    }
    const last = await insertEvents(trx, run, events, now, before.last);
    await keepWetted(trx, before, events, now);
    after = { ...next, last };
    return done(next.run.events);
  });
  if (after) hold(db, after);
  return outcome;
}

/** Whether an event stands in a run already, or its name stands for something else; null where nothing has it. */
async function standsAlready(
  trx: Knex,
  { events }: Pick<StoredRun, 'events'>,
  event: RunEvent,
): Promise<'so' | 'otherwise' | null> {
  const known = events.find(({ id }) => id === event.id);
  if (known) return canonicalJson(known) === canonicalJson(event) ? 'so' : 'otherwise';
  return (await findEntry(trx, event.id)) ? 'otherwise' : null;
}

/**
 * Adds one event to a run that is held, by one statement. Whatever else comes of an event, or is in its way, is left to the
 * longer way.
 *
 * @returns the events of the run; null where nothing was written
 */
async function addAlone(
  db: Knex,
  runId: string,
  event: RunEvent,
  expectedVersion: number,
  now: string,
): Promise<readonly RunEvent[] | null> {
  const before = heldRun(db, runId);
  if (!before || before.run.events.length !== expectedVersion || isIndexed(event)) return null;
  if (before.run.events.some(({ id }) => id === event.id)) return null;
  if (firstUnderPressure(before, [event]).length > 0 || refusalOf(before, event)) return null;
  const entry = storedEntry({ type: 'run-event', run: runId, event });
  const link = await appendAlone(db, before.run.jobId, runId, { id: event.id, at: now, entry }, before);
  if (!link) return null;
  const after = { ...heldAfter(before, event), last: link };
  hold(db, after);
  return after.run.events;
}

/** The same gauge, whatever has wetted it since. */
const sameGauge = (one: Instrument, other: Instrument): boolean =>
  canonicalJson({ ...one, fluid: null }) === canonicalJson({ ...other, fluid: null });

/**
 * Keeps on the Shelf which fluid has wetted a gauge and its hose, once it was first read under pressure. A gauge that was
 * flushed is said to hold something else there, by hand.
 */
async function keepWetted(
  db: Knex,
  before: Pick<Standing, 'run' | 'state'>,
  events: readonly RunEvent[],
  now: string,
): Promise<void> {
  const { kind, context } = before.run;
  const fluid = FAMILIES[kind].fluid(context.profile);
  if (!fluid) return;
  for (const tag of firstUnderPressure(before, events)) {
    const used = instrumentsOf(context.rig, context.shelf).get(tag);
    const stored = await instrumentByTag(db, tag);
    // A simulated gauge may bear the tag of a real one.
    if (!used || !stored || stored.body.fluid || !sameGauge(stored.body, used)) continue;
    await replaceInstrument(db, stored.id, stored.version, { ...stored.body, fluid }, now);
  }
}

/** Tags of gauges that some events are the first to read under pressure. */
function firstUnderPressure(
  { run, state }: Pick<Standing, 'run' | 'state'>,
  events: readonly RunEvent[],
): string[] {
  const { procedure } = run.context;
  const underPressure = ({ item: id }: { readonly item: string }) => {
    const item = findItem(procedure, id)?.item;
    return item?.kind === 'reading' && item.quantity === 'pressure' && item.measures !== 'zero';
  };
  const read = (tag: string) =>
    state.captures.some((capture) => capture.instrument === tag && underPressure(capture));
  const tags = events.flatMap((event) =>
    event.type === 'captured' && underPressure(event) && !read(event.instrument) ? event.instrument : [],
  );
  return [...new Set(tags)];
}

/** Events that change what lists and searches show. */
const isIndexed = (event: RunEvent) =>
  event.type === 'finished' || event.type === 'skipped' || (event.type === 'observed' && event.note !== '');

/** Writes events behind those already there. @param known last entry of the job's chain, where it was read */
export async function insertEvents(
  db: Knex,
  run: Pick<StoredRun, 'id' | 'jobId'>,
  events: readonly RunEvent[],
  at: string,
  known?: Pick<Link, 'place' | 'hash'>,
): Promise<Pick<Link, 'place' | 'hash'>> {
  const chain = jobChain(run.jobId);
  let last = known;
  for (const event of events) {
    const entry = storedEntry({ type: 'run-event', run: run.id, event });
    last = await append(db, chain, { id: event.id, at, entry }, last);
  }
  if (events.some(({ type }) => type === 'finished')) {
    const entry = storedEntry(judgementOf((await findRun(db, run.id))!, 'finished'));
    last = await append(db, chain, { id: randomUUID(), at, entry });
  }
  if (events.some(isIndexed)) await indexJob(db, (await readRecord(db, run.jobId))!);
  return last!;
}

function refusalOf({ run, state }: Pick<Standing, 'run' | 'state'>, event: RunEvent): string | null {
  const { procedure, rig, shelf } = run.context;
  const refusal = admitEvent(procedure, state, event, run.events);
  if (refusal) return runRefusalSentence(refusal, portNamer(run.kind));
  if (event.type === 'disturbed') return 'Work on the unit is written down on its job sheet.';
  if (event.type === 'added') {
    const due = FAMILIES[run.kind].settling?.(run.context, state);
    return due && canonicalJson(due) === canonicalJson({ after: event.after, step: event.step })
      ? null
      : 'Nothing is to be settled here by that step.';
  }
  if (event.type !== 'captured') return null;
  const item = findItem(procedure, event.item)?.item;
  const gauge = instrumentsOf(rig, shelf).get(event.instrument);
  if (item?.kind !== 'reading' || !gauge) return `There is no gauge “${event.instrument}” on this bench.`;
  const { value_SI, by } = event;
  const problem = checkCapture(FAMILIES[run.kind], run.context, state, { item, gauge, value_SI, by });
  if (!problem || (problem.asks && event.confirmedUnlikely)) return null;
  return `${problem.say('mixed')}${problem.asks ? ' It is kept once it is confirmed.' : ''}`;
}
