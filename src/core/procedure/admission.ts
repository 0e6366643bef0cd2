import type { RunEvent, RunEventOf } from '../contract/events';
import type { RunState } from '../contract/run-state';
import { liveWords, nextSource, sourceState, type SourceSet } from '../contract/sources';
import { findItem, type Procedure, type Step } from '../contract/steps';
import { printNames } from '../quantities/sentence';
import { LEAST_SET_BACK_S, SET_BACK_IN_WAIT } from './clock';
import { needsFirst, nextAction, stoppedAt, waitingIn } from './next-action';
import { gatesShut, notProved } from './opening';
import { makesSafe, waitStart } from './run';
import { takesBack } from './taking-back';

/** Why an event was not taken into a run. */
export type RunRefusal =
  | { code: 'finished' }
  | { code: 'unknown-item'; item: string }
  | { code: 'wrong-kind'; item: string }
  | { code: 'unknown-answer'; item: string; answer: string }
  | { code: 'unknown-capture' }
  | { code: 'unknown-event' }
  | { code: 'stopped'; say: string }
  | { code: 'not-over' }
  | { code: 'clock-back' }
  | { code: 'mandatory'; step: string }
  | { code: 'not-started'; item: string }
  | { code: 'live-source'; said: readonly string[] }
  | { code: 'may-hold'; ports: readonly string[] }
  | { code: 'needs'; steps: readonly string[] }
  | { code: 'waiting'; step: string }
  | { code: 'source'; step: string; set: SourceSet }
  | { code: 'cautions'; step: string }
  | { code: 'gate'; step: string; prompts: readonly string[] }
  | { code: 'not-safe' };

/** Whether an event may be taken into a run, before it is recorded. */
export function admitEvent(
  procedure: Procedure,
  state: RunState,
  event: RunEvent,
  before: readonly RunEvent[] = [],
): RunRefusal | null {
  if (state.finished) return { code: 'finished' };
  const stopped = stoppedAt(procedure, state);
  if (stopped && event.type === 'captured' && !findItem(procedure, event.item)?.step.mandatory)
    return { code: 'stopped', say: stopped.stop.say };
  switch (event.type) {
    case 'taken-back':
      return takesBack(before).some(({ id }) => id === event.event) ? null : { code: 'unknown-event' };
    case 'gone-on':
      if (stopped?.item.id !== event.item) return { code: 'unknown-item', item: event.item };
      return stopped.stop.goesOn === 'reason' ? null : { code: 'stopped', say: stopped.stop.say };
    case 'ended':
      return state.ended === null ? null : { code: 'unknown-event' };
    case 'captured':
    case 'observed':
    case 'wait-started':
      return admitItem(procedure, state, event) ?? notReady(procedure, state, event.item);
    case 'wait-ended':
    case 'reopened':
      return admitItem(procedure, state, event);
    case 'struck':
      return state.captures.some((c) => c.id === event.capture && !c.struck)
        ? null
        : { code: 'unknown-capture' };
    case 'skipped': {
      const step = procedure.steps.find(({ id }) => id === event.step);
      if (!step || (event.item && !step.items.some(({ id }) => id === event.item))) {
        return { code: 'unknown-item', item: event.item ?? event.step };
      }
      return step.mandatory ? { code: 'mandatory', step: step.title } : null;
    }
    case 'acknowledged':
    case 'source-set':
      return procedure.steps.some(({ id }) => id === event.step)
        ? null
        : { code: 'unknown-item', item: event.step };
    case 'disturbed': {
      const unknown = event.steps.find((id) => !procedure.steps.some((step) => step.id === id));
      if (unknown) return { code: 'unknown-item', item: unknown };
      const said = liveWords(state.sources);
      if (said.length > 0) return { code: 'live-source', said };
      const ports = notProved(procedure, state, event.opens ?? []);
      return ports.length > 0 ? { code: 'may-hold', ports } : null;
    }
    case 'chosen': {
      const step = procedure.steps.find(({ id }) => id === event.step);
      if (!step) return { code: 'unknown-item', item: event.step };
      if (stopped && !makesSafe(step)) return { code: 'stopped', say: stopped.stop.say };
      return outOfOrder(procedure, state, step);
    }
    case 'added':
      return state.added.includes(event.step.id) || !procedure.steps.some(({ id }) => id === event.after)
        ? { code: 'unknown-item', item: event.step.id }
        : null;
    case 'finished':
      return nextAction(procedure, state).kind === 'finish' ? null : { code: 'not-safe' };
  }
}

/** The wait of another step that nothing may disturb. */
function locked(procedure: Procedure, state: RunState, step: Step): RunRefusal | null {
  const waiting = waitingIn(procedure, state);
  return waiting && waiting !== step ? { code: 'waiting', step: waiting.title } : null;
}

/** Why a step cannot be done now, out of the usual order or in it. */
function outOfOrder(procedure: Procedure, state: RunState, step: Step): RunRefusal | null {
  const lock = locked(procedure, state, step);
  if (lock) return lock;
  const steps = needsFirst(procedure, state, step).map(({ title }) => title);
  return steps.length > 0 ? { code: 'needs', steps } : null;
}

/**
 * Why nothing can be read, looked at or waited for in a step as the bench stands: the order, its source, its cautions. One
 * that is done once more needs no step anew that was done before it.
 */
function notReady(procedure: Procedure, state: RunState, itemId: string): RunRefusal | null {
  const { step } = findItem(procedure, itemId)!;
  const order = (state.reopened === itemId ? locked : outOfOrder)(procedure, state, step);
  if (order) return order;
  const set = nextSource(state.sources, step.state);
  if (set) return { code: 'source', step: step.title, set };
  const shut = gatesShut(procedure, state, step);
  if (shut.length > 0) return { code: 'gate', step: step.title, prompts: shut.map(({ prompt }) => prompt) };
  return step.cautions.length > 0 && !state.acknowledged.includes(step.id)
    ? { code: 'cautions', step: step.title }
    : null;
}

const KIND_OF = {
  captured: 'reading',
  observed: 'observation',
  'wait-started': 'wait',
  'wait-ended': 'wait',
} as const;

function admitItem(
  procedure: Procedure,
  state: RunState,
  event: RunEventOf<keyof typeof KIND_OF | 'reopened'>,
): RunRefusal | null {
  const item = findItem(procedure, event.item)?.item;
  if (!item) return { code: 'unknown-item', item: event.item };
  if (event.type !== 'reopened' && item.kind !== KIND_OF[event.type])
    return { code: 'wrong-kind', item: event.item };
  if (
    event.type === 'observed' &&
    item.kind === 'observation' &&
    !item.answers.some(({ id }) => id === event.answer)
  ) {
    return { code: 'unknown-answer', item: event.item, answer: event.answer };
  }
  if (event.type === 'wait-ended' && item.kind === 'wait') {
    const from = waitStart(procedure, state, event.item);
    if (!from) return { code: 'not-started', item: event.item };
    const waited_s = (Date.parse(event.at) - Date.parse(from)) / 1000;
    if (waited_s <= -LEAST_SET_BACK_S) return { code: 'clock-back' };
    if (!event.early && waited_s < item.duration_s - CLOCK_S) return { code: 'not-over' };
  }
  return null;
}

/** A wait may look this much shorter than it was: a screen's clock is set now and then, s. */
const CLOCK_S = 1;

/** A sentence for a refused event. @param nameOf name of a port */
export function runRefusalSentence(
  why: RunRefusal,
  nameOf: (port: string) => string = (port) => port,
): string {
  switch (why.code) {
    case 'finished':
      return 'This run is finished; nothing more can be added to it.';
    case 'unknown-item':
      return `This test has no step called “${why.item}”.`;
    case 'wrong-kind':
      return `“${why.item}” does not take that kind of entry.`;
    case 'unknown-answer':
      return `“${why.answer}” is not one of the answers to “${why.item}”.`;
    case 'unknown-capture':
      return 'That reading is not on the tape, or is struck already.';
    case 'unknown-event':
      return 'That cannot be taken back, or has been already.';
    case 'stopped':
      return `The test is stopped. ${why.say}`;
    case 'not-over':
      return 'The wait is not over. Ending it early has to be confirmed.';
    case 'clock-back':
      return SET_BACK_IN_WAIT;
    case 'mandatory':
      return `“${why.step}” cannot be skipped: it keeps people safe.`;
    case 'not-started':
      return 'That wait has not been started.';
    case 'live-source':
      return `${why.said.join('; ')}. Make the unit safe before a part is changed or a line comes off.`;
    case 'may-hold':
      return `Pressure or vacuum may stand at ${printNames(why.ports.map(nameOf))}. Do “Make safe” first: each gauge there, seen to move in this test, must be read at zero, and nothing done after it.`;
    case 'needs':
      return `First comes: ${printNames(why.steps)}.`;
    case 'waiting':
      return `A wait runs in “${why.step}”: nothing else is done on the bench until it is over.`;
    case 'source':
      return `For “${why.step}”, and said to be so: ${sourceState(why.set).said}. ${sourceState(why.set).ask}`;
    case 'gate':
      return `Before “${why.step}”: ${why.prompts.join(' ')}`;
    case 'cautions':
      return `Read the cautions of “${why.step}” first.`;
    case 'not-safe':
      return 'The run can be closed only when every step is done or skipped with a reason and the unit is made safe.';
  }
}
