import type { Family } from '../contract/family';
import type { RunContext } from '../contract/run-context';
import type { RunState } from '../contract/run-state';
import type { Step } from '../contract/steps';
import { waitingTime_s } from '../procedure/plan';
import { belongs, isDone, waitStart } from '../procedure/run';
import type { Segment } from './day';

/** Time of a step that does not say, s. */
const USUAL_S = 120;
/** Nobody begins something else in a wait that is shorter than this, min. */
const WORTH_LEAVING_MIN = 2;

/**
 * What is left of a test, as a day is planned with it: somebody is at it up to a wait that is worth leaving, and so on.
 *
 * @param now_ms milliseconds since 1970: a wait that runs already is as much shorter
 */
export function segmentsLeft(
  { ports }: Pick<Family, 'ports'>,
  { procedure, rig }: Pick<RunContext<unknown>, 'procedure' | 'rig'>,
  state: RunState,
  now_ms: number,
): Segment[] {
  const steps = procedure.steps.filter(
    (step) =>
      belongs(state, step) && (step.items.some((item) => !isDone(state, item)) || isUnread(step, state)),
  );
  const segments: Segment[] = [];
  let attended_min = state.captures.length > 0 ? 0 : fitting_min(ports, rig);
  let first: Step | null = null;
  for (const step of steps) {
    const open = step.items.filter((item) => !isDone(state, item));
    const share = step.items.length > 0 ? open.length / step.items.length : 1;
    const passed_s = open.reduce((sum, item) => {
      const from = item.kind === 'wait' ? waitStart(procedure, state, item.id) : null;
      return sum + (from ? Math.max(0, now_ms - Date.parse(from)) / 1000 : 0);
    }, 0);
    const waiting_min = Math.max(0, waitingTime_s([{ items: open }]) - passed_s) / 60;
    attended_min += ((step.attended_s ?? USUAL_S) * share) / 60;
    first ??= step;
    if (waiting_min < WORTH_LEAVING_MIN) {
      attended_min += waiting_min;
      continue;
    }
    segments.push({ step: first.id, title: first.title, attended_min, waiting_min });
    [attended_min, first] = [0, null];
  }
  if (first) segments.push({ step: first.id, title: first.title, attended_min, waiting_min: 0 });
  return segments;
}

/** A step of cautions alone. */
const isUnread = (step: Step, state: RunState) =>
  step.items.length === 0 && !state.acknowledged.includes(step.id);

/** Time to fit the gauges that a test is made with, min. */
const fitting_min = (ports: Family['ports'], rig: RunContext<unknown>['rig']): number =>
  ports.reduce((sum, { id, fit_s = 0 }) => sum + ((rig[id]?.length ?? 0) > 0 ? fit_s : 0), 0) / 60;
