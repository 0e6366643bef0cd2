/** @jest-environment node */
import type { Knex } from 'knex';
import type { RunEvent } from '@/core/contract/events';
import { nextAction } from '@/core/procedure/next-action';
import { stateOf } from '@/core/records/judged-run';
import { Desk, newId, taken, whyNot } from './demo/desk';
import { FIXTURE_NOW as NOW } from './demo/fixture';
import { readRecord } from './record';
import { appendEvent, findRun, startSettling } from './runs';
import { verify } from './verify';

let desk: Desk;
let db: Knex;
beforeAll(async () => {
  desk = await Desk.open();
  db = desk.db;
});
afterAll(() => desk.close());

const lastRun = async (tag: string) => (await readRecord(db, (await desk.jobOf(tag)).id))!.runs.at(-1)!;

test('from the finished run: its readings go on, what makes safe is done again, and the third gauge is to come', async () => {
  const before = await lastRun('GF-0419');
  const run = taken(await startSettling(db, before.id, NOW));
  expect(run.continues).toBe(before.id);
  const step = run.context.procedure.steps.find(({ exchange }) => exchange)!;
  expect(step.exchange).toEqual({ out: 'G-22', in: 'T-05', against: 'G-12' });
  const state = stateOf(run);
  // What the finished run read still counts; what makes safe is to be done again.
  expect(
    state.captures.filter(({ item, stale }) => item.startsWith('bypass.') && !stale).length,
  ).toBeGreaterThan(5);
  expect(state.captures.filter(({ item, stale }) => item.startsWith('safe.') && !stale)).toEqual([]);
  const steps: string[] = [];
  let next = run;
  for (let i = 0; i < 12 && !steps.includes(step.id); i += 1) {
    const action = nextAction(next.context.procedure, stateOf(next));
    if (!('step' in action)) throw new Error(`nothing to do: ${action.kind}`);
    steps.push(action.step.id);
    const stamp = { id: newId(), at: NOW };
    const event: RunEvent | null =
      action.kind === 'acknowledge'
        ? { ...stamp, type: 'acknowledged', step: action.step.id }
        : action.kind === 'item' && action.item.kind === 'observation'
          ? { ...stamp, type: 'observed', item: action.item.id, answer: 'good', note: '' }
          : null;
    if (!event) break;
    taken(await appendEvent(db, run.id, { expectedVersion: next.events.length, events: [event] }, NOW));
    next = (await findRun(db, run.id))!;
  }
  // It is another day: the gauges are vented anew before anything is read.
  expect(steps.slice(0, 1)).toEqual(['cautions']);
  expect(steps.at(-1)).toBe('zeros');
  expect(stateOf(next).added).toEqual([step.id]);
  // Read back from the disk, the step is there still, and the journal holds together.
  expect((await findRun(db, run.id))!.context.procedure.steps).toEqual(run.context.procedure.steps);
  expect((await verify(db)).alterations).toEqual([]);
  expect(whyNot(await startSettling(db, before.id, NOW))).toMatch(/last test/);
});

test('a step that the gauges do not ask for is not added, nor one where none disagree', async () => {
  const open = await lastRun('GF-0423');
  const forged = { ...open.context.procedure.steps[1]!, id: 'exchange.A.B' };
  const events = [{ id: newId(), at: NOW, type: 'added', after: 'bypass', step: forged }];
  const answer = await appendEvent(db, open.id, { expectedVersion: open.events.length, events }, NOW);
  expect(whyNot(answer)).toMatch(/Nothing is to be settled here/);
  expect(whyNot(await startSettling(db, open.id, NOW))).toMatch(/once it is finished/);
  const sound = await lastRun('GF-0415');
  expect(whyNot(await startSettling(db, sound.id, NOW))).toMatch(/No two gauges of that test disagree/);
});
