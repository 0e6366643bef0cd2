import { supplied } from '../contract/sources';
import type { Procedure, Step } from '../contract/steps';
import { attendedTime_s, waitingTime_s } from './plan';

const readsSource = (step: Step) => supplied(step.state);
const readsZeros = (step: Step) =>
  step.items.some((item) => item.kind === 'reading' && item.measures === 'zero' && !item.gate);

/**
 * Steps to be done again when some were disturbed, in the procedure's order: the disturbed ones, the safety steps,
 * and the step in which the source is read first where any of them needs it, since it was off in between.
 *
 * @param disturbed step ids; those that this procedure does not have are passed over
 * @param rezero the gauges are to be vented again: on another day, or where one was moved
 */
export function stepsToRepeat(procedure: Procedure, disturbed: readonly string[], rezero: boolean): string[] {
  const { steps } = procedure;
  const again = new Set(steps.filter(({ id }) => disturbed.includes(id)));
  if (again.size === 0 && !rezero) return [];
  for (const step of steps)
    if ((step.mandatory && !step.closing) || (rezero && readsZeros(step))) again.add(step);
  const first = steps.find(readsSource);
  if (first && [...again].some(readsSource)) again.add(first);
  return steps.filter((step) => again.has(step)).map(({ id }) => id);
}

/** How much work some steps are. */
export interface Workload {
  readonly titles: readonly string[];
  readonly readings: number;
  readonly looks: number;
  /** Time at the bench besides waits, s; null where a step of an older procedure does not say. */
  readonly attended_s: number | null;
  /** Waits that count down by themselves, s. */
  readonly waiting_s: number;
}

/** Counts what is to be read, looked at and waited for in some steps. */
export function workload(procedure: Procedure, stepIds: readonly string[]): Workload {
  const steps = procedure.steps.filter(({ id }) => stepIds.includes(id));
  const items = steps.flatMap((step) => step.items);
  return {
    titles: steps.map(({ title }) => title),
    readings: items.filter(({ kind }) => kind === 'reading').length,
    looks: items.filter(({ kind }) => kind === 'observation').length,
    attended_s: attendedTime_s(steps),
    waiting_s: waitingTime_s(steps),
  };
}
