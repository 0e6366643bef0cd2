import { minutesOf, type Crew, type DayPlan, type Task } from './day';
import { layOut } from './schedule';

/** What is left as it is: jobs that somebody put into an order. Others may come between them. */
export interface Fixed {
  readonly order: readonly string[];
}

/** Orders to begin with: by promise, by length, and by where most goes on by itself. */
function beginnings(tasks: readonly Task[]): string[][] {
  const by = (key: (task: Task) => number) => [...tasks].sort((a, b) => key(a) - key(b)).map(({ id }) => id);
  const length = (task: Task) => minutesOf(task).attended + minutesOf(task).waiting;
  return [
    by(({ due_min }) => due_min ?? 1e6),
    by(length),
    by((task) => -minutesOf(task).waiting),
    by((task) => (task.due_min ?? 1e6) - length(task)),
  ];
}

/** An order in which the jobs that were fixed by hand come as they were fixed, in the places that they have. */
function keeping(order: readonly string[], { order: fixed }: Fixed): string[] {
  const held = fixed.filter((id) => order.includes(id));
  let next = 0;
  return order.map((id) => (held.includes(id) ? held[next++]! : id));
}

/** Whether jobs that were fixed by hand begin in their order. */
const keeps = ({ order }: DayPlan, { order: fixed }: Fixed): boolean =>
  order.filter((id) => fixed.includes(id)).every((id, i) => id === fixed[i]);

/**
 * The best day that is found: it begins with some that are obvious, and goes on by moving one step or one job and by swapping two, now
 * and then to a worse one so as not to stay on a hill (simulated annealing).
 *
 * @param rounds days that are tried
 * @param random even chance from 0 to 1
 * @param isOver asked now and then: whether there is no more time
 */
export function bestPlan(
  tasks: readonly Task[],
  crew: Crew,
  fixed: Fixed,
  rounds: number,
  random: () => number,
  isOver: () => boolean = () => false,
): DayPlan {
  const stepsOf = new Map(tasks.map(({ id, segments }) => [id, segments.length]));
  const inFull = (order: readonly string[]) =>
    order.flatMap((id) => Array.from({ length: stepsOf.get(id)! }, () => id));
  const starts = beginnings(tasks).map((order) => layOut(tasks, crew, inFull(keeping(order, fixed))));
  // The order by hand itself is kept by doing one job after the other, whatever that costs.
  const kept = starts.filter((plan) => keeps(plan, fixed));
  let best = (kept.length > 0 ? kept : [inTurn(tasks, crew, fixed)]).reduce((one, other) =>
    other.cost < one.cost ? other : one,
  );
  if (tasks.length < 2) return best;
  let now = best;
  let given: Given = {};
  let found = 0;
  const warm = best.cost / tasks.length / 10;
  for (let round = 0; round < rounds; round += 1) {
    if (round - found > PATIENCE || (round % LOOKS === 0 && isOver())) break;
    const hands =
      crew.technicians.length > 1 && random() < HANDED ? handed(given, tasks, crew, random) : given;
    const sequence = hands === given ? moved(now.sequence, random) : now.sequence;
    const other = layOut(byHand(tasks, hands), crew, sequence);
    if (!keeps(other, fixed)) continue;
    const cool = warm * (1 - round / rounds) ** 2;
    if (other.cost <= now.cost || random() < Math.exp((now.cost - other.cost) / Math.max(cool, 1e-9)))
      [now, given] = [other, hands];
    if (other.cost < best.cost) [best, found] = [other, round];
  }
  return best;
}

/** Days between two looks at the clock. */
const LOOKS = 16;
/** So many days without a better one, and it is enough. */
const PATIENCE = 6000;

/** Who does a job, where it is not whoever comes to it the soonest. */
type Given = Readonly<Record<string, string>>;
/** How often another one is tried. */
const HANDED = 0.15;

/** The same with one job given to somebody, or to whoever comes the soonest. */
function handed(given: Given, tasks: readonly Task[], { technicians }: Crew, random: () => number): Given {
  const { id } = tasks[Math.floor(random() * tasks.length)]!;
  const who = technicians[Math.floor(random() * (technicians.length + 1))];
  const { [id]: _, ...rest } = given;
  return who ? { ...rest, [id]: who.id } : rest;
}

/** What was given by hand stays so. */
const byHand = (tasks: readonly Task[], given: Given): Task[] =>
  tasks.map((task) => {
    const technician = task.technician ?? given[task.id];
    return technician === undefined ? task : { ...task, technician };
  });

/** Jobs by hand begin one after the other: each is not begun before the one in front of it. */
function inTurn(tasks: readonly Task[], crew: Crew, { order: fixed }: Fixed): DayPlan {
  const rest = tasks.filter(({ id }) => !fixed.includes(id)).map(({ id }) => id);
  let held = [...tasks];
  let plan = layOut(held, crew, [...fixed, ...rest]);
  for (const [i, id] of fixed.entries()) {
    const before = plan.placed.find(({ task, segment }) => task === fixed[i - 1] && segment === 0)?.from_min;
    if (before === undefined) continue;
    held = held.map((task) =>
      task.id === id ? { ...task, ready_min: Math.max(task.ready_min, before) } : task,
    );
    plan = layOut(held, crew, [...fixed, ...rest]);
  }
  return plan;
}

/** One step taken out and put in elsewhere, two swapped, or all of a job brought together at one place. */
function moved(sequence: readonly string[], random: () => number): string[] {
  const next = [...sequence];
  const any = () => Math.floor(random() * next.length);
  const [i, j] = [any(), any()];
  const way = random();
  if (way < 0.4) [next[i], next[j]] = [next[j]!, next[i]!];
  else if (way < 0.8) next.splice(j, 0, ...next.splice(i, 1));
  else {
    const id = next[i]!;
    const others = next.filter((one) => one !== id);
    others.splice(Math.min(j, others.length), 0, ...next.filter((one) => one === id));
    return others;
  }
  return next;
}
