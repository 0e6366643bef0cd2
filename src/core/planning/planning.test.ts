import fc from 'fast-check';
import { seeded } from '../numeric/chance';
import { costOf, minutesOf, type Crew, type DayPlan, type Task } from './day';
import { bestPlan } from './improve';
import { clockWords, minutesFrom, rangeWords, spanWords } from './day-body';
import { layOut } from './schedule';
import { spreadOf, workOut } from './worked-out';

const DAY = { from_min: 480, until_min: 1020 };
const crewOf = (people: number, benches: number): Crew => ({
  technicians: Array.from({ length: people }, (_, i) => ({ id: `t${i}`, name: `T${i}`, ...DAY })),
  benches,
});
const task = (
  id: string,
  segments: readonly (readonly [attended: number, waiting: number])[],
  more: Partial<Task> = {},
): Task => ({
  id,
  tag: id,
  onBench: true,
  gauges: [],
  segments: segments.map(([attended_min, waiting_min], i) => ({
    step: `s${i}`,
    title: `Step ${i}`,
    attended_min,
    waiting_min,
  })),
  due_min: null,
  ready_min: 480,
  ...more,
});

describe('laid out by hand', () => {
  test('a second job goes into the wait of the first', () => {
    // 8:00 to 8:10 the first, which then waits until 9:10; the second from 8:10 to 8:40; the first again from 9:10 to 9:15.
    const plan = layOut(
      [
        task('a', [
          [10, 60],
          [5, 0],
        ]),
        task('b', [[30, 0]]),
      ],
      crewOf(1, 2),
      ['a', 'b'],
    );
    expect(plan.finish_min).toEqual({ a: 555, b: 520 });
    expect(plan.cost).toBe(555 + 520);
  });

  test('with one bench the second stands until the first is off it, and a vehicle does not', () => {
    const first = task('a', [
      [10, 60],
      [5, 0],
    ]);
    expect(layOut([first, task('b', [[30, 0]])], crewOf(1, 1), ['a', 'b']).finish_min['b']).toBe(555 + 30);
    const vehicle = task('b', [[30, 0]], { onBench: false });
    expect(layOut([first, vehicle], crewOf(1, 1), ['a', 'b']).finish_min['b']).toBe(520);
  });

  test('a gauge that both need keeps them apart, however many benches and technicians there are', () => {
    const gauges = ['G-12'];
    const two = [task('a', [[10, 60]], { gauges }), task('b', [[30, 0]], { gauges })];
    expect(layOut(two, crewOf(2, 2), ['a', 'b']).finish_min['b']).toBe(550 + 30);
  });

  test('what does not fit before somebody goes home is done on the next day, and a wait goes on over night', () => {
    // 16:50: half an hour is left until 17:00 for no more than ten minutes of it.
    const late = task('a', [[30, 0]], { ready_min: 1010 });
    expect(layOut([late], crewOf(1, 1), ['a']).finish_min['a']).toBe(1440 + 480 + 30);
    const over = task(
      'b',
      [
        [10, 600],
        [5, 0],
      ],
      { ready_min: 1000 },
    );
    expect(layOut([over], crewOf(1, 1), ['b']).finish_min['b']).toBe(1440 + 480 + 5);
  });

  test('who it was given to does it; a job under way is first, and stays on its bench', () => {
    const two = [task('a', [[30, 0]], { technician: 't1' }), task('b', [[30, 0]], { technician: 't1' })];
    const plan = layOut(two, crewOf(2, 2), ['a', 'b']);
    expect(plan.placed.map(({ technician }) => technician)).toEqual(['t1', 't1']);
    expect(plan.finish_min['b']).toBe(540);
    const begun = task('c', [[20, 0]], { begun: true });
    expect(layOut([task('a', [[30, 0]]), begun], crewOf(1, 1), ['a', 'c']).finish_min).toEqual({
      c: 500,
      a: 530,
    });
  });

  test('costs what customers wait, and ten times what is late', () => {
    const two = [task('a', [], { due_min: 500 }), task('b', [])];
    expect(costOf(two, { a: 530, b: 700 })).toBe(530 + 300 + 700);
    expect(
      minutesOf(
        task('a', [
          [10, 60],
          [5, 2],
        ]),
      ),
    ).toEqual({ attended: 15, waiting: 62 });
    expect(() => layOut(two, { technicians: [], benches: 1 }, ['a'])).toThrow(/nobody/);
    expect(() => layOut(two, crewOf(1, 0), ['a'])).toThrow(/no bench/);
  });
});

const anyDay = fc.record({
  seed: fc.integer({ min: 1, max: 1e9 }),
  jobs: fc.integer({ min: 1, max: 7 }),
  people: fc.integer({ min: 1, max: 3 }),
  benches: fc.integer({ min: 1, max: 3 }),
});
function daily({
  seed,
  jobs,
  people,
  benches,
}: {
  seed: number;
  jobs: number;
  people: number;
  benches: number;
}) {
  const random = seeded(seed);
  const up = (most: number) => Math.floor(random() * most);
  const tasks = Array.from({ length: jobs }, (_, i) =>
    task(
      `j${i}`,
      Array.from({ length: 1 + up(4) }, () => [5 + up(40), random() < 0.5 ? up(90) : 0] as const),
      {
        onBench: random() < 0.7,
        gauges: random() < 0.5 ? ['shared'] : [],
        due_min: random() < 0.6 ? 480 + up(600) : null,
        ready_min: 480 + up(60),
      },
    ),
  );
  return { tasks, crew: crewOf(people, benches), random };
}

/** Everything that no day may break. */
function holds(tasks: readonly Task[], crew: Crew, plan: DayPlan): void {
  const at = (id: string) => plan.placed.filter((one) => one.task === id);
  const spans = tasks.map((one) => ({
    ...one,
    from: at(one.id)[0]!.from_min,
    until: at(one.id).at(-1)!.until_min,
  }));
  for (const { id, segments, ready_min, from, until } of spans) {
    // Nobody's job is dropped, and its steps follow each other.
    expect(at(id).map(({ segment }) => segment)).toEqual(segments.map((_, i) => i));
    expect(from).toBeGreaterThanOrEqual(ready_min);
    expect(plan.finish_min[id]).toBe(until);
    expect(new Set(at(id).map(({ technician }) => technician)).size).toBe(1);
    at(id).forEach((one, i) => {
      expect(one.attendedUntil_min - one.from_min).toBeCloseTo(segments[i]!.attended_min);
      expect(one.until_min - one.attendedUntil_min).toBeCloseTo(segments[i]!.waiting_min);
      if (i > 0) expect(one.from_min).toBeGreaterThanOrEqual(at(id)[i - 1]!.until_min - 1e-6);
    });
  }
  const moments = plan.placed.flatMap(({ from_min, attendedUntil_min }) => [
    from_min + 1e-4,
    attendedUntil_min - 1e-4,
  ]);
  for (const t of [...moments, ...spans.map(({ from }) => from + 1e-4)]) {
    for (const { id, from_min, until_min } of crew.technicians) {
      const busy = plan.placed.filter(
        (one) => one.technician === id && one.from_min < t && one.attendedUntil_min > t,
      );
      expect(busy.length).toBeLessThanOrEqual(1);
      if (busy.length > 0) {
        expect(t % 1440).toBeGreaterThan(from_min - 1e-3);
        expect(t % 1440).toBeLessThan(until_min + 1e-3);
      }
    }
    const there = spans.filter(({ from, until }) => from < t && until > t);
    expect(there.filter(({ onBench }) => onBench).length).toBeLessThanOrEqual(crew.benches);
    expect(there.filter(({ gauges }) => gauges.includes('shared')).length).toBeLessThanOrEqual(1);
  }
}

test('a day never has a technician at two jobs, more units than benches or a gauge twice, whatever its order', () => {
  fc.assert(
    fc.property(anyDay, (of) => {
      const { tasks, crew } = daily(of);
      holds(
        tasks,
        crew,
        layOut(
          tasks,
          crew,
          tasks.map(({ id }) => id),
        ),
      );
    }),
  );
});

test('what is found is a day like that, at no more than by promise, and keeps the order that was fixed by hand', () => {
  fc.assert(
    fc.property(anyDay, (of) => {
      const { tasks, crew, random } = daily(of);
      const best = bestPlan(tasks, crew, { order: [] }, 60, random);
      holds(tasks, crew, best);
      const promised = [...tasks].sort((a, b) => (a.due_min ?? 1e6) - (b.due_min ?? 1e6)).map(({ id }) => id);
      expect(best.cost).toBeLessThanOrEqual(layOut(tasks, crew, promised).cost + 1e-6);
      const order = tasks.map(({ id }) => id).reverse();
      const kept = bestPlan(tasks, crew, { order }, 60, random);
      expect(kept.order).toEqual(order);
      const half = order.slice(0, Math.ceil(order.length / 2));
      const some = bestPlan(tasks, crew, { order: half }, 60, random);
      expect(some.order.filter((id) => half.includes(id))).toEqual(half);
      holds(tasks, crew, some);
    }),
    { numRuns: 30 },
  );
});

test('two jobs of which one is promised soon: the best is the one by hand', () => {
  // One technician, no waits: 60 and 20 minutes. The short one first costs 500 + 560 and nothing late; the long one first 540 + 560
  // and the short one 50 minutes late, 500 more.
  const two = [task('long', [[60, 0]]), task('short', [[20, 0]], { due_min: 510 })];
  const plan = bestPlan(two, crewOf(1, 2), { order: [] }, 50, seeded(1));
  expect(plan.order).toEqual(['short', 'long']);
  expect(plan.cost).toBe(500 + 560);
  expect(layOut(two, crewOf(1, 2), ['long', 'short']).cost).toBe(540 + 560 + 500);
});

test('where there is no more time, what was found so far is kept', () => {
  const { tasks, crew, random } = daily({ seed: 5, jobs: 7, people: 1, benches: 1 });
  let asked = 0;
  const plan = bestPlan(tasks, crew, { order: [] }, 1e9, random, () => (asked += 1) > 3);
  expect(asked).toBe(4);
  holds(tasks, crew, plan);
});

describe('how long tests take', () => {
  test('is supposed of a new shop, and known from the tests of one that has some', () => {
    expect(spreadOf([])).toEqual({ mean: 0.1, sd: 0.35, tests: 0 });
    // Four tests that took twice as long: (4 · ln 2 + 4 · 0.1)/8 = 0.39657; own part 4 · (0.69315 − 0.39657)² = 0.35184, supposed
    // 4 · (0.35² + 0.29657²) = 0.84182; √(1.19366/8) = 0.38627.
    const { mean, sd, tests } = spreadOf([2, 2, 2, 2]);
    expect(mean).toBeCloseTo(0.39657, 4);
    expect(sd).toBeCloseTo(0.38627, 4);
    expect(tests).toBe(4);
    // A thousand alike leave little doubt.
    expect(spreadOf(Array.from({ length: 1000 }, () => 2)).mean).toBeCloseTo(Math.log(2), 2);
  });

  test('makes the range: none where every test takes as long as planned, and waits stay what they are', () => {
    const one = task('a', [[60, 30]]);
    const sure = workOut({
      tasks: [one],
      crew: crewOf(1, 1),
      fixed: { order: [] },
      spread: { mean: 0, sd: 0, tests: 9 },
    });
    expect(sure.plan.finish_min['a']).toBe(570);
    expect(sure.range_min['a']).toEqual([570, 570]);
    const spread = { mean: Math.log(2), sd: 0.3, tests: 9 };
    const found = workOut({ tasks: [one], crew: crewOf(1, 1), fixed: { order: [] }, spread });
    expect(found.plan.finish_min['a']).toBeCloseTo(480 + 120 + 30);
    // Nine of ten lie below 120·e^(0.3·1.2816) = 176 minutes, one of ten below 82; of 100 days the tails are out by some minutes.
    const [low, high] = found.range_min['a']!;
    expect(Math.abs(low - (480 + 82 + 30))).toBeLessThan(15);
    expect(Math.abs(high - (480 + 176 + 30))).toBeLessThan(25);
  });
});

describe('what is late says why', () => {
  const spread = { mean: 0, sd: 0, tests: 0 };
  const lateOf = (tasks: Task[], order: string[]) =>
    workOut({ tasks, crew: crewOf(1, 2), fixed: { order }, spread }).late;

  test('by itself it takes longer than there is', () => {
    expect(lateOf([task('a', [[60, 0]], { due_min: 500 })], [])).toEqual([
      { task: 'a', by_min: 40, why: { is: 'long' } },
    ]);
  });

  test('it stands behind another one that was put before it', () => {
    const two = [task('long', [[60, 0]]), task('short', [[20, 0]], { due_min: 510 })];
    expect(lateOf(two, [])).toEqual([]);
    expect(lateOf(two, ['long', 'short'])).toEqual([
      { task: 'short', by_min: 50, why: { is: 'behind', task: 'long', earlier_min: 60 } },
    ]);
  });

  test('there is more than can be done, and no one job is in its way', () => {
    const many = Array.from({ length: 8 }, (_, i) => task(`j${i}`, [[30, 0]], { due_min: 510 }));
    const late = lateOf(
      many,
      many.map(({ id }) => id),
    );
    expect(late.map(({ by_min }) => by_min)).toEqual([30, 60, 90, 120, 150, 180, 210]);
    expect(late.at(-1)!.why).toEqual({ is: 'many' });
  });
});

test.each([
  [545, '09:05'],
  [0, '00:00'],
  [1439.7, '00:00 tomorrow'],
  [1440 + 490, '08:10 tomorrow'],
  [3 * 1440 + 60, '01:00 in 3 days'],
])('%d minutes from midnight are %s', (min, words) => {
  expect(clockWords(min)).toBe(words);
});

test('ranges and spans in words', () => {
  expect(rangeWords(545, 560)).toBe('09:05–09:20');
  expect(rangeWords(1440 + 490, 1440 + 550)).toBe('08:10–09:10 tomorrow');
  expect(rangeWords(1000, 1440 + 550)).toBe('16:40–09:10 tomorrow');
  expect(spanWords(45.4)).toBe('45 min');
  expect(spanWords(130)).toBe('2 h 10');
  expect(minutesFrom('08:30')).toBe(510);
});
