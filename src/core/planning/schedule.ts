import { costOf, type Crew, type DayPlan, type Placed, type Task } from './day';

/** A stretch of time in which something is taken. */
interface Taken {
  readonly from: number;
  readonly until: number;
}

/** Days that a plan reaches over, and minutes of each. */
const DAYS = 7;
const DAY_MIN = 1440;
/** Slack for sums of minutes. */
const TINY = 1e-9;

/** When something is taken, in order of time. */
class Timeline {
  private readonly taken: Taken[] = [];

  /** The earliest time from a given one at which so long is free. */
  earliest(from: number, long: number): number {
    let at = from;
    for (const one of this.taken) {
      if (one.until <= at + TINY) continue;
      if (one.from >= at + long - TINY) break;
      at = one.until;
    }
    return at;
  }

  take(from: number, until: number): void {
    if (until - from <= TINY) return;
    const place = this.taken.findIndex((one) => one.from > from);
    if (place < 0) this.taken.push({ from, until });
    else this.taken.splice(place, 0, { from, until });
  }

  /** The end of whatever stands in the way of a stretch; null where nothing does. */
  inTheWay(from: number, until: number): number | null {
    const one = this.taken.find((of) => of.from < until - TINY && of.until > from + TINY);
    return one ? one.until : null;
  }

  get ends(): number[] {
    return this.taken.map(({ until }) => until);
  }

  /** How many of its stretches stand at once within a stretch, at the most, and when the first of those ends. */
  crowd(from: number, until: number): { readonly most: number; readonly freeAt: number } {
    const within = this.taken.filter((one) => one.from < until - TINY && one.until > from + TINY);
    const most = within.reduce(
      (found, { from: at }) =>
        Math.max(
          found,
          within.filter((one) => one.from <= Math.max(at, from) + TINY && one.until > Math.max(at, from) + TINY).length,
        ),
      0,
    );
    return { most, freeAt: Math.min(Infinity, ...within.map((one) => one.until)) };
  }
}

/** Everything that is taken so far. */
class Day {
  private readonly people = new Map<string, Timeline>();
  private readonly gauges = new Map<string, Timeline>();
  private readonly benches = new Timeline();
  readonly placed: Placed[] = [];
  readonly finish: Record<string, number> = {};

  constructor(private readonly crew: Crew) {
    for (const { id, from_min, until_min } of crew.technicians) {
      const time = new Timeline();
      // Who goes home comes again on the next day.
      for (let day = 0; day < DAYS; day += 1) time.take(until_min + day * DAY_MIN, from_min + (day + 1) * DAY_MIN);
      this.people.set(id, time);
    }
  }

  /** Lays a job out as early as it goes, by whoever has it done first. What was laid out before stays. */
  lay(task: Task): void {
    const all = this.crew.technicians;
    const own = all.filter(({ id }) => id === task.technician);
    const ways = (own.length > 0 ? own : all).map(({ id, from_min }) => this.wayOf(task, id, from_min));
    const best = ways.reduce((one, other) => (endOf(other) < endOf(one) - TINY ? other : one));
    const [from, until] = [best[0]!.from_min, endOf(best)];
    for (const { technician, from_min, attendedUntil_min } of best)
      this.people.get(technician)!.take(from_min, attendedUntil_min);
    if (task.onBench) this.benches.take(from, until);
    for (const tag of task.gauges) this.gaugeOf(tag).take(from, until);
    this.placed.push(...best);
    this.finish[task.id] = until;
  }

  private gaugeOf(tag: string): Timeline {
    const known = this.gauges.get(tag);
    if (known) return known;
    const made = new Timeline();
    this.gauges.set(tag, made);
    return made;
  }

  /** A job by one technician, each step as early as it goes, begun as early as its bench and gauges let it. */
  private wayOf(task: Task, technician: string, comes_min: number): Placed[] {
    const time = this.people.get(technician)!;
    let start = Math.max(task.ready_min, comes_min);
    for (;;) {
      const way = this.from(task, technician, time, start);
      const [first, end] = [way[0]!.from_min, endOf(way)];
      const free = this.freeFor(task, first, end);
      if (free === null) return way;
      start = Math.max(free, first + TINY);
    }
  }

  private from({ id, segments }: Task, technician: string, time: Timeline, start: number): Placed[] {
    let at = start;
    return segments.map(({ attended_min, waiting_min }, segment) => {
      const from_min = time.earliest(at, attended_min);
      const attendedUntil_min = from_min + attended_min;
      at = attendedUntil_min + waiting_min;
      return { task: id, segment, technician, from_min, attendedUntil_min, until_min: at };
    });
  }

  /** When to try again, where its bench or a gauge is taken; null where both are free. */
  private freeFor({ onBench, gauges, begun }: Task, from: number, until: number): number | null {
    if (begun) return null;
    const ends = gauges.flatMap((tag) => this.gaugeOf(tag).inTheWay(from, until) ?? []);
    const { most, freeAt } = this.benches.crowd(from, until);
    if (onBench && most >= this.crew.benches) ends.push(freeAt);
    return ends.length > 0 ? Math.max(...ends) : null;
  }
}

const endOf = (way: readonly Placed[]): number => way.at(-1)!.until_min;

/**
 * A day by an order of its jobs: each is laid into what those before it leave free, every step as early as it goes. Jobs that are under
 * way come first.
 *
 * @throws RangeError where nobody is there, or no bench
 */
export function layOut(tasks: readonly Task[], crew: Crew, order: readonly string[]): DayPlan {
  if (crew.technicians.length === 0) throw new RangeError('crew: nobody is there');
  if (!(crew.benches >= 1)) throw new RangeError('crew: there is no bench');
  const day = new Day(crew);
  const byId = new Map(tasks.map((task) => [task.id, task]));
  const sorted = order.flatMap((id) => byId.get(id) ?? []);
  const all = [...sorted.filter(({ begun }) => begun), ...sorted.filter(({ begun }) => !begun)];
  for (const task of all) day.lay(task);
  return {
    placed: day.placed,
    order: all.map(({ id }) => id),
    finish_min: day.finish,
    cost: costOf(tasks, day.finish),
  };
}
