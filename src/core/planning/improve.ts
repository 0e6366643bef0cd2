import { minutesOf, type Crew, type DayPlan, type Task } from './day';
import { layOut } from './schedule';

/** What is left as it is: jobs that somebody put in their places, in that order, before all others that come after them. */
export interface Fixed {
  /** Jobs of which the order among each other was fixed by hand. */
  readonly order: readonly string[];
}

/** Orders to begin with: by promise, by length, and by where most goes on by itself. */
function beginnings(tasks: readonly Task[]): string[][] {
  const by = (key: (task: Task) => number) =>
    [...tasks].sort((a, b) => key(a) - key(b)).map(({ id }) => id);
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

/**
 * The best order that is found: it begins with some that are obvious, and goes on by moving one job at a time and by swapping two, now
 * and then to a worse one so as not to stay on a hill (simulated annealing).
 *
 * @param rounds orders that are tried
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
  const laid = (order: readonly string[]) => layOut(tasks, crew, keeping(order, fixed));
  const starts = beginnings(tasks).map(laid);
  let best = starts.reduce((one, other) => (other.cost < one.cost ? other : one));
  if (tasks.length < 2) return best;
  let now = best;
  const warm = best.cost / tasks.length / 10;
  for (let round = 0; round < rounds; round += 1) {
    if (round % LOOKS === 0 && isOver()) break;
    const order = moved(now.order, random);
    const other = laid(order);
    const cool = warm * (1 - round / rounds) ** 2;
    if (other.cost <= now.cost || random() < Math.exp((now.cost - other.cost) / Math.max(cool, 1e-9)))
      now = other;
    if (other.cost < best.cost) best = other;
  }
  return best;
}

/** Orders between two looks at the clock. */
const LOOKS = 16;

/** One job taken out and put in elsewhere, or two swapped. */
function moved(order: readonly string[], random: () => number): string[] {
  const next = [...order];
  const any = () => Math.floor(random() * next.length);
  const [i, j] = [any(), any()];
  if (random() < 0.5) [next[i], next[j]] = [next[j]!, next[i]!];
  else next.splice(j, 0, ...next.splice(i, 1));
  return next;
}
