import type { RunState } from '../contract/run-state';
import type { Procedure, Step } from '../contract/steps';
import { needsFirst, waitingIn } from './next-action';
import { belongs, isDone } from './run';

/** A step of a run as it stands, for choosing what to do next. */
export interface Planned {
  readonly step: Step;
  /** Its items that are done or skipped, of how many. */
  readonly done: number;
  readonly of: number;
  /** Why it cannot be done now, in a sentence; null where it can. */
  readonly not: string | null;
  readonly attended_s: number;
  readonly waiting_s: number;
}

/** Time that a step's waits count down by themselves, s. */
export const waitingTime_s = (steps: readonly Pick<Step, 'items'>[]): number =>
  steps
    .flatMap(({ items }) => items)
    .reduce((sum, item) => sum + (item.kind === 'wait' ? item.duration_s : 0), 0);

/** Time that a technician is at some steps, their waits not counted, s; null where a step does not say. */
export const attendedTime_s = (steps: readonly Pick<Step, 'attended_s'>[]): number | null =>
  steps.reduce<number | null>(
    (sum, { attended_s }) => (sum === null || attended_s === undefined ? null : sum + attended_s),
    0,
  );

/** Every step that belongs to a run, in the usual order, with what stands in its way. */
export function planOf(procedure: Procedure, state: RunState): Planned[] {
  const waiting = waitingIn(procedure, state);
  return procedure.steps
    .filter((step) => belongs(state, step))
    .map((step) => {
      const first = needsFirst(procedure, state, step);
      const not =
        waiting && waiting !== step
          ? `A wait runs in “${waiting.title}”.`
          : first.length > 0
            ? `First: ${first.map(({ title }) => `“${title}”`).join(', ')}.`
            : null;
      return {
        step,
        done: step.items.filter((item) => isDone(state, item)).length,
        of: step.items.length,
        not,
        attended_s: step.attended_s ?? 0,
        waiting_s: waitingTime_s([step]),
      };
    });
}
