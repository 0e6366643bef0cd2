import { costOf, type Crew, type DayPlan, type Placed, type Task } from './day';

/** A stretch of time in which somebody is taken. */
interface Taken {
  readonly from: number;
  readonly until: number;
}

/** Days that a plan reaches over, and minutes of each. */
const DAYS = 7;
const DAY_MIN = 1440;
/** Slack for sums of minutes. */
const TINY = 1e-9;

/** When somebody is taken, in order of time. */
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
}

/** A job that is being laid out. */
interface Going {
  readonly task: Task;
  /** Segments that are laid out, who does them, and when the last one is over. */
  next: number;
  technician: string | null;
  end_min: number;
  /** It has one of the benches: what is under way may lie where there was none more. */
  hasBench: boolean;
}

/** A day that is laid out step by step: what was laid out before stays. */
class Day {
  private readonly people = new Map<string, Timeline>();
  private readonly going = new Map<string, Going>();
  /** When each gauge is free again, by its tag; and each bench. */
  private readonly gauges = new Map<string, number>();
  private readonly benches: number[];
  readonly placed: Placed[] = [];
  readonly finish: Record<string, number> = {};

  constructor(
    tasks: readonly Task[],
    private readonly crew: Crew,
  ) {
    this.benches = Array.from({ length: crew.benches }, () => 0);
    for (const { id, from_min, until_min } of crew.technicians) {
      const time = new Timeline();
      // Who goes home comes again on the next day.
      for (let day = 0; day < DAYS; day += 1)
        time.take(until_min + day * DAY_MIN, from_min + (day + 1) * DAY_MIN);
      this.people.set(id, time);
    }
    for (const task of tasks)
      this.going.set(task.id, { task, next: 0, technician: null, end_min: task.ready_min, hasBench: false });
  }

  /** Lays the next step of a job out as early as it goes. What holds the bench or a gauge that it needs is brought to its end first. */
  lay(id: string): void {
    const one = this.going.get(id);
    if (!one || one.next >= one.task.segments.length) return;
    if (one.next === 0) {
      for (let holder = this.holderOf(one.task); holder; holder = this.holderOf(one.task)) this.lay(holder);
      one.end_min = Math.max(one.end_min, this.freeFor(one.task));
    }
    const { task, next: segment } = one;
    const { attended_min, waiting_min } = task.segments[segment]!;
    const { technician, from_min } = this.soonest(one, attended_min);
    const attendedUntil_min = from_min + attended_min;
    this.people.get(technician)!.take(from_min, attendedUntil_min);
    const until_min = attendedUntil_min + waiting_min;
    this.placed.push({ task: id, segment, technician, from_min, attendedUntil_min, until_min });
    one.next += 1;
    one.technician = technician;
    one.end_min = until_min;
    if (segment === 0 && task.onBench)
      one.hasBench = this.benches.sort((a, b) => a - b).shift() !== undefined;
    if (one.next < task.segments.length) return;
    this.finish[id] = until_min;
    if (one.hasBench) this.benches.push(until_min);
    for (const tag of task.gauges) this.gauges.set(tag, until_min);
  }

  /** Who comes to a step the soonest, and when: one technician does all of a job. */
  private soonest({ task, technician, end_min }: Going, long: number) {
    const own = technician ?? task.technician;
    const all = this.crew.technicians;
    const named = all.filter(({ id }) => id === own);
    return (named.length > 0 ? named : all)
      .map(({ id, from_min }) => ({
        technician: id,
        from_min: this.people.get(id)!.earliest(Math.max(end_min, from_min), long),
      }))
      .reduce((one, other) => (other.from_min < one.from_min - TINY ? other : one));
  }

  /** A job that was begun and is not over, and holds what another one needs; null where none does. */
  private holderOf(task: Task): string | null {
    if (task.begun) return null;
    const open = [...this.going.values()].filter(
      (one) => one.task !== task && one.next > 0 && one.next < one.task.segments.length,
    );
    const holder = open.find((one) => one.task.gauges.some((tag) => task.gauges.includes(tag)));
    if (holder) return holder.task.id;
    if (!task.onBench || this.benches.length > 0) return null;
    const on = open.filter(({ hasBench }) => hasBench);
    return on.reduce((one, other) => (other.end_min < one.end_min ? other : one)).task.id;
  }

  private freeFor({ onBench, gauges, begun }: Task): number {
    if (begun) return 0;
    return Math.max(
      0,
      onBench ? Math.min(...this.benches) : 0,
      ...gauges.map((tag) => this.gauges.get(tag) ?? 0),
    );
  }
}

/**
 * A day by a sequence of its jobs, each named once for every step of it: every step is laid out as early as it goes, into what those
 * before it leave free. A job that is named too seldom is done to its end where it was named last. Jobs under way come first.
 *
 * @throws RangeError where nobody is there, or no bench
 */
export function layOut(tasks: readonly Task[], crew: Crew, sequence: readonly string[]): DayPlan {
  if (crew.technicians.length === 0) throw new RangeError('crew: nobody is there');
  if (!(crew.benches >= 1)) throw new RangeError('crew: there is no bench');
  const byId = new Map(tasks.map((task) => [task.id, task]));
  const begun = (id: string) => byId.get(id)?.begun === true;
  const known = sequence.filter((id) => byId.has(id));
  // Nobody else's bench is taken before those that lie on one already are laid out.
  const sorted = [...new Set(known.filter(begun)), ...known];
  const day = new Day(tasks, crew);
  const last = new Map(sorted.map((id, i) => [id, i]));
  sorted.forEach((id, i) => {
    day.lay(id);
    if (last.get(id) === i) for (const _ of byId.get(id)!.segments) day.lay(id);
  });
  return {
    placed: day.placed,
    sequence: known,
    order: [...new Set(day.placed.toSorted((a, b) => a.from_min - b.from_min).map(({ task }) => task))],
    finish_min: day.finish,
    cost: costOf(tasks, day.finish),
  };
}
