import { gaussian, seeded } from '../numeric/chance';
import type { Crew, DayPlan, Task } from './day';
import { bestPlan, type Fixed } from './improve';
import { layOut } from './schedule';

/** How much longer tests take than their steps say, by what they took: natural logarithms of taken over planned. */
export interface Spread {
  readonly mean: number;
  readonly sd: number;
  /** Tests that it is known from. */
  readonly tests: number;
}

/** What is supposed of a shop of which nothing is known, and as how many tests that counts. Judgement. */
const SUPPOSED = { mean: 0.1, sd: 0.35, tests: 4 } as const;

/** How long tests of this shop take beside what their steps say. @param ratios taken over planned, each above zero */
export function spreadOf(ratios: readonly number[]): Spread {
  const logs = ratios.map(Math.log);
  const n = logs.length + SUPPOSED.tests;
  const mean = (logs.reduce((sum, one) => sum + one, 0) + SUPPOSED.tests * SUPPOSED.mean) / n;
  const own = logs.reduce((sum, one) => sum + (one - mean) ** 2, 0);
  const supposed = SUPPOSED.tests * (SUPPOSED.sd ** 2 + (SUPPOSED.mean - mean) ** 2);
  return { mean, sd: Math.sqrt((own + supposed) / n), tests: logs.length };
}

/** What a day is planned from. */
export interface ToPlan {
  readonly tasks: readonly Task[];
  readonly crew: Crew;
  readonly fixed: Fixed;
  readonly spread: Spread;
}

/** A promise that is not kept: by how much, and what stands in the way. */
export interface Late {
  readonly task: string;
  readonly by_min: number;
  readonly why:
    | { readonly is: 'long' }
    /** Without this other job it would be done so much earlier. */
    | { readonly is: 'behind'; readonly task: string; readonly earlier_min: number }
    | { readonly is: 'many' };
}

/** A day as it is told. */
export interface WorkedOut {
  readonly plan: DayPlan;
  /** Within these each job is done in eight of ten days, min. */
  readonly range_min: Readonly<Record<string, readonly [number, number]>>;
  readonly late: readonly Late[];
}

const SEED = 20_261_130;
const MOST_ROUNDS = 20_000;
/** Days that are drawn for the ranges, and the part of them that lies below and above. */
const DRAWS = 100;
const TAIL = 0.1;

/** The tasks with their attended minutes as they are taken, not as they are planned; waits are what they are. */
const taking = (tasks: readonly Task[], factor: (task: Task) => number): Task[] =>
  tasks.map((task) => ({
    ...task,
    segments: task.segments.map((one) => ({ ...one, attended_min: one.attended_min * factor(task) })),
  }));

/** The same jobs by those who do them in a plan. */
function asIn({ placed }: DayPlan, tasks: readonly Task[]): Task[] {
  const by = new Map(placed.map(({ task, technician }) => [task, technician]));
  return tasks.map((task) => ({ ...task, technician: by.get(task.id)! }));
}

/** Plans a day. @param isOver asked now and then whether there is no more time */
export function workOut({ tasks, crew, fixed, spread }: ToPlan, isOver?: () => boolean): WorkedOut {
  const random = seeded(SEED);
  const usual = taking(tasks, () => Math.exp(spread.mean));
  const plan = bestPlan(usual, crew, fixed, MOST_ROUNDS, random, isOver);
  const drawn = Array.from({ length: DRAWS }, () => {
    const day = taking(tasks, () => Math.exp(spread.mean + spread.sd * gaussian(random)));
    return layOut(asIn(plan, day), crew, plan.sequence).finish_min;
  });
  const range = (id: string): readonly [number, number] => {
    const ends = drawn.map((finish) => finish[id]!).sort((a, b) => a - b);
    const at = (part: number) => ends[Math.round(part * (ends.length - 1))]!;
    return [Math.min(at(TAIL), plan.finish_min[id]!), Math.max(at(1 - TAIL), plan.finish_min[id]!)];
  };
  return {
    plan,
    range_min: Object.fromEntries(tasks.map(({ id }) => [id, range(id)])),
    late: usual.flatMap((task) => lateOf(task, usual, crew, plan) ?? []),
  };
}

/** Why a promise is not kept; null where it is. */
function lateOf(task: Task, tasks: readonly Task[], crew: Crew, plan: DayPlan): Late | null {
  const end = plan.finish_min[task.id]!;
  if (task.due_min === null || end <= task.due_min) return null;
  const by_min = end - task.due_min;
  const alone = layOut([task], crew, [task.id]).finish_min[task.id]!;
  if (alone > task.due_min) return { task: task.id, by_min, why: { is: 'long' } };
  const gains = tasks
    .filter(({ id }) => id !== task.id)
    .map(({ id }) => {
      const rest = tasks.filter((one) => one.id !== id);
      return { id, earlier_min: end - layOut(asIn(plan, rest), crew, plan.sequence).finish_min[task.id]! };
    })
    .sort((a, b) => b.earlier_min - a.earlier_min);
  const [most] = gains;
  return most && most.earlier_min >= by_min / 2
    ? { task: task.id, by_min, why: { is: 'behind', task: most.id, earlier_min: most.earlier_min } }
    : { task: task.id, by_min, why: { is: 'many' } };
}
