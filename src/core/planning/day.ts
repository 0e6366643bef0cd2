/** A part of a job's test: somebody is at it, then it goes on by itself. Minutes. */
export interface Segment {
  readonly step: string;
  readonly title: string;
  readonly attended_min: number;
  readonly waiting_min: number;
}

/** A job as the day has it. Times are minutes from the beginning of the plan. */
export interface Task {
  /** Its job. */
  readonly id: string;
  readonly tag: string;
  /** It lies on one of the benches from its first step to its last; a vehicle stands where it is. */
  readonly onBench: boolean;
  /** Gauges that nobody else has meanwhile, by their tags: each with its hose. */
  readonly gauges: readonly string[];
  readonly segments: readonly Segment[];
  /** When it was promised; null where nothing was promised. */
  readonly due_min: number | null;
  /** It is not begun before. */
  readonly ready_min: number;
  /** It is under way: it lies on its bench already, and is first with what it has. */
  readonly begun?: boolean;
  /** Who does it, where that was fixed by hand. */
  readonly technician?: string;
}

/** Somebody who tests, from when to when. */
export interface Technician {
  readonly id: string;
  readonly name: string;
  readonly from_min: number;
  readonly until_min: number;
}

/** Who and what there is today. */
export interface Crew {
  readonly technicians: readonly Technician[];
  readonly benches: number;
}

/** A segment with its times. */
export interface Placed {
  readonly task: string;
  readonly segment: number;
  readonly technician: string;
  readonly from_min: number;
  /** Until then somebody is at it; until `until_min` it goes on by itself. */
  readonly attendedUntil_min: number;
  readonly until_min: number;
}

/** A day laid out: every job stands in it, whether its promise is kept or not. */
export interface DayPlan {
  readonly placed: readonly Placed[];
  /** Jobs, each once for every step of it, in the order in which they were laid out. */
  readonly sequence: readonly string[];
  /** Jobs in the order in which they begin. */
  readonly order: readonly string[];
  readonly finish_min: Readonly<Record<string, number>>;
  readonly cost: number;
}

/** A minute late counts as much as ten that a customer waits. Judgement. */
export const LATE_COUNTS = 10;

/** What a plan costs: minutes until each job is done, and ten times those that it is late. */
export const costOf = (tasks: readonly Task[], finish_min: DayPlan['finish_min']): number =>
  tasks.reduce((sum, { id, due_min }) => {
    const end = finish_min[id]!;
    return sum + end + LATE_COUNTS * Math.max(0, end - (due_min ?? Infinity));
  }, 0);

/** Minutes of a job: somebody's, and those that it goes on by itself. */
export const minutesOf = ({ segments }: Pick<Task, 'segments'>) => ({
  attended: segments.reduce((sum, { attended_min }) => sum + attended_min, 0),
  waiting: segments.reduce((sum, { waiting_min }) => sum + waiting_min, 0),
});
