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
  readonly spread: Spread;
}
