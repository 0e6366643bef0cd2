import type { Capture, RunState } from '../contract/run-state';
import type { RunEvent, RunEventOf } from '../contract/events';
import {
  AT_START,
  afterOpening,
  sourcesIn,
  sourceState,
  withSource,
  type Sources,
} from '../contract/sources';
import {
  findItem,
  hangingOn,
  holdStart,
  SHORTEST_HOLD_S,
  waitBefore,
  type Gate,
  type Item,
  type Procedure,
  type ReadingItem,
  type Step,
} from '../contract/steps';

/** A run to which nothing has happened yet. */
export const EMPTY_RUN: RunState = {
  version: 0,
  sources: AT_START,
  captures: [],
  observations: {},
  waits: {},
  skipped: {},
  goneOn: {},
  ended: null,
  chosen: null,
  reopened: null,
  session: 0,
  reachedAt: {},
  disturbedAt: 0,
  added: [],
  acknowledged: [],
  finished: false,
  startedAt: null,
  lastAt: null,
};

/** Whether a reading opens a gate, given what the run already knows of the gauge. */
export type GateRule = (capture: RunEventOf<'captured'>, before: RunState, gate: Gate) => boolean;

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
  const after = leaving(procedure, changed(procedure, state, event, gate), event);
  const chosen = procedure.steps.find(({ id }) => id === after.chosen);
  // What was chosen has had its turn once it is done.
  return chosen?.items.every((item) => isDone(after, item)) ? { ...after, chosen: null } : after;
}

/** What a step changes of the sources by itself, once something done in it was the last. */
function leaving(procedure: Procedure, state: RunState, event: RunEvent): RunState {
  if (event.type !== 'captured' && event.type !== 'observed' && event.type !== 'wait-ended') return state;
  const step = findItem(procedure, event.item)?.step;
  if (!step?.leaves || !step.items.every((item) => isDone(state, item))) return state;
  const reachedAt = sourcesIn(changedBy(step)).reduce(
    (reached, { reaches }) => reaching(procedure, { ...state, reachedAt: reached }, reaches),
    state.reachedAt,
  );
  return { ...state, sources: leftBy(step, state.sources), reachedAt };
}

/** Sources that a step changes by itself. */
function changedBy({ leaves = {} }: Step): Sources {
  const { input: _input, ...sources } = leaves;
  return sources;
}

/** How a step leaves sources that stand so before it. */
export const leftBy = (step: Step, before: Sources): Sources =>
  sourcesIn(changedBy(step)).reduce<Sources>(withSource, before);

/** What an event changes by itself. */
function changed(procedure: Procedure, state: RunState, event: RunEvent, gate: GateRule): RunState {
  const next = passOver(state, event);
  switch (event.type) {
    case 'acknowledged':
      return { ...next, acknowledged: [...state.acknowledged, event.step] };
    case 'source-set':
      // Turning the source is done under that step's cautions; every other step's are shown again.
      return {
        ...lapse(procedure, next, 'source'),
        sources: withSource(state.sources, event.set),
        acknowledged: [event.step],
        reachedAt: reaching(procedure, state, sourceState(event.set).reaches),
      };
    case 'captured': {
      const item = findItem(procedure, event.item)?.item;
      const gateShut = item?.kind === 'reading' && item.gate !== undefined && !gate(event, state, item.gate);
      const { type: _type, ...reading } = event;
      const stale = tooSoon(procedure, state, event);
      const { session, version: place } = state;
      const underLoad = item?.kind === 'reading' && item.measures !== 'zero';
      const before = underLoad ? lapse(procedure, next, 'load') : next;
      const afresh = stale ? before : openChain(procedure, before, event.item);
      return {
        ...afresh,
        reachedAt: reaching(procedure, state, underLoad && item.quantity === 'pressure' ? 'wet' : null),
        captures: [
          ...afresh.captures,
          { ...reading, struck: false, gateShut, stale, lapsed: false, session, place },
        ],
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
        .filter((step) => !makesSafe(step) && !step.closing)
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
    case 'chosen':
      return { ...next, chosen: event.step, reopened: null };
    case 'added':
      return { ...next, added: [...state.added, event.step.id] };
    case 'finished':
      // Every gauge was read at zero.
      return { ...next, finished: true, reachedAt: {} };
  }
}

/** Ports that may hold something once something was put on: those of fluid pressure ('wet'), the rest ('dry'), or all. */
function reaching(
  procedure: Procedure,
  state: RunState,
  which: 'wet' | 'dry' | 'all' | null,
): RunState['reachedAt'] {
  if (which === null) return state.reachedAt;
  return {
    ...state.reachedAt,
    ...Object.fromEntries(marksOf(procedure).ports[which].map((port) => [port, state.version])),
  };
}

/** What the reducer asks of a procedure for every reading. */
interface Marks {
  /** Ports that something put on may reach: what no gauge reads may hold either. */
  readonly ports: Readonly<Record<'wet' | 'dry' | 'all', readonly string[]>>;
  /** Items that make safe: they say nothing any more once something is read under load, or a source is changed. */
  readonly makingSafe: ReadonlySet<string>;
  /** Gates within bounds: they open nothing any more once a source is changed. */
  readonly bounded: ReadonlySet<string>;
}

const MARKS = new WeakMap<Procedure, Marks>();

function marksOf(procedure: Procedure): Marks {
  const known = MARKS.get(procedure);
  if (known) return known;
  const items = procedure.steps.flatMap((step) => step.items.map((item) => ({ step, item })));
  const ports = (wanted: (item: ReadingItem) => boolean) => [
    ...new Set(
      items.flatMap(({ item }) =>
        item.kind === 'reading' ? (wanted(item) ? item.port : []) : (emptied(item) ?? []),
      ),
    ),
  ];
  const making = items.flatMap(({ step, item }) => (makesSafe(step) ? item.id : []));
  const bounded = items.flatMap(({ step, item }) =>
    !makesSafe(step) && item.kind === 'reading' && isBounded(item) ? item.id : [],
  );
  const marks: Marks = {
    ports: {
      wet: ports(({ quantity }) => quantity === 'pressure'),
      dry: ports(({ quantity }) => quantity !== 'pressure'),
      all: ports(() => true),
    },
    makingSafe: new Set(making),
    bounded: new Set(bounded),
  };
  MARKS.set(procedure, marks);
  return marks;
}

/**
 * What was read or looked at to make safe says nothing any more once a source is changed, or anything is read under pressure
 * or vacuum: it is kept, and asked for again. A gate within bounds opens nothing any more once a source is changed, until it is read again.
 */
function lapse(procedure: Procedure, state: RunState, by: 'source' | 'load'): RunState {
  const { makingSafe, bounded } = marksOf(procedure);
  const gates = by === 'source' ? bounded : NONE;
  const seen = Object.keys(state.observations).some((id) => makingSafe.has(id));
  const saysStill = ({ item, stale, lapsed }: Capture) =>
    (!stale && makingSafe.has(item)) || (!lapsed && gates.has(item));
  if (!seen && !state.captures.some(saysStill)) return state;
  return {
    ...state,
    captures: state.captures.map((c) =>
      makingSafe.has(c.item) ? { ...c, stale: true } : gates.has(c.item) ? { ...c, lapsed: true } : c,
    ),
    observations: seen
      ? Object.fromEntries(Object.entries(state.observations).filter(([id]) => !makingSafe.has(id)))
      : state.observations,
  };
}

const NONE: ReadonlySet<string> = new Set();

const isBounded = ({ gate }: ReadingItem) => gate !== undefined && gate !== 'zero';

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
    chosen: null,
    reopened: null,
    // What was opened holds nothing.
    reachedAt: Object.fromEntries(
      Object.entries(state.reachedAt).filter(([port]) => !event.opens?.includes(port)),
    ),
    // Lines were off: every step's cautions are shown again, and nothing comes from any source.
    acknowledged: [],
    sources: afterOpening(state.sources),
    session: state.session + (event.rezero ? 1 : 0),
    disturbedAt: state.version,
    finished: false,
  };
}

/** Whether a step is the one that makes the unit safe: a gauge has to read zero there, or a line to be seen to be empty. */
export const makesSafe = ({ mandatory, items }: Step) =>
  mandatory === true &&
  items.some((item) => (item.kind === 'reading' && item.gate === 'zero') || emptied(item) !== null);

/** The port that a look shows to be empty; null for any other item. */
export const emptied = (item: Item): string | null =>
  item.kind === 'observation' ? (item.empties ?? null) : null;

/** Whether a step belongs to this run: one that can be added does once it was. */
export const belongs = (state: RunState, { id, exchange, closing }: Step): boolean =>
  (exchange === undefined && !closing) || state.added.includes(id);

/**
 * Whether a reading came before what it hangs on: its wait was not over, or the hold that it ends had barely begun.
 * It is kept, and asked for again.
 */
function tooSoon(procedure: Procedure, state: RunState, event: RunEventOf<'captured'>): boolean {
  const found = findItem(procedure, event.item);
  const wait = waitBefore(procedure, event.item);
  if (!wait || found?.item.kind !== 'reading') return false;
  if (!state.skipped[wait.id] && !state.waits[wait.id]?.endedAt) return true;
  const start = holdStart(procedure, found.item);
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

/** Whether an item needs nothing more: read, seen, waited for or skipped with a reason. */
export function isDone(state: RunState, item: Item): boolean {
  if (state.skipped[item.id]) return true;
  switch (item.kind) {
    case 'reading':
      return state.captures.some((capture) => capture.item === item.id && counts(capture));
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

const without = <T>(record: Readonly<Record<string, T>>, key: string): Record<string, T> => {
  const { [key]: _gone, ...rest } = record;
  return rest;
};
