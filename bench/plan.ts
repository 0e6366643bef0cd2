import highsLoader from 'highs';
import { LATE_COUNTS, type Crew, type Task } from '../src/core/planning/day';
import { bestPlan } from '../src/core/planning/improve';
import { seeded } from '../src/core/numeric/chance';

/**
 * Plans of small days beside the best there is, which a mixed-integer solver finds; and how long 30 jobs take.
 *
 *   npx tsx bench/plan.ts COUNT SEED
 */
const [count = '50', seed = '1'] = process.argv.slice(2);
/** All times are whole multiples of this, min: then the best plan of all is, too. */
const UNIT = 5;
const ROUNDS = 20_000;

/** A small day: three or four jobs of two to four steps, one or two technicians and benches, a gauge that two of them need. */
function smallDay(random: () => number): { tasks: Task[]; crew: Crew } {
  const whole = (from: number, to: number) => from + Math.floor(random() * (to - from + 1));
  const technicians = Array.from({ length: whole(1, 2) }, (_, i) => ({
    id: `t${i}`,
    name: `t${i}`,
    from_min: 0,
    until_min: 1440,
  }));
  const tasks = Array.from({ length: whole(3, 4) }, (_, i): Task => ({
    id: `j${i}`,
    tag: `j${i}`,
    onBench: random() < 0.7,
    gauges: random() < 0.5 ? ['shared'] : [`own${i}`],
    segments: Array.from({ length: whole(2, 4) }, (_, k) => ({
      step: `s${k}`,
      title: `s${k}`,
      attended_min: UNIT * whole(1, 3),
      waiting_min: random() < 0.6 ? UNIT * whole(0, 6) : 0,
    })),
    due_min: random() < 0.7 ? UNIT * whole(4, 24) : null,
    ready_min: random() < 0.2 ? UNIT * whole(1, 4) : 0,
  }));
  return { tasks, crew: { technicians, benches: whole(1, 2) } };
}

const highs = await highsLoader();

/** The best cost there is, by a time-indexed program: x of job, step, technician and time is 1 where the step begins then. */
function exact(tasks: readonly Task[], { technicians, benches }: Crew, most_min: number): number {
  const times = Math.ceil(most_min / UNIT);
  const people = technicians.map((_, r) => r);
  const x = (j: number, k: number, r: number, t: number) => `x_${j}_${k}_${r}_${t}`;
  const rows: string[] = [];
  const binaries: string[] = [];
  const goal: string[] = [];
  const units = tasks.map(({ segments }) =>
    segments.map(({ attended_min, waiting_min }) => ({ a: attended_min / UNIT, w: waiting_min / UNIT })),
  );
  /** A sum over technicians and times. */
  const sum = (j: number, k: number, of: (t: number) => number, until = times) =>
    people.flatMap((r) =>
      Array.from({ length: Math.max(0, Math.min(times, until)) }, (_, t) => [of(t), x(j, k, r, t)] as const),
    );
  const terms = (all: readonly (readonly [number, string])[]) =>
    all.map(([by, name]) => `${by < 0 ? '-' : '+'} ${Math.abs(by)} ${name}`).join(' ');
  tasks.forEach(({ due_min, ready_min }, j) => {
    const steps = units[j]!;
    steps.forEach((_, k) => {
      rows.push(`${terms(sum(j, k, () => 1))} = 1`);
      for (const r of people)
        for (let t = 0; t < times; t += 1) {
          binaries.push(x(j, k, r, t));
          if (k === 0 && t * UNIT < ready_min) rows.push(`${x(j, k, r, t)} = 0`);
        }
      // One technician does all of a job.
      if (k > 0)
        for (const r of people) {
          const own = (step: number, by: number) =>
            Array.from({ length: times }, (_, t) => [by, x(j, step, r, t)] as const);
          rows.push(`${terms([...own(0, 1), ...own(k, -1)])} = 0`);
        }
      const { a, w } = steps[k - 1] ?? { a: 0, w: 0 };
      // Whatever has begun by a time, what comes before it had so much earlier: a row for each time leaves the solver little to search.
      for (let t = 0; k > 0 && t < times; t += 1)
        rows.push(`${terms([...sum(j, k, () => 1, t + 1), ...sum(j, k - 1, () => -1, t + 1 - a - w)])} <= 0`);
    });
    const last = steps.length - 1;
    const { a, w } = steps[last]!;
    goal.push(terms(sum(j, last, (t) => t * UNIT)), `+ ${LATE_COUNTS} late_${j}`);
    if (due_min !== null)
      rows.push(`late_${j} ${terms(sum(j, last, (t) => -t * UNIT))} >= ${UNIT * (a + w) - due_min}`);
  });
  for (let at = 0; at < times; at += 1) {
    for (const r of people) {
      const busy = units.flatMap((steps, j) =>
        steps.flatMap(({ a }, k) =>
          Array.from({ length: a }, (_, back) => at - back).flatMap((t) =>
            t >= 0 ? [[1, x(j, k, r, t)] as const] : [],
          ),
        ),
      );
      if (busy.length > 0) rows.push(`${terms(busy)} <= 1`);
    }
    /** Begun by now, and not over. */
    const there = (j: number) => {
      const last = units[j]!.length - 1;
      const { a, w } = units[j]![last]!;
      return [...sum(j, 0, () => 1, at + 1), ...sum(j, last, () => -1, at + 1 - a - w)];
    };
    const shares = (which: (task: Task) => boolean, most: number) => {
      const all = tasks.flatMap((task, j) => (which(task) ? there(j) : []));
      if (all.length > 0) rows.push(`${terms(all)} <= ${most}`);
    };
    shares(({ onBench }) => onBench, benches);
    shares(({ gauges }) => gauges.includes('shared'), 1);
  }
  const program = `Minimize\n obj: ${goal.join(' ')}\nSubject To\n${rows.map((row, i) => ` c${i}: ${row}`).join('\n')}\nBounds\n${tasks.map((_, j) => ` late_${j} >= 0`).join('\n')}\nBinary\n ${binaries.join('\n ')}\nEnd\n`;
  const solved = highs.solve(program, { time_limit: 300 });
  if (solved.Status !== 'Optimal') throw new Error(solved.Status);
  const rest = units.reduce((all, steps) => all + UNIT * (steps.at(-1)!.a + steps.at(-1)!.w), 0);
  return solved.ObjectiveValue + rest;
}

const over: number[] = [];
for (let i = 0; i < Number(count); i += 1) {
  const random = seeded(Number(seed) * 1009 + i);
  const { tasks, crew } = smallDay(random);
  const plan = bestPlan(tasks, crew, { order: [] }, ROUNDS, seeded(i + 1));
  const best = exact(tasks, crew, Math.max(...Object.values(plan.finish_min)) + 15);
  over.push(plan.cost / best - 1);
  if (over.at(-1)! > 1e-6 || over.at(-1)! < -1e-6)
    console.log(`day ${i}: ${plan.cost} beside ${best}, ${(100 * over.at(-1)!).toFixed(2)} % over`);
}
const worst = Math.max(...over);
console.log(
  `${over.length} days: ${over.filter((one) => one < 1e-6).length} the best there is, at the most ${(100 * worst).toFixed(2)} % over, ${over.filter((one) => one > 0.05).length} by more than 5 %`,
);

const random = seeded(30);
const large = Array.from({ length: 10 }, () => smallDay(random).tasks)
  .flat()
  .slice(0, 30)
  .map((task, i): Task => ({
    ...task,
    id: `${i}`,
    segments: [...task.segments, ...task.segments, ...task.segments],
  }));
const crew: Crew = {
  technicians: ['a', 'b'].map((id) => ({ id, name: id, from_min: 0, until_min: 540 })),
  benches: 3,
};
const from = performance.now();
const plan = bestPlan(large, crew, { order: [] }, ROUNDS, seeded(2), () => performance.now() - from > 1800);
console.log(
  `${large.length} jobs: ${((performance.now() - from) / 1000).toFixed(2)} s, cost ${plan.cost.toFixed(0)}`,
);
