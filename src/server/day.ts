import type { Knex } from 'knex';
import { z } from 'zod';
import { FAMILIES } from '@/core/families/registry';
import type { Crew, Task } from '@/core/planning/day';
import { clockWords, dayBodySchema, minutesFrom, type DayBody } from '@/core/planning/day-body';
import type { DayView } from '@/core/planning/day-view';
import { segmentsLeft } from '@/core/planning/segments';
import { spreadOf, type Spread, type ToPlan, type WorkedOut } from '@/core/planning/worked-out';
import { EMPTY_RUN } from '@/core/procedure/run';
import { stateOf } from '@/core/records/judged-run';
import type { StoredJob, StoredRun } from '@/core/records/views';
import { daysBetween } from '@/core/shop/due';
import { findJob } from './jobs';
import { countWaiting, nextJobs } from './job-list';
import { done, invalid, refused, type Outcome } from './outcome';
import { PRACTICE_TAG } from './practice-gauges';
import { readableOnes } from './readable';
import { roomOf } from './room';
import { findRun, openRuns, usualRig } from './runs';
import { findProfile, listInstruments, readSettings } from './shelf';
import { listTechnicians } from './technicians';
import { inThread } from './thread';

export const changedDaySchema = z.strictObject({ version: z.int().min(0), body: dayBodySchema });

/** Jobs that a day is planned with at the most; the rest waits for another day, and the screen says so. */
const MOST_JOBS = 30;
/** Tests from which it is known how long they take; one over so many hours was left and gone on with. */
const LAST_TESTS = 40;
const LONGEST_H = 12;
const USUAL_DAY = { from: '08:00', until: '17:00' } as const;
const USUAL_BENCHES = 2;

interface DayRow {
  day: string;
  version: number;
  body: string;
}

/** The time of a moment as the bench has it. */
export interface LocalTime {
  readonly day: string;
  readonly now_min: number;
  readonly now_ms: number;
}

/** A day as it was left, with everybody of the shop in it; a new one begins with who and what there was last. */
async function bodyOf(db: Knex, day: string): Promise<{ version: number; body: DayBody }> {
  const row = await db<DayRow>('days').where({ day }).first();
  const last = row ?? (await db<DayRow>('days').where('day', '<', day).orderBy('day', 'desc').first());
  const kept = last ? (JSON.parse(last.body) as DayBody) : null;
  const fixed = row ? kept! : { order: [], given: {}, promised: {} };
  const people = await listTechnicians(db);
  const named = (await readSettings(db)).body.technician || 'Technician';
  const known = people.length > 0 ? people : [{ id: 'technician', name: named }];
  const technicians = known.map(
    ({ id, name }) =>
      kept?.technicians.find((one) => one.id === id) ?? { id, name, here: !kept, ...USUAL_DAY },
  );
  const here = technicians.some((one) => one.here);
  return {
    version: row?.version ?? 0,
    body: {
      benches: kept?.benches ?? USUAL_BENCHES,
      technicians: here ? technicians : technicians.map((one) => ({ ...one, here: true })),
      order: fixed.order,
      given: fixed.given,
      promised: fixed.promised,
    },
  };
}

/** Keeps who is here and what was fixed by hand, and plans the day anew. */
export async function changeDay(db: Knex, input: unknown, at: LocalTime): Promise<Outcome<DayView>> {
  const parsed = changedDaySchema.safeParse(input);
  if (!parsed.success) return invalid(parsed.error.issues);
  const { version, body } = parsed.data;
  const { day } = at;
  const now = await bodyOf(db, day);
  if (now.version !== version)
    return refused({
      code: 'conflict',
      message: 'Another screen changed this day first. It is shown as it is now.',
      current: now,
    });
  await db<DayRow>('days')
    .insert({ day, version: version + 1, body: JSON.stringify(body) })
    .onConflict('day')
    .merge();
  return dayPlan(db, at);
}

const isReal = ({ body: { tag } }: StoredJob) => !tag.startsWith(`${PRACTICE_TAG} `);

/** Tests that run, and jobs that wait for theirs, as tasks of a day. */
async function tasksOf(
  db: Knex,
  body: DayBody,
  { day, now_min, now_ms }: LocalTime,
): Promise<Pick<DayView, 'tasks' | 'left'>> {
  const until_min = Math.max(
    ...body.technicians.filter(({ here }) => here).map((one) => minutesFrom(one.until)),
  );
  const task = (
    job: StoredJob,
    run: StoredRun | null,
    rest: Pick<Task, 'segments' | 'gauges' | 'onBench'>,
  ): Task => {
    const { id } = job;
    const { tag, promisedOn } = job.body;
    const own = body.promised[id];
    const days = promisedOn === null ? null : daysBetween(day, promisedOn);
    return {
      id,
      tag,
      ...rest,
      due_min:
        days === null ? (own ? minutesFrom(own) : null) : days * 1440 + (own ? minutesFrom(own) : until_min),
      ready_min: now_min,
      ...(run && stateOf(run).captures.length > 0 && { begun: true }),
      ...(body.given[id] !== undefined && { technician: body.given[id] }),
    };
  };
  const open = await readableOnes('test', await openRuns(db), async (run) => ({
    id: run.id,
    run,
    job: (await findJob(db, run.jobId))!,
  }));
  const going = open
    .filter(({ job }) => isReal(job))
    .map(({ run, job }) => {
      const { procedure, rig } = run.context;
      return task(job, run, {
        segments: segmentsLeft(FAMILIES[run.kind], { procedure, rig }, stateOf(run), now_ms),
        gauges: tagsOf(rig),
        onBench: procedure.setting !== 'vehicle',
      });
    });
  const shelf = (await listInstruments(db)).map((one) => one.body);
  const next = await nextJobs(db, MOST_JOBS);
  const waiting = await readableOnes('job', next.filter(isReal), async (job) => {
    const profile = await findProfile(db, job.body.profileId);
    const { kind } = job.body;
    const family = FAMILIES[kind];
    const own = profile?.body ?? family.typical;
    const rig = usualRig(family.ports, shelf, family.fluid(own));
    const procedure = family.procedure(own, rig);
    return task(job, null, {
      segments: segmentsLeft(family, { procedure, rig }, EMPTY_RUN, now_ms),
      gauges: tagsOf(rig),
      onBench: family.setting === 'bench',
    });
  });
  const all = [...going, ...waiting].filter(({ segments }) => segments.length > 0);
  const tasks = all.slice(0, MOST_JOBS);
  return { tasks, left: all.length - tasks.length + (await countWaiting(db)) - next.length };
}

const tagsOf = (rig: StoredRun['context']['rig']): string[] =>
  Object.values(rig).flatMap((gauges) => gauges.map(({ tag }) => tag));

/** How long the tests of this shop take beside what their steps say. */
async function spreadNow(db: Knex): Promise<Spread> {
  const rows: { id: string }[] = await db('runs')
    .join('jobs', 'jobs.id', 'runs.job_id')
    .whereNotNull('runs.finished_at')
    .whereNot('jobs.tag', 'like', `${PRACTICE_TAG} %`)
    .orderBy('runs.finished_at', 'desc')
    .limit(LAST_TESTS)
    .select('runs.id');
  // Finished tests do not change: the same ones are not read again.
  const key = rows.map(({ id }) => id).join(' ');
  if (held.hardPedalSpread?.key === key) return held.hardPedalSpread.spread;
  const runs = await readableOnes('test', rows, ({ id }) => findRun(db, id));
  const ratios = runs.flatMap((run) => {
    if (!run?.finishedAt || run.continues) return [];
    const took_min = (Date.parse(run.finishedAt) - Date.parse(run.startedAt)) / 60_000;
    const planned = segmentsLeft(FAMILIES[run.kind], run.context, EMPTY_RUN, 0);
    const planned_min = planned.reduce((sum, one) => sum + one.attended_min + one.waiting_min, 0);
    return took_min > 0 && took_min < LONGEST_H * 60 && planned_min > 0 ? [took_min / planned_min] : [];
  });
  const spread = spreadOf(ratios);
  held.hardPedalSpread = { key, spread };
  return spread;
}

const EMPTY: WorkedOut = {
  plan: { placed: [], sequence: [], order: [], finish_min: {}, cost: 0 },
  range_min: {},
  late: [],
};

/** The last day that was planned and how long tests take, for whoever asks the same: pages and routes are bundled apart. */
const held = globalThis as typeof globalThis & {
  hardPedalDay?: { readonly asked: string; readonly found: WorkedOut };
  hardPedalSpread?: { readonly key: string; readonly spread: Spread };
};

/** A day planned off the main thread; null where the sender went away meanwhile. */
async function workedOut(asked: ToPlan, signal: AbortSignal | undefined): Promise<WorkedOut | null> {
  const key = JSON.stringify(asked);
  if (held.hardPedalDay?.asked === key) return held.hardPedalDay.found;
  const found = await roomOf('diagnoses').within(() => inThread<WorkedOut>('plan-thread', asked, { signal }));
  if (found) held.hardPedalDay = { asked: key, found };
  return found;
}

/** The day as it stands now, planned. */
export async function dayPlan(db: Knex, at: LocalTime, signal?: AbortSignal): Promise<Outcome<DayView>> {
  const { version, body } = await bodyOf(db, at.day);
  const { tasks, left } = await tasksOf(db, body, at);
  const spread = await spreadNow(db);
  const crew: Crew = {
    technicians: body.technicians
      .filter(({ here }) => here)
      .map(({ id, name, from, until }) => ({
        id,
        name,
        from_min: minutesFrom(from),
        until_min: minutesFrom(until),
      })),
    benches: body.benches,
  };
  // Who was to do a job and is not here any more does not: somebody else does.
  const present = new Set(crew.technicians.map(({ id }) => id));
  const held = tasks.map(({ technician, ...task }): Task =>
    technician !== undefined && present.has(technician) ? { ...task, technician } : task,
  );
  // What is under way is gone on with first: an order by hand is one of jobs that are still to be begun.
  const begun = new Set(held.flatMap((task) => (task.begun ? task.id : [])));
  const fixed = { order: body.order.filter((id) => !begun.has(id)) };
  const asked: ToPlan = { tasks: held, crew, fixed, spread };
  const found = tasks.length === 0 ? EMPTY : await workedOut(asked, signal);
  if (!found) return refused({ code: 'refused', message: 'It was stopped before it was planned.' });
  return done({ ...found, day: at.day, now_min: at.now_min, version, body, tasks: held, left, spread });
}

/** What a calendar is told of each job: from when to when, and who. */
export function calendarEntries({ plan, tasks, range_min, body }: DayView) {
  return tasks.map(({ id, tag }) => {
    const own = plan.placed.filter(({ task }) => task === id);
    const [low, high] = range_min[id]!;
    const who = body.technicians.find((one) => one.id === own[0]!.technician)?.name ?? '';
    return {
      uid: `plan-${id}`,
      title: `${tag}: ${who}`,
      description: `Done between ${clockWords(low)} and ${clockWords(high)} in eight of ten days.`,
      from_min: own[0]!.from_min,
      until_min: plan.finish_min[id]!,
    };
  });
}
