/** @jest-environment node */
import type { Knex } from 'knex';
import type { DayView } from '@/core/planning/day-view';
import { dayCalendarOf } from './calendar';
import { calendarEntries, changeDay, dayPlan } from './day';
import { Desk, taken, whyNot } from './demo/desk';
import { FIXTURE_NOW } from './demo/fixture';
import { addJob } from './jobs';
import { startRun } from './runs';

const AT = { day: '2026-11-24', now_min: 600, now_ms: Date.parse(FIXTURE_NOW) };
let desk: Desk;
let db: Knex;
beforeAll(async () => {
  desk = await Desk.open();
  db = desk.db;
});
afterAll(() => desk.close());

const tagsOf = ({ plan, tasks }: DayView) => plan.order.map((id) => tasks.find((one) => one.id === id)!.tag);

test('every job that waits stands in the day with its times, a range around them and who does it', async () => {
  const view = taken(await dayPlan(db, AT));
  expect(view.tasks.length).toBeGreaterThan(2);
  expect(new Set(view.plan.placed.map(({ task }) => task)).size).toBe(view.tasks.length);
  for (const { id, gauges, segments } of view.tasks) {
    const [low, high] = view.range_min[id]!;
    expect(low).toBeLessThanOrEqual(view.plan.finish_min[id]!);
    expect(high).toBeGreaterThanOrEqual(view.plan.finish_min[id]!);
    expect(gauges.length).toBeGreaterThan(0);
    expect(segments.length).toBeGreaterThan(0);
    expect(view.plan.placed.find(({ task }) => task === id)!.from_min).toBeGreaterThanOrEqual(600);
  }
  expect(view.body).toMatchObject({ benches: 2, order: [], given: {} });
});

test('an order by hand is kept as a job is begun and as somebody goes home, and another screen is told', async () => {
  const first = taken(await dayPlan(db, AT));
  const open = first.tasks.filter(({ begun }) => !begun);
  const order = first.plan.order.filter((id) => open.some((one) => one.id === id)).toReversed();
  expect(order.length).toBeGreaterThan(2);
  const fixed = taken(await changeDay(db, { version: 0, body: { ...first.body, order } }, AT));
  expect(fixed).toMatchObject({ version: 1, body: { order } });
  const begins = (view: DayView) => view.plan.order.filter((id) => order.includes(id));
  expect(begins(fixed)).toEqual(order);
  expect(whyNot(await changeDay(db, { version: 0, body: first.body }, AT))).toMatch(/Another screen changed/);
  // Begun, and nothing read yet: it stands where it stood.
  const waiting = fixed.tasks.find(({ begun }) => !begun)!;
  taken(await startRun(db, waiting.id, FIXTURE_NOW));
  expect(begins(taken(await dayPlan(db, AT)))).toEqual(order);
  // Another job is taken in: it is laid between them, and moves none of them.
  const { body: like } = await desk.jobOf('GF-0424');
  const added = taken(await addJob(db, { ...like, tag: 'GF-9001', promisedOn: AT.day }, FIXTURE_NOW));
  const fuller = taken(await dayPlan(db, AT));
  expect(fuller.tasks.map(({ id }) => id)).toContain(added.id);
  expect(begins(fuller)).toEqual(order);
  // A wait that runs over: half an hour later everything that is left is laid out from then on, in that order.
  const later = taken(await dayPlan(db, { ...AT, now_min: AT.now_min + 30, now_ms: AT.now_ms + 1_800_000 }));
  expect(begins(later)).toEqual(order);
  expect(Math.min(...later.plan.placed.map(({ from_min }) => from_min))).toBeGreaterThanOrEqual(630);
  // Home at eleven: what is not done by then is done on the next day, and nobody's job is dropped.
  const technicians = fixed.body.technicians.map((one) => ({ ...one, until: '11:00' }));
  const short = taken(await changeDay(db, { version: 1, body: { ...fixed.body, technicians } }, AT));
  expect(begins(short)).toEqual(order);
  expect(tagsOf(short).toSorted()).toEqual(tagsOf(fuller).toSorted());
  expect(Math.max(...Object.values(short.plan.finish_min))).toBeGreaterThan(1440);
});

test('a day takes thirty jobs, those that were promised the soonest, and says how many it leaves out', async () => {
  const few = taken(await dayPlan(db, AT));
  expect(few.left).toBe(0);
  const { body: like } = await desk.jobOf('GF-0424');
  const added: string[] = [];
  for (let i = few.tasks.length; i < 33; i += 1) {
    const job = { ...like, tag: `GF-8${100 + i}`, promisedOn: '2027-02-01' };
    added.push(taken(await addJob(db, job, FIXTURE_NOW)).id);
  }
  const many = taken(await dayPlan(db, AT));
  expect(many.tasks).toHaveLength(30);
  expect(many.left).toBe(3);
  const planned = many.tasks.map(({ id }) => id);
  expect(planned).toEqual(expect.arrayContaining(few.tasks.map(({ id }) => id)));
  await db('jobs').whereIn('id', added).update({ archived: true });
});

test('a promise that cannot be kept says which, by how much and why', async () => {
  const { body, tasks } = taken(await dayPlan(db, AT));
  const { id, due_min } = tasks.find((one) => one.due_min !== null)!;
  // On the day that it is promised for, a minute after midnight, at ten.
  const on = new Date(Date.parse(`${AT.day}T00:00:00Z`) + Math.floor(due_min! / 1440) * 86_400_000);
  const at = { ...AT, day: on.toISOString().slice(0, 10) };
  const promised = { [id]: '00:01' };
  const view = taken(await changeDay(db, { version: 0, body: { ...body, order: [], promised } }, at));
  expect(view.tasks.find((one) => one.id === id)!.due_min).toBe(1);
  const said = view.late.find(({ task }) => task === id)!;
  expect(said.by_min).toBeCloseTo(view.plan.finish_min[id]! - 1);
  expect(said.by_min).toBeGreaterThan(599);
  expect(said.why).toEqual({ is: 'long' });
});

test.each([
  [{ benches: 0 }, 'Benches: one at least.'],
  [{ benches: 1.5 }, 'Benches: a whole number.'],
  [{ technicians: [] }, undefined],
])('%j is refused, and the day stays as it was', async (change, says) => {
  const before = taken(await dayPlan(db, AT));
  const outcome = await changeDay(db, { version: before.version, body: { ...before.body, ...change } }, AT);
  expect(outcome.ok).toBe(false);
  if (says) expect(whyNot(outcome)).toBe(says);
  expect(taken(await dayPlan(db, AT)).body).toEqual(before.body);
});

test('nobody at all is refused, and so are hours that run back', async () => {
  const { version, body } = taken(await dayPlan(db, AT));
  const people = (more: object) => body.technicians.map((one) => ({ ...one, ...more }));
  const change = (technicians: object[]) => changeDay(db, { version, body: { ...body, technicians } }, AT);
  expect(whyNot(await change(people({ here: false })))).toBe('Somebody has to be here.');
  expect(whyNot(await change(people({ from: '17:00', until: '08:00' })))).toBe('Until: later than from.');
});

test('a new day begins with who and what there was last, and with nothing fixed', async () => {
  const last = { ...AT, day: '2026-12-30' };
  const { version, body, plan } = taken(await dayPlan(db, last));
  taken(await changeDay(db, { version, body: { ...body, benches: 5, order: plan.order } }, last));
  const next = taken(await dayPlan(db, { ...AT, day: '2026-12-31' }));
  expect(next).toMatchObject({ version: 0, body: { benches: 5, order: [], given: {}, promised: {} } });
});

test('a calendar has each job from its beginning to its end, in the time of the place, over midnight as well', () => {
  const text = dayCalendarOf('2026-12-31', [
    { uid: 'plan-a', title: 'GF-1: Pell', description: 'Why', from_min: 545, until_min: 620 },
    { uid: 'plan-b', title: 'GF-2: Pell', description: 'Why', from_min: 1000, until_min: 1440 + 490 },
  ]);
  expect(text).toContain('DTSTART:20261231T090500');
  expect(text).toContain('DTEND:20261231T102000');
  expect(text).toContain('DTEND:20270101T081000');
  expect(text).toContain('SUMMARY:GF-1: Pell');
});

test('what a calendar is told is what the day says', async () => {
  const view = taken(await dayPlan(db, AT));
  const entries = calendarEntries(view);
  expect(entries.map(({ uid }) => uid)).toEqual(view.tasks.map(({ id }) => `plan-${id}`));
  entries.forEach(({ until_min }, i) => expect(until_min).toBe(view.plan.finish_min[view.tasks[i]!.id]));
});
