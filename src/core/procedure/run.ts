import type { Capture, RunState } from '../contract/run-state';
import type { RunEvent, RunEventOf } from '../contract/events';
import {
  findItem,
  hangingOn,
  holdStart,
  SHORTEST_HOLD_S,
  waitBefore,
  type Answer,
  type Item,
  type ObservationItem,
  type Procedure,
  type SourceState,
  type Step,
} from '../contract/steps';

/** What the run asks for next. */
export type Action =
  | { kind: 'acknowledge'; step: Step }
  | { kind: 'source'; step: Step; vacuum: SourceState }
  | { kind: 'item'; step: Step; item: Item }
  /** An answer stopped the test: mend and look again, or go on for a reason where that is allowed, or end the test. */
  | { kind: 'stopped'; step: Step; item: ObservationItem; stop: NonNullable<Answer['stops']> }
  | { kind: 'finish' }
  | { kind: 'done' };

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
  | { code: 'mandatory'; step: string }
  | { code: 'not-started'; item: string }
  | { code: 'not-vented' }
  | { code: 'not-safe' };

/** A run to which nothing has happened yet. */
export const EMPTY_RUN: RunState = {
  version: 0,
  vacuum: 'off',
  captures: [],
  observations: {},
  waits: {},
  skipped: {},
  goneOn: {},
  ended: null,
  reopened: null,
  session: 0,
  disturbedAt: 0,
  added: [],
  acknowledged: [],
  finished: false,
  startedAt: null,
  lastAt: null,
};

/** Whether a reading lets a zero gate open, given what the run already knows of the gauge. */
export type GateRule = (capture: RunEventOf<'captured'>, before: RunState) => boolean;

/** The state of a run after its events, in order. Pure: same events, same state. */
export function reduceRun(procedure: Procedure, events: readonly RunEvent[], gate: GateRule): RunState {
  const back = new Set(events.flatMap((event) => (event.type === 'taken-back' ? [event.event] : [])));
  return events.reduce(
    (state, event) =>
      back.has(event.id) ? passOver(state, event) : applyEvent(procedure, state, event, gate),
    EMPTY_RUN,
  );
}

/** Time and count go on; nothing else comes of it. */
const passOver = (state: RunState, event: RunEvent): RunState => ({
  ...state,
  version: state.version + 1,
  startedAt: state.startedAt ?? event.at,
  lastAt: event.at,
});

/** The state after one more event. */
export function applyEvent(procedure: Procedure, state: RunState, event: RunEvent, gate: GateRule): RunState {
  const next = passOver(state, event);
  switch (event.type) {
    case 'acknowledged':
      return { ...next, acknowledged: [...state.acknowledged, event.step] };
    case 'source-set':
      // Turning the source is done under that step's cautions; every other step's are shown again.
      return { ...next, vacuum: event.vacuum, acknowledged: [event.step] };
    case 'captured': {
      const item = findItem(procedure, event.item)?.item;
      const gateShut = item?.kind === 'reading' && item.gate === 'zero' && !gate(event, state);
      const { type: _type, ...reading } = event;
      const stale = tooSoon(procedure, state, event);
      const { session, version: place } = state;
      const afresh = stale ? next : openChain(procedure, next, event.item);
      return {
        ...afresh,
        captures: [...afresh.captures, { ...reading, struck: false, gateShut, stale, session, place }],
        skipped: without(state.skipped, event.item),
        reopened: state.reopened === event.item ? null : state.reopened,
      };
    }
    case 'observed':
      return {
        ...next,
        observations: { ...state.observations, [event.item]: event },
        goneOn: without(state.goneOn, event.item),
        skipped: without(state.skipped, event.item),
        reopened: state.reopened === event.item ? null : state.reopened,
      };
    case 'wait-started':
      return {
        ...openChain(procedure, next, event.item),
        waits: { ...state.waits, [event.item]: { startedAt: event.at, endedAt: null } },
      };
    case 'wait-ended': {
      const startedAt = waitStart(procedure, state, event.item) ?? event.at;
      return {
        ...next,
        waits: { ...state.waits, [event.item]: { startedAt, endedAt: event.at } },
        reopened: state.reopened === event.item ? null : state.reopened,
      };
    }
    case 'struck': {
      const captures = state.captures.map((c) => (c.id === event.capture ? { ...c, struck: true } : c));
      const item = state.captures.find(({ id }) => id === event.capture)?.item;
      const after = { ...next, captures };
      return item && countedCaptures(after, item).length === 0 ? openChain(procedure, after, item) : after;
    }
    case 'taken-back':
      return next;
    case 'reopened':
      return reopen(procedure, next, event.item);
    case 'gone-on':
      return { ...next, goneOn: { ...state.goneOn, [event.item]: event.reason } };
    case 'ended': {
      const left = procedure.steps
        .filter((step) => !makesSafe(step))
        .flatMap(({ items }) => items.filter((item) => !isDone(next, item)))
        .map(({ id }) => [id, `Test ended: ${event.reason}`]);
      const skipped = { ...state.skipped, ...(Object.fromEntries(left) as Record<string, string>) };
      return { ...next, skipped, ended: event.reason, reopened: null };
    }
    case 'skipped': {
      const step = procedure.steps.find(({ id }) => id === event.step);
      const items = event.item
        ? [event.item]
        : (step?.items ?? []).filter((i) => !isDone(next, i)).map((i) => i.id);
      const marks = Object.fromEntries(items.map((id) => [id, event.reason]));
      return { ...next, skipped: { ...state.skipped, ...marks }, reopened: null };
    }
    case 'disturbed':
      return disturb(procedure, next, event);
    case 'added':
      return { ...next, added: [...state.added, event.step.id] };
    case 'finished':
      return { ...next, finished: true };
  }
}

/** Makes the readings of some steps stale: what was seen, waited for or skipped there is to be done again. */
function disturb(procedure: Procedure, state: RunState, event: RunEventOf<'disturbed'>): RunState {
  const items = new Set(
    procedure.steps
      .filter(({ id }) => event.steps.includes(id))
      .flatMap(({ items: all }) => all.map((i) => i.id)),
  );
  const keep = <T>(record: Readonly<Record<string, T>>) =>
    Object.fromEntries(Object.entries(record).filter(([id]) => !items.has(id)));
  return {
    ...state,
    captures: state.captures.map((c) => (items.has(c.item) ? { ...c, stale: true } : c)),
    observations: keep(state.observations),
    waits: keep(state.waits),
    skipped: keep(state.skipped),
    goneOn: keep(state.goneOn),
    ended: null,
    reopened: null,
    // Lines were off: every step's cautions are shown again, and the vacuum is off.
    acknowledged: [],
    vacuum: 'off',
    session: state.session + (event.rezero ? 1 : 0),
    disturbedAt: state.version,
    finished: false,
  };
}

/** Whether a step is the one that makes the unit safe: a gauge has to read zero there. */
const makesSafe = ({ mandatory, items }: Step) =>
  mandatory === true && items.some((item) => item.kind === 'reading' && item.gate);

/** Whether a step belongs to this run: one that can be added does once it was. */
export const belongs = (state: RunState, { id, exchange }: Step): boolean =>
  exchange === undefined || state.added.includes(id);

/**
 * Whether a reading came before what it hangs on: its wait was not over, or the hold that it ends had barely begun.
 * It is kept, and asked for again.
 */
function tooSoon(procedure: Procedure, state: RunState, event: RunEventOf<'captured'>): boolean {
  const found = findItem(procedure, event.item);
  const wait = waitBefore(procedure, event.item);
  if (!wait || found?.item.kind !== 'reading') return false;
  if (!state.skipped[wait.id] && !state.waits[wait.id]?.endedAt) return true;
  const start = holdStart(found.item);
  const from = start && countedCaptures(state, start).at(-1)?.at;
  return Boolean(from) && (Date.parse(event.at) - Date.parse(from!)) / 1000 <= SHORTEST_HOLD_S;
}

/** What hangs on an item is opened as that is done anew: waits run again, readings are kept and no longer count. */
function openChain(procedure: Procedure, state: RunState, itemId: string): RunState {
  const chain = hangingOn(procedure, itemId);
  if (chain.length === 0) return state;
  return {
    ...state,
    captures: state.captures.map((c) => (chain.includes(c.item) && !c.struck ? { ...c, stale: true } : c)),
    waits: Object.fromEntries(Object.entries(state.waits).filter(([id]) => !chain.includes(id))),
  };
}

/** A hold that is repeated starts again from its first reading: what hung on the old one is opened with it. */
function reopen(procedure: Procedure, state: RunState, itemId: string): RunState {
  const found = findItem(procedure, itemId);
  if (!found) return state;
  const from = found.step.items.indexOf(found.item);
  const waits = { ...state.waits };
  for (const later of found.step.items.slice(from)) if (later.kind === 'wait') delete waits[later.id];
  return { ...openChain(procedure, state, itemId), waits, reopened: itemId };
}

/** What the run asks for next: the reopened item, or the first thing not yet done in order. */
export function nextAction(procedure: Procedure, state: RunState): Action {
  if (state.finished) return { kind: 'done' };
  const stopped = state.ended === null ? stoppedAt(procedure, state) : null;
  if (stopped && stopped.item.id !== state.reopened) return stopped;
  const again = state.reopened ? findItem(procedure, state.reopened) : null;
  if (again) return ready(state, again.step, again.item);
  for (const step of procedure.steps) {
    if (!belongs(state, step) || (state.ended !== null && !makesSafe(step))) continue;
    const item = step.items.find((candidate) => !isDone(state, candidate));
    if (item) return ready(state, step, item);
    if (step.items.length === 0 && !state.acknowledged.includes(step.id))
      return { kind: 'acknowledge', step };
  }
  return { kind: 'finish' };
}

/** The first answer that stops the test, was not mended and has no reason to go on in spite of it. */
function stoppedAt(procedure: Procedure, state: RunState): Extract<Action, { kind: 'stopped' }> | null {
  for (const step of procedure.steps)
    for (const item of step.items) {
      if (item.kind !== 'observation' || state.goneOn[item.id]) continue;
      const given = state.observations[item.id]?.answer;
      const stop = item.answers.find(({ id }) => id === given)?.stops;
      if (stop) return { kind: 'stopped', step, item, stop };
    }
  return null;
}

/** Puts the source and the cautions before the item, where they are due. */
function ready(state: RunState, step: Step, item: Item): Action {
  if (state.vacuum !== step.vacuum) return { kind: 'source', step, vacuum: step.vacuum };
  if (step.cautions.length > 0 && !state.acknowledged.includes(step.id)) return { kind: 'acknowledge', step };
  return { kind: 'item', step, item };
}

/** Whether an item needs nothing more: read, seen, waited for or skipped with a reason. */
export function isDone(state: RunState, item: Item): boolean {
  if (state.skipped[item.id]) return true;
  switch (item.kind) {
    case 'reading':
      return countedCaptures(state, item.id).length > 0;
    case 'observation':
      return item.id in state.observations;
    case 'wait':
      return Boolean(state.waits[item.id]?.endedAt);
  }
}

/** Whether a reading counts: not struck, not stale, and not a gate that stayed shut. */
export const counts = ({ struck, stale, gateShut }: Capture): boolean => !struck && !stale && !gateShut;

/** Readings of an item that count. */
export function countedCaptures(state: RunState, itemId: string): Capture[] {
  return state.captures.filter((capture) => capture.item === itemId && counts(capture));
}

/** When a wait began: by its own event, or at the reading before it. */
export function waitStart(procedure: Procedure, state: RunState, itemId: string): string | null {
  const recorded = state.waits[itemId]?.startedAt;
  if (recorded) return recorded;
  const found = findItem(procedure, itemId);
  if (!found || found.item.kind !== 'wait' || found.item.starts === 'key') return null;
  const before = found.step.items[found.step.items.indexOf(found.item) - 1];
  return before ? (countedCaptures(state, before.id).at(-1)?.at ?? null) : null;
}

/** Whether an event may be taken into a run, before it is recorded. */
export function admitEvent(
  procedure: Procedure,
  state: RunState,
  event: RunEvent,
  before: readonly RunEvent[] = [],
): RunRefusal | null {
  if (state.finished) return { code: 'finished' };
  const stopped = state.ended === null ? stoppedAt(procedure, state) : null;
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
      return state.vacuum === 'on' ? { code: 'not-vented' } : null;
    }
    case 'added':
      return state.added.includes(event.step.id) || !procedure.steps.some(({ id }) => id === event.after)
        ? { code: 'unknown-item', item: event.step.id }
        : null;
    case 'finished':
      return nextAction(procedure, state).kind === 'finish' ? null : { code: 'not-safe' };
  }
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
    if (!event.early && waited_s < item.duration_s - CLOCK_S) return { code: 'not-over' };
  }
  return null;
}

/** A wait may look this much shorter than it was: a screen's clock is set now and then, s. */
const CLOCK_S = 1;

/** What a technician does by hand and can take back, oldest first; a reading is struck instead. */
export function takesBack(events: readonly RunEvent[]): RunEvent[] {
  const back = new Set(events.flatMap((event) => (event.type === 'taken-back' ? [event.event] : [])));
  const carried = events.findLastIndex(({ type }) => type === 'disturbed');
  return events.slice(carried + 1).filter((event) => {
    if (back.has(event.id)) return false;
    // A wait that ran its time was ended by the clock, not by a hand.
    if (event.type === 'wait-ended') return event.early === true;
    return event.type !== 'taken-back' && event.type !== 'finished';
  });
}

/**
 * What takes back the last thing done, whatever it was: several events where they were one deed.
 *
 * @returns nothing where nothing was done yet
 */
export function takeBackLast(
  events: readonly RunEvent[],
): ({ type: 'struck'; capture: string } | { type: 'taken-back'; event: string })[] {
  const struck = new Set(events.flatMap((event) => (event.type === 'struck' ? [event.capture] : [])));
  const done = takesBack(events).filter(({ id, type }) => type !== 'struck' && !struck.has(id));
  const last = done.at(-1);
  if (!last) return [];
  const deed = last.deed ? done.filter((event) => event.deed === last.deed) : [last];
  return deed.map((event) =>
    event.type === 'captured'
      ? { type: 'struck', capture: event.id }
      : { type: 'taken-back', event: event.id },
  );
}

const without = <T>(record: Readonly<Record<string, T>>, key: string): Record<string, T> => {
  const { [key]: _gone, ...rest } = record;
  return rest;
};

/** A sentence for a refused event. */
export function runRefusalSentence(why: RunRefusal): string {
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
    case 'mandatory':
      return `“${why.step}” cannot be skipped: it keeps people safe.`;
    case 'not-started':
      return 'That wait has not been started.';
    case 'not-vented':
      return 'The vacuum is on. Make the unit safe before a part is changed or a line comes off.';
    case 'not-safe':
      return 'The run can be closed only when every step is done or skipped with a reason and the unit is made safe.';
  }
}
