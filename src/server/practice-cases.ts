import { randomInt, randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import { z } from 'zod';
import { HEALTHY, UNKNOWN } from '@/core/diagnosis/causes';
import { FAMILIES, SIMULATED, type FamilyKind } from '@/core/families/registry';
import { caseFileSchema, seedSchema, type CaseFile } from '@/core/practice/case-file';
import type { CaseView } from '@/core/practice/case-view';
import type { Debrief, ToDebrief } from '@/core/practice/debrief';
import { drawCase, leftAfter, looksOf, parametersOf, type Truth } from '@/core/practice/draw';
import { LEVEL_IDS, type LevelId } from '@/core/practice/levels';
import { nextAction } from '@/core/procedure/next-action';
import { waitStart } from '@/core/procedure/run';
import { canonicalJson } from '@/core/records/canonical';
import { stateOf } from '@/core/records/judged-run';
import type { StoredRun } from '@/core/records/views';
import { sha256 } from './journal';
import { done, invalid, refused, type Outcome } from './outcome';
import { onBench, practiceRun, simulatedBench, stillLies } from './practice';
import { practiceGauges, PRACTICE_TAG } from './practice-gauges';
import { sayToHands } from './bench-hands';
import { sealAway, unseal } from './practice-seal';
import { readRecord } from './record';
import { roomOf } from './room';
import { findRun } from './runs';
import { missing } from './store';
import { inThread } from './thread';

/** What a case is begun with: a kind and a level, and a seed where one is repeated; or the file of one. */
export const newCaseSchema = z.strictObject({
  technician: z.string().trim().min(1, 'Technician: say who practises.').max(120),
  kind: z.enum(SIMULATED as [FamilyKind, ...FamilyKind[]], 'What to practise on: choose one.').optional(),
  level: z.literal(LEVEL_IDS, 'Level: 1 to 4.').optional(),
  seed: seedSchema.nullish(),
  file: z.string().max(10_000, 'This is no file of a practice case.').optional(),
});

export const lookSchema = z.strictObject({ item: z.string().min(1).max(80) });
export const endCaseSchema = z.strictObject({
  /** Parts at fault, joined; or that nothing is wrong, or that it is not known. */
  finding: z.string().min(1, 'Finding: say what was wrong.').max(400),
});

interface CaseRow {
  id: string;
  job_id: string;
  run_id: string;
  kind: FamilyKind;
  level: LevelId;
  technician: string;
  complaint: string;
  sealed: string;
  not_counted: string | null;
  ahead_ms: number;
  began_at: string;
  ended_at: string | null;
  finding: string | null;
  told: string | null;
  tag: string;
}

/** What is sealed in a case. */
interface Sealed {
  readonly seed: number;
  readonly truth: Truth;
}

const ALTERED = 'The file was altered since it was made.';
const OPENED = 'What is hidden in it was told to this technician before.';
const NOT_OVER =
  'It can be shared once it is over: whoever knows what it is drawn from can have it drawn again.';
const OVER = 'This case is over.';
const ELSEWHERE =
  'This case was begun on another machine: what is hidden in it cannot be read here. Begin another.';

const caseRows = (db: Knex) =>
  db<CaseRow>('practice_cases')
    .join('jobs', 'jobs.id', 'practice_cases.job_id')
    .select('practice_cases.*', 'jobs.tag');

const viewOf = (row: CaseRow): CaseView => ({
  id: row.id,
  jobId: row.job_id,
  runId: row.run_id,
  tag: row.tag,
  kind: row.kind,
  level: row.level,
  technician: row.technician,
  complaint: row.complaint,
  beganAt: row.began_at,
  endedAt: row.ended_at,
  notCounted: row.not_counted,
  ahead_ms: row.ahead_ms,
  told: row.told === null ? null : (JSON.parse(row.told) as CaseView['told']),
});

/** Every case, the newest first. */
export const listCases = async (db: Knex): Promise<CaseView[]> =>
  (await caseRows(db).orderBy('practice_cases.began_at', 'desc')).map((row) => viewOf(row as CaseRow));

const rowOf = async (db: Knex, id: string): Promise<CaseRow | null> =>
  ((await caseRows(db).where('practice_cases.id', id).first()) as CaseRow | undefined) ?? null;

export async function findCase(db: Knex, id: string): Promise<CaseView | null> {
  const row = await rowOf(db, id);
  return row && viewOf(row);
}

/** The case that a job is of; null where it is of none. */
export async function caseOfJob(db: Knex, jobId: string): Promise<CaseView | null> {
  const row = (await caseRows(db).where('practice_cases.job_id', jobId).first()) as CaseRow | undefined;
  return row ? viewOf(row) : null;
}

/** Whether a technician was told what is hidden in a case before. */
async function wasTold(
  db: Knex,
  { technician, kind, level }: Pick<CaseRow, 'technician' | 'kind' | 'level'>,
  seed: number,
): Promise<boolean> {
  const told = await db<CaseRow>('practice_cases')
    .where({ technician, kind, level })
    .whereNotNull('told')
    .select('told');
  return told.some((row) => (JSON.parse(row.told!) as Sealed).seed === seed);
}

const digestOf = (drawn: Omit<CaseFile, 'digest'>): string => sha256(canonicalJson(drawn));

/** What a case is drawn from, out of what was asked; with why it counts for nothing, where the file says so. */
function drawnFrom(
  asked: z.infer<typeof newCaseSchema>,
): Outcome<Pick<CaseFile, 'kind' | 'level' | 'seed'> & { readonly notCounted: string | null }> {
  if (asked.file === undefined) {
    if (!asked.kind) return invalid([{ path: ['kind'], message: 'What to practise on: choose one.' }]);
    const { kind, level = 1, seed } = asked;
    return done({ kind, level, seed: seed ?? randomInt(1, 2_147_483_647), notCounted: null });
  }
  let read: unknown;
  try {
    read = JSON.parse(asked.file);
  } catch {
    return invalid([{ path: ['file'], message: 'This is no file of a practice case.' }]);
  }
  const file = caseFileSchema.safeParse(read);
  if (!file.success) return invalid(file.error.issues.map(({ message }) => ({ path: ['file'], message })));
  const { digest, ...drawn } = file.data;
  const { kind, level, seed } = drawn;
  if (!SIMULATED.includes(kind))
    return invalid([
      { path: ['file'], message: `${FAMILIES[kind].name}: the simulated bench has none of these.` },
    ]);
  return done({ kind, level, seed, notCounted: digestOf(drawn) === digest ? null : ALTERED });
}

/** Draws a case, takes its unit in and puts it on the simulated bench. */
export async function beginCase(db: Knex, input: unknown, now: string): Promise<Outcome<CaseView>> {
  const asked = newCaseSchema.safeParse(input);
  if (!asked.success) return invalid(asked.error.issues);
  const from = drawnFrom(asked.data);
  if (!from.ok) return from;
  const { kind, level, seed, notCounted } = from.value;
  const { technician } = asked.data;
  const ready = await simulatedBench(db, now);
  if (!ready.ok) return ready;
  const { complaint, truth } = drawCase(FAMILIES[kind], practiceGauges(kind), level, seed);
  const [{ count = 0 } = {}] = (await db('practice_cases').count({ count: '*' })) as { count?: number }[];
  const run = await practiceRun(
    db,
    { kind, tag: `${PRACTICE_TAG} case ${Number(count) + 1}`, complaint },
    now,
  );
  if (!run.ok) return run;
  const told = notCounted ?? ((await wasTold(db, { technician, kind, level }, seed)) ? OPENED : null);
  const id = randomUUID();
  await db('practice_cases').insert({
    id,
    job_id: run.value.jobId,
    run_id: run.value.id,
    kind,
    level,
    technician,
    complaint,
    sealed: sealAway({ seed, truth } satisfies Sealed),
    not_counted: told,
    began_at: now,
  });
  const put = await putCaseOnBench(db, id, now);
  return put.ok ? done((await findCase(db, id))!) : put;
}

interface OpenCase {
  readonly row: CaseRow;
  readonly hidden: Sealed;
  readonly run: StoredRun;
  /** Parts that were changed or mended, and faults that are left. */
  readonly changed: readonly string[];
  readonly left: Truth['faults'];
}

/** A case that is not over, with what is hidden in it. */
async function openCase(db: Knex, id: string): Promise<Outcome<OpenCase>> {
  const row = await rowOf(db, id);
  const record = row && (await readRecord(db, row.job_id));
  const run = record && (await findRun(db, record.runs.at(-1)?.id ?? row.run_id));
  if (!row || !record || !run) return missing('practice case');
  if (row.ended_at) return refused({ code: 'refused', message: OVER });
  const hidden = unseal(row.sealed) as Sealed | null;
  if (!hidden) return refused({ code: 'refused', message: ELSEWHERE });
  const changed = record.work.flatMap(({ withdrawn, what }) =>
    !withdrawn && (what.did === 'replaced' || what.did === 'rebuilt') ? what.part : [],
  );
  const left = leftAfter(hidden.truth, FAMILIES[row.kind].faults, changed);
  return done({ row, hidden, run, changed, left });
}

/**
 * Puts the unit of a case on the simulated bench, as far as it was mended; where it lies there already it stays as it is.
 *
 * @returns the test that is gone on with: the last of the case's job
 */
export async function putCaseOnBench(
  db: Knex,
  id: string,
  now: string,
): Promise<Outcome<{ readonly run: string }>> {
  const found = await openCase(db, id);
  if (!found.ok) return found;
  const { row, hidden, run, left } = found.value;
  const { truth } = hidden;
  const put = await onBench(db, run, now, {
    own: [...parametersOf(truth, FAMILIES[row.kind].faults, left)],
    supply_Pa: truth.supply_Pa,
    errors: truth.gauges,
    state: `${id} ${left.map(([fault]) => fault).join(' ')}`,
  });
  return put.ok ? done({ run: run.id }) : put;
}

/** What is seen where something is looked at: only what the test asks for now. */
export async function lookInCase(
  db: Knex,
  id: string,
  input: unknown,
): Promise<Outcome<{ readonly answer: string; readonly label: string }>> {
  const asked = lookSchema.safeParse(input);
  if (!asked.success) return invalid(asked.error.issues);
  const found = await openCase(db, id);
  if (!found.ok) return found;
  const { row, hidden, run, left } = found.value;
  const { procedure } = run.context;
  const action = nextAction(procedure, stateOf(run));
  const item = 'step' in action ? action.step.items.find((one) => one.id === asked.data.item) : undefined;
  if (item?.kind !== 'observation')
    return refused({ code: 'refused', message: 'That is not to be looked at now.' });
  const answer = looksOf(FAMILIES[row.kind], procedure, hidden.truth, row.level, left)[item.id]!;
  return done({ answer, label: item.answers.find((one) => one.id === answer)!.label });
}

/** Real time that the bench runs ahead at a time, ms: a screen asks again, and can stop. */
const AT_A_TIME_MS = 700;
/** It runs ahead by so much between two looks at the clock, s. */
const SLICE_S = 5;

/** Lets the time of a wait pass at once, or a part of it: on the bench, and by the case's own clock. */
export async function passWait(
  db: Knex,
  id: string,
  now: string,
): Promise<Outcome<{ readonly ahead_ms: number; readonly left_s: number }>> {
  const found = await openCase(db, id);
  if (!found.ok) return found;
  const { row, run } = found.value;
  const state = stateOf(run);
  const action = nextAction(run.context.procedure, state);
  const wait = action.kind === 'item' && action.item.kind === 'wait' ? action.item : null;
  const from = wait && waitStart(run.context.procedure, state, wait.id);
  if (!wait || !from) return refused({ code: 'refused', message: 'No wait is running.' });
  const ready = await simulatedBench(db, now);
  if (!ready.ok) return ready;
  if (!(await stillLies(ready.value, run.id)))
    return refused({ code: 'refused', message: 'This case is not on the simulated bench now.' });
  const due_s = wait.duration_s - (Date.parse(now) + row.ahead_ms - Date.parse(from)) / 1000;
  const end = performance.now() + AT_A_TIME_MS;
  let passed_s = 0;
  while (passed_s < due_s && performance.now() < end) {
    const slice_s = Math.min(SLICE_S, due_s - passed_s);
    const answer = await sayToHands(ready.value, { ahead: slice_s });
    if (!answer?.ok)
      return refused({ code: 'refused', message: answer?.why ?? 'The simulated bench does not answer.' });
    passed_s += slice_s;
  }
  await db('practice_cases')
    .where({ id })
    .increment('ahead_ms', Math.ceil(1000 * passed_s));
  const { ahead_ms } = (await findCase(db, id))!;
  return done({ ahead_ms, left_s: Math.max(0, due_s - passed_s) });
}

/** Ends a case by what was found: what was hidden is told from then on. */
export async function endCase(
  db: Knex,
  id: string,
  input: unknown,
  now: string,
  signal?: AbortSignal,
): Promise<Outcome<CaseView>> {
  const asked = endCaseSchema.safeParse(input);
  if (!asked.success) return invalid(asked.error.issues);
  const { finding } = asked.data;
  const found = await openCase(db, id);
  if (!found.ok) return found;
  const { row, hidden, changed } = found.value;
  const { parts } = FAMILIES[row.kind];
  const strange = finding
    .split(' + ')
    .find((part) => ![HEALTHY, UNKNOWN].includes(finding) && !parts.some((one) => one.id === part));
  if (strange !== undefined)
    return invalid([{ path: ['finding'], message: `Finding: there is no part “${strange}”.` }]);
  const run = (await findRun(db, row.run_id))!;
  const { kind, level, complaint } = row;
  const { truth, seed } = hidden;
  const question: ToDebrief = {
    kind,
    level,
    truth,
    complaint,
    context: run.context,
    events: run.events,
    finding,
    changed,
  };
  const debrief = await roomOf('diagnoses').within(() =>
    inThread<Debrief>('debrief-thread', question, { signal }),
  );
  if (!debrief) return refused({ code: 'refused', message: 'It was stopped before it was worked out.' });
  const told = row.not_counted ?? ((await wasTold(db, row, seed)) ? OPENED : null);
  await db('practice_cases')
    .where({ id })
    .whereNull('ended_at')
    .update({
      ended_at: now,
      finding,
      not_counted: told,
      told: JSON.stringify({ seed, truth, debrief } satisfies CaseView['told']),
    });
  // What lies there stays, with its source and its gauges, until something else is put there.
  return done((await findCase(db, id))!);
}

/** A case to be shared: what it is drawn from. No truth stands in it. */
export async function caseFile(
  db: Knex,
  id: string,
): Promise<Outcome<{ readonly name: string; readonly body: string }>> {
  const row = await rowOf(db, id);
  if (!row) return missing('practice case');
  if (!row.told) return refused({ code: 'refused', message: NOT_OVER });
  const { seed } = JSON.parse(row.told) as Sealed;
  const { kind, level } = row;
  const file = { format: 'hard-pedal-practice', revision: 1, kind, level, seed } as const;
  const body = JSON.stringify({ ...file, digest: digestOf(file) }, null, 2);
  return done({ name: `${row.tag}.json`, body: `${body}\n` });
}
