import type { RunState } from '../contract/run-state';
import {
  findItem,
  waitBefore,
  type Answer,
  type Item,
  type ObservationItem,
  type Procedure,
  type Step,
} from '../contract/steps';
import { nextSource, type SourceSet } from '../contract/sources';
import { gatesShut } from './opening';
import { belongs, isDone, makesSafe, waitStart } from './run';

/** Something of a step that can be done now. */
type Ready = (
  | { kind: 'acknowledge'; step: Step }
  | { kind: 'source'; step: Step; set: SourceSet }
  | { kind: 'item'; step: Step; item: Item }
) & {
  /** Step that waits for it: its gate is shut until then. */
  readonly opens?: Step;
};

/** What the run asks for next. */
export type Action =
  | Ready
  /** An answer stopped the test: mend and look again, or go on for a reason where that is allowed, or end the test. */
  | { kind: 'stopped'; step: Step; item: ObservationItem; stop: NonNullable<Answer['stops']> }
  | { kind: 'finish' }
  | { kind: 'done' };

/** What the run asks for next: the reopened item, what is left of the chosen step, or the first thing not yet done. */
export function nextAction(procedure: Procedure, state: RunState): Action {
  if (state.finished) return { kind: 'done' };
  const chosen = procedure.steps.find(({ id }) => id === state.chosen);
  const left = chosen && askedIn(procedure, state, chosen);
  const stopped = stoppedAt(procedure, state);
  // A test that is stopped is still made safe.
  if (stopped && stopped.item.id !== state.reopened) return left && makesSafe(chosen) ? left : stopped;
  const open = procedure.steps.find(
    (step) => step.closing && belongs(state, step) && askedIn(procedure, state, step),
  );
  if (open && !(left && makesSafe(chosen))) return askedIn(procedure, state, open)!;
  // A wait locks the bench: nothing else comes before it is over.
  const waiting = waitingIn(procedure, state);
  const again = state.reopened ? findItem(procedure, state.reopened) : null;
  if (waiting && again?.step !== waiting) return askedIn(procedure, state, waiting)!;
  if (again) return gateFirst(procedure, state, again.step) ?? ready(state, again.step, again.item);
  if (left && canBeDone(procedure, state, chosen)) return left;
  for (const step of procedure.steps) {
    if (!belongs(state, step) || (state.ended !== null && !makesSafe(step) && !step.closing)) continue;
    const asked = askedIn(procedure, state, step);
    if (asked) return asked;
  }
  return { kind: 'finish' };
}

/** What a step still asks for; null where it is done. */
function askedIn(procedure: Procedure, state: RunState, step: Step): Action | null {
  const item = step.items.find((candidate) => !isDone(state, candidate));
  if (item) return gateFirst(procedure, state, step) ?? ready(state, step, item);
  return step.items.length === 0 && !state.acknowledged.includes(step.id)
    ? { kind: 'acknowledge', step }
    : null;
}

/** The reading that opens a step's gate, where that is shut. */
function gateFirst(procedure: Procedure, state: RunState, step: Step): Ready | null {
  const shut = gatesShut(procedure, state, step)[0];
  if (!shut) return null;
  // A reading that a wait is for counts once that is over.
  const wait = waitBefore(procedure, shut.id);
  const first = wait && !isDone(state, wait) ? wait : shut;
  return { ...ready(state, findItem(procedure, shut.id)!.step, first), opens: step };
}

/** Steps of which a step needs something that is neither done nor skipped, in order. */
export function needsFirst(procedure: Procedure, state: RunState, step: Step): Step[] {
  return procedure.steps.filter(
    (other) =>
      belongs(state, other) &&
      (step.needs.includes(other.id) || (other.closing === true && !makesSafe(step) && step !== other)) &&
      other.items.some((item) => !isDone(state, item)),
  );
}

/** The step in which a wait runs that nothing else may disturb; null where none does. */
export function waitingIn(procedure: Procedure, state: RunState): Step | null {
  return (
    procedure.steps.find((step) =>
      step.items.some(
        (item) =>
          item.kind === 'wait' &&
          !state.skipped[item.id] &&
          !isDone(state, item) &&
          waitStart(procedure, state, item.id),
      ),
    ) ?? null
  );
}

/** Whether a step can be done now: what it needs is done, and no wait of another one runs. */
export function canBeDone(procedure: Procedure, state: RunState, step: Step): boolean {
  const waiting = waitingIn(procedure, state);
  return needsFirst(procedure, state, step).length === 0 && (waiting === null || waiting === step);
}

/** The first answer that stops the test, was not mended and has no reason to go on in spite of it. */
export function stoppedAt(
  procedure: Procedure,
  state: RunState,
): Extract<Action, { kind: 'stopped' }> | null {
  for (const step of procedure.steps) {
    // A test that has ended is stopped by nothing but a line that is still open.
    if (state.ended !== null && !step.closing) continue;
    for (const item of step.items) {
      if (item.kind !== 'observation' || state.goneOn[item.id]) continue;
      const given = state.observations[item.id]?.answer;
      const stop = item.answers.find(({ id }) => id === given)?.stops;
      if (stop) return { kind: 'stopped', step, item, stop };
    }
  }
  return null;
}

/** Puts the source and the cautions before the item, where they are due. */
function ready(state: RunState, step: Step, item: Item): Ready {
  const set = nextSource(state.sources, step.state);
  if (set) return { kind: 'source', step, set };
  if (step.cautions.length > 0 && !state.acknowledged.includes(step.id)) return { kind: 'acknowledge', step };
  return { kind: 'item', step, item };
}
