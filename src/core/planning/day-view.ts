import type { DayBody } from './day-body';
import type { Task } from './day';
import type { Spread, WorkedOut } from './worked-out';

/** A day as a screen has it. */
export interface DayView extends WorkedOut {
  readonly day: string;
  /** Minutes from midnight. */
  readonly now_min: number;
  readonly version: number;
  readonly body: DayBody;
  readonly tasks: readonly Task[];
  /** Jobs that wait as well, and are too many for one day's plan: those that were promised the latest. */
  readonly left: number;
  readonly spread: Spread;
}
