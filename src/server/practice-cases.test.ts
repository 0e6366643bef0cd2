/** @jest-environment node */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Knex } from 'knex';
import { HEALTHY, repairOf, UNKNOWN } from '@/core/diagnosis/causes';
import { FAMILIES } from '@/core/families/registry';
import type { CaseView } from '@/core/practice/case-view';
import { drawCase } from '@/core/practice/draw';
import { nextAction } from '@/core/procedure/next-action';
import { rehearse } from '@/core/procedure/rehearse';
import { stateOf } from '@/core/records/judged-run';
import { openDatabase } from './database';
import { hangUp, link } from './live';
import type { Outcome } from './outcome';
import { startPractice } from './practice';
import { practiceBench } from './practice-bench';
import { practiceGauges } from './practice-gauges';
import {
  beginCase,
  caseFile,
  caseOfJob,
  endCase,
  findCase,
  listCases,
  lookInCase,
  passWait,
  putCaseOnBench,
} from './practice-cases';
import { addNote } from './notes';
import { appendEvent, findRun, startRetest, startRun } from './runs';
import { workBench } from './simulated-bench';

const NOW = '2026-11-28T09:00:00.000Z';
const LATER = '2026-11-28T15:00:00.000Z';
const KIND = 'rod-servo';
const family = FAMILIES[KIND];
const before = process.env.HARD_PEDAL_DATA;
const folder = mkdtempSync(path.join(tmpdir(), 'hard-pedal-practice-'));
let db: Knex;
beforeAll(async () => {
  process.env.HARD_PEDAL_DATA = folder;
  db = await openDatabase(':memory:');
});
afterAll(async () => {
  hangUp();
  await (await (await practiceBench()).bench).stop();
  await db.destroy();
  if (before === undefined) delete process.env.HARD_PEDAL_DATA;
  else process.env.HARD_PEDAL_DATA = before;
  rmSync(folder, { recursive: true });
});

function value<T>(outcome: Outcome<T>): T {
  if (!outcome.ok) throw new Error(outcome.why.message);
  return outcome.value;
}
const why = (outcome: Outcome<unknown>) => (outcome.ok ? '' : outcome.why.message);
const begin = async (more: object = {}) =>
  value(await beginCase(db, { technician: 'A. Tester', kind: KIND, level: 1, seed: 4711, ...more }, NOW));
const part = (id: string) => ({
  id: crypto.randomUUID(),
  entry: { type: 'work', work: { part: id, did: 'replaced', reason: '', provenance: 'new', serial: '' } },
});
const truthOf = ({ level }: CaseView, seed: number) =>
  drawCase(family, practiceGauges(KIND), level, seed).truth;
const benchNow = async () => (await (await practiceBench()).bench).stands.unit;

/** Does what a test asks for, as on a sound unit, up to an item or a kind of it, or to the end. */
async function upTo(
  { runId }: Pick<CaseView, 'runId'>,
  reached: (item: string, kind: string) => boolean = () => false,
): Promise<'reached' | 'ended'> {
  const { context, events: done } = (await findRun(db, runId))!;
  const truth = {
    parameters: family.healthy(family.typical).values,
    supply_Pa: 67_000,
    gauges: {},
    signs: {},
    noise_steps: 0,
  };
  const added = rehearse(family, context, truth, { random: Math.random, startAt: NOW, from: done });
  for (const [i, event] of added.entries()) {
    const run = (await findRun(db, runId))!;
    const action = nextAction(run.context.procedure, stateOf(run));
    if (action.kind === 'item' && reached(action.item.id, action.item.kind)) return 'reached';
    value(await appendEvent(db, runId, { expectedVersion: done.length + i, events: [event] }, event.at));
  }
  return 'ended';
}

test('a case lies on the bench as it was drawn, and is told once it is over', async () => {
  const one = await begin();
  expect(one).toMatchObject({ kind: KIND, level: 1, told: null, notCounted: null, endedAt: null });
  const truth = truthOf(one, 4711);
  const [[id, severity] = ['', 0]] = truth.faults;
  const fault = family.faults.find((other) => other.id === id)!;
  const on = await benchNow();
  expect(on).toMatchObject({ kind: KIND, fault: null, supply_Pa: truth.supply_Pa });
  expect(on.own).toEqual(fault.apply(truth.made, severity));
  // Nothing else is put there meanwhile.
  expect(why(await workBench(db, { unit: { run: one.runId, fault: null } }))).toMatch(
    /A practice case lies on/,
  );
  expect(why(await endCase(db, one.id, { finding: 'flux-condenser' }, NOW))).toBe(
    'Finding: there is no part “flux-condenser”.',
  );
  expect(why(await endCase(db, one.id, { finding: '' }, NOW))).toBe('Finding: say what was wrong.');
  const over = value(await endCase(db, one.id, { finding: repairOf([fault]) }, NOW));
  expect(over).toMatchObject({ endedAt: NOW, notCounted: null, told: { seed: 4711, truth } });
  const { debrief } = over.told!;
  // Found without one reading: right, at no time, and nothing left undone.
  expect(debrief).toMatchObject({
    tests: [],
    minutes: 0,
    really: repairOf([fault]),
    found: repairOf([fault]),
  });
  expect(debrief.score).toMatchObject({ finding: 50, care: 10 });
  // A guess that was right is told as one: no reading of theirs had shown it.
  expect(debrief.better).toMatch(
    /^Right, but no reading showed it\. “.+” tells the most: the adviser does it\.$/,
  );
  expect(debrief.adviser.tests.length).toBeGreaterThan(0);
  expect(debrief.adviser.found).toBe(debrief.really);
  expect(why(await endCase(db, one.id, { finding: HEALTHY }, NOW))).toBe('This case is over.');
  expect(why(await putCaseOnBench(db, one.id, NOW))).toBe('This case is over.');
  for (let i = 0; i < 600 && !(await link(db))!.status.simulated; i += 1)
    await new Promise((soon) => setTimeout(soon, 100));
  expect(value(await workBench(db, { unit: { fault: null } }))).toMatchObject({ ok: true });
});

test('practice without a case never goes on with the unit of one', async () => {
  const one = await begin({ seed: 4717 });
  const free = value(await startPractice(db, { kind: KIND }, NOW));
  expect(free.id).not.toBe(one.runId);
  expect((await benchNow()).own).toBeNull();
  // Gone on with, the case lies there again as it was drawn.
  value(await putCaseOnBench(db, one.id, NOW));
  expect((await benchNow()).own).not.toBeNull();
  expect(value(await startPractice(db, { kind: KIND }, NOW)).id).toBe(free.id);
});

test('a case whose truth was told to somebody before counts for another, and not for them again', async () => {
  const again = await begin();
  expect(again.notCounted).toMatch(/told to this technician before/);
  expect((await begin({ technician: 'B. Other' })).notCounted).toBeNull();
  expect((await begin({ level: 2 })).notCounted).toBeNull();
});

test('a bench that has lost the case, as one that was switched off and on has, is given it again before it is gone on with', async () => {
  const one = await begin({ seed: 4712 });
  await upTo(one, (_, kind) => kind === 'wait');
  const own = (await benchNow()).own;
  const bench = await (await practiceBench()).bench;
  bench.obeyed({ unit: { kind: KIND, profile: family.typical, fault: null } });
  expect(why(await passWait(db, one.id, NOW))).toMatch(/not on the simulated bench now/);
  expect((await benchNow()).own).toBeNull();
  value(await putCaseOnBench(db, one.id, NOW));
  expect((await benchNow()).own).toEqual(own);
  bench.obeyed({ ahead: 5 });
  value(await putCaseOnBench(db, one.id, NOW));
  // It lies there as it lay: nothing was begun anew.
  expect(bench.stands.t_s).toBeGreaterThanOrEqual(5);
});

test('a file says nothing before the end; one that was altered is begun, and does not count', async () => {
  const [one, twin] = [await begin({ seed: 4713 }), await begin({ seed: 4713 })];
  expect(twin.notCounted).toBeNull();
  expect(why(await caseFile(db, one.id))).toMatch(/once it is over/);
  value(await endCase(db, one.id, { finding: UNKNOWN }, NOW));
  // Begun before the other was over, and opened by its end.
  const later = value(await endCase(db, twin.id, { finding: UNKNOWN }, NOW));
  expect(later.notCounted).toMatch(/told to this technician before/);
  const { body } = value(await caseFile(db, one.id));
  const other = { technician: 'C. Third' };
  const whole = value(await beginCase(db, { ...other, file: body }, NOW));
  expect(whole).toMatchObject({ kind: KIND, level: 1, notCounted: null });
  const easier = JSON.stringify({ ...(JSON.parse(body) as object), seed: 4714 });
  const altered = value(await beginCase(db, { ...other, file: easier }, NOW));
  expect(altered.notCounted).toMatch(/altered/);
  for (const [file, says] of [
    ['no JSON', 'This is no file of a practice case.'],
    ['{}', 'This is no file of a practice case.'],
    [
      JSON.stringify({ ...(JSON.parse(body) as object), revision: 2 }),
      'This practice file is of a later program.',
    ],
  ])
    expect(why(await beginCase(db, { ...other, file }, NOW))).toBe(says);
});

test('what makes no case, and what a case has not, is refused with a sentence', async () => {
  expect(why(await beginCase(db, { technician: 'A. Tester' }, NOW))).toMatch(/choose one/);
  const nobody = crypto.randomUUID();
  for (const answer of [
    await endCase(db, nobody, { finding: HEALTHY }, NOW),
    await putCaseOnBench(db, nobody, NOW),
    await lookInCase(db, nobody, { item: 'x' }),
    await passWait(db, nobody, NOW),
    await caseFile(db, nobody),
  ])
    expect(why(answer as Outcome<unknown>)).toMatch(/no such practice case/);
  expect([await findCase(db, nobody), await caseOfJob(db, nobody)]).toEqual([null, null]);
  const one = value(
    await beginCase(db, { technician: 'A. Tester', kind: KIND, level: 1, seed: 4720 }, LATER),
  );
  expect(why(await passWait(db, one.id, LATER))).toBe('No wait is running.');
  expect(why(await lookInCase(db, one.id, { item: 'nothing' }))).toMatch(/not to be looked at now/);
  expect((await listCases(db))[0]!.id).toBe(one.id);
  expect((await caseOfJob(db, one.jobId))!.id).toBe(one.id);
});

test('only what the test asks for now is looked at, the same each time, and a changed part takes its sign away', async () => {
  // A seed whose fault shows at a look.
  const seed = Array.from({ length: 400 }, (_, i) => i + 1).find((candidate) => {
    const [[id] = ['']] = drawCase(family, practiceGauges(KIND), 1, candidate).truth.faults;
    return Object.keys(family.faults.find((one) => one.id === id)!.signs).length > 0;
  })!;
  const one = await begin({ seed });
  const [[id] = ['']] = truthOf(one, seed).faults;
  const fault = family.faults.find((other) => other.id === id)!;
  const [[item, sign]] = Object.entries(fault.signs) as [[string, string]];
  expect(why(await lookInCase(db, one.id, { item }))).toBe('That is not to be looked at now.');
  expect(await upTo(one, (asked) => asked === item)).toBe('reached');
  const seen = value(await lookInCase(db, one.id, { item }));
  expect(seen.answer).toBe(sign);
  expect(value(await lookInCase(db, one.id, { item }))).toEqual(seen);
  // Once the part was renewed, the re-test is what is gone on with, and nothing is seen on it any more.
  expect(await upTo(one)).toBe('ended');
  for (const fitted of fault.parts) value(await addNote(db, one.jobId, part(fitted), LATER));
  const again = value(await startRetest(db, one.jobId, LATER));
  expect(again.continues).toBe(one.runId);
  expect(value(await putCaseOnBench(db, one.id, LATER))).toEqual({ run: again.id });
  expect(await upTo({ runId: again.id }, (asked) => asked === item)).toBe('reached');
  expect(value(await lookInCase(db, one.id, { item })).answer).not.toBe(sign);
  expect(await upTo({ runId: again.id })).toBe('ended');
  // A whole test is made with the gauges of the simulated bench as well, and with none of the Shelf.
  expect(value(await startRun(db, one.jobId, LATER)).context.shelf).toEqual(practiceGauges(KIND));
  // Before anything was tested, it may be opened.
  const fresh = await begin({ seed });
  for (const fitted of fault.parts) value(await addNote(db, fresh.jobId, part(fitted), NOW));
  value(await putCaseOnBench(db, fresh.id, NOW));
  expect((await benchNow()).own).toEqual(truthOf(fresh, seed).made);
});

test('a wait passes at once: on the bench and by the case’s clock, and no other run’s clock may be ahead', async () => {
  const one = await begin({ seed: 4715 });
  expect(why(await passWait(db, one.id, NOW))).toBe('No wait is running.');
  expect(await upTo(one, (_, kind) => kind === 'wait')).toBe('reached');
  const run = (await findRun(db, one.runId))!;
  const action = nextAction(run.context.procedure, stateOf(run));
  if (action.kind !== 'item' || action.item.kind !== 'wait') throw new Error('no wait');
  const { item } = action;
  let at = Date.parse(run.events.at(-1)!.at);
  const send = async (type: 'wait-started' | 'wait-ended', ahead_ms = 0) => {
    const { events } = (await findRun(db, one.runId))!;
    const event = { type, item: item.id, id: crypto.randomUUID(), at: new Date(at + ahead_ms).toISOString() };
    const sent = { expectedVersion: events.length, events: [event] };
    return appendEvent(db, one.runId, sent, new Date(at).toISOString());
  };
  if (item.starts === 'key') value(await send('wait-started'));
  at += 1000;
  expect(why(await send('wait-ended', 3_600_000))).toMatch(/ahead of the clock/);
  const t_s = async () => (await (await practiceBench()).bench).stands.t_s;
  const from_s = await t_s();
  let passed = value(await passWait(db, one.id, new Date(at).toISOString()));
  while (passed.left_s > 0) passed = value(await passWait(db, one.id, new Date(at).toISOString()));
  expect((await t_s()) - from_s).toBeGreaterThanOrEqual(item.duration_s - 2);
  expect(passed.ahead_ms / 1000).toBeGreaterThanOrEqual(item.duration_s - 2);
  expect((await findCase(db, one.id))!.ahead_ms).toBe(passed.ahead_ms);
  value(await send('wait-ended', passed.ahead_ms));
  expect(stateOf((await findRun(db, one.runId))!).waits[item.id]?.endedAt).toBeTruthy();
});

test('what was begun on another machine cannot be read, and says so', async () => {
  const one = await begin({ seed: 4716 });
  rmSync(path.join(folder, 'practice.key'));
  for (const refused of [
    await endCase(db, one.id, { finding: UNKNOWN }, NOW),
    await putCaseOnBench(db, one.id, NOW),
    await lookInCase(db, one.id, { item: 'any' }),
  ])
    expect(why(refused)).toMatch(/begun on another machine/);
});
