import { sentence, type Sentence } from '../quantities/sentence';
import type { Quantity } from '../quantities/units';
import { sourcesIn, supplied, type SourceId, type Sources } from '../contract/sources';
import { findItem, type Procedure, type ReadingItem, type Step } from '../contract/steps';
import { mayStandAt } from './opening';
import { belongs, isDone } from './run';
import { type RunState } from '../contract/run-state';

/** What is under vacuum or pressure on the bench right now, as far as the run knows. */
export interface LiveState {
  /** Sources that this test has to do with, as they stand. */
  readonly sources: Sources;
  /** What the source was last read at: while it is on, or shut in behind a closed valve and not yet vented, Pa. */
  readonly supply_Pa: number | null;
  /** A depression, or the pressure of what is stored. */
  readonly supplyQuantity: Quantity;
  /** 'released', or the input last read and not yet let go: a pressure, Pa, or the force of a foot, N. */
  readonly input: 'released' | number;
  readonly inputQuantity: Quantity;
  /** The port at which the input is set. */
  readonly inputPort: string;
  /** Vacuum may stand in the unit though its source is off: no gauge was read at zero there since. */
  readonly mayStand: boolean;
  /** The last test used up what was stored: the next one that needs it charges again. */
  readonly spent: boolean;
}

/** Works out what is live from what was captured and what the steps leave behind. */
export function liveState(procedure: Procedure, run: RunState): LiveState {
  const set = inputItem(procedure);
  let input: LiveState['input'] = 'released';
  let supply_Pa: number | null = null;
  let shutIn = false;
  const seen = new Set<string>();
  for (const capture of run.captures) {
    if (capture.struck || capture.stale || capture.place < run.disturbedAt) continue;
    const found = findItem(procedure, capture.item);
    if (found?.item.kind !== 'reading') continue;
    const { item, step } = found;
    if (item.port === set?.port && item.measures !== 'zero') input = capture.value_SI;
    if (item.port === 'supply') supply_Pa = item.measures === 'zero' ? null : capture.value_SI;
    if (item.port === 'supply' && supplied(step.state)) shutIn = false;
    else if (item.port === 'supply') shutIn = item.measures !== 'zero';
    seen.add(capture.item);
    const rest = step.items.filter((i) => i.kind === 'reading' && !seen.has(i.id) && !run.skipped[i.id]);
    if (rest.length === 0 && step.leaves?.input === 'released') input = 'released';
  }
  const named = new Set(procedure.steps.flatMap(({ state }) => Object.keys(state) as SourceId[]));
  // What is live is said, whether or not a step asks for it.
  const sources = Object.fromEntries(
    sourcesIn(run.sources).flatMap(({ source, to, live }) =>
      live || named.has(source) ? [[source, to]] : [],
    ),
  ) as Sources;
  const on = supplied(run.sources);
  const spent = run.sources.charge === 'spent' && !on;
  return {
    sources,
    supply_Pa: on || shutIn ? supply_Pa : null,
    input,
    supplyQuantity: supplyItem(procedure)?.quantity ?? 'depression',
    inputQuantity: set?.quantity ?? 'pressure',
    inputPort: setPort(procedure),
    mayStand: !on && mayStandAt(procedure, run, 'supply'),
    spent,
  };
}

/** The port at which a test sets what goes in: a pressure, or the force of a foot. */
export const setPort = (procedure: Procedure): string => inputItem(procedure)?.port ?? 'input';

/** The first item at which the input is set: it says where and in what. */
function inputItem({ steps }: Procedure): ReadingItem | undefined {
  for (const { items } of steps)
    for (const item of items) if (item.kind === 'reading' && item.measures === 'input') return item;
  return undefined;
}

/** The first item at which the source is read. */
function supplyItem({ steps }: Procedure): ReadingItem | undefined {
  for (const { items } of steps)
    for (const item of items)
      if (item.kind === 'reading' && item.port === 'supply' && item.measures !== 'zero') return item;
  return undefined;
}

/** What the gauges on the ports show now: value in SI with the vented zero taken off, and whether it stands still. */
export interface LivePort {
  readonly value: number;
  readonly settled: boolean;
  /** Smallest readable step of the gauge, SI. */
  readonly step: number;
}

export type LivePorts = Readonly<Record<string, LivePort | undefined>>;

/** A gauge that stands this many readable steps above zero has something on it. */
const STANDS_STEPS = 5;

/** What is live, where gauges that read themselves say so: they know better than what was last captured. */
export function liveByGauges(live: LiveState, ports: LivePorts): LiveState {
  const { [live.inputPort]: input, supply } = ports;
  const stands = (port: LivePort) => port.value > STANDS_STEPS * port.step;
  return {
    ...live,
    input: input ? (stands(input) ? input.value : 'released') : live.input,
    mayStand: supply ? stands(supply) : live.mayStand,
    supply_Pa: supply
      ? supplied(live.sources) || stands(supply)
        ? Math.max(0, supply.value)
        : null
      : live.supply_Pa,
  };
}

/** Steps that are done or skipped, for progress: how many of how many. */
export function progress(procedure: Procedure, run: RunState): { done: number; of: number } {
  const items = procedure.steps.filter((step) => belongs(run, step)).flatMap(({ items: all }) => all);
  return { done: items.filter((item) => isDone(run, item)).length, of: items.length };
}

/** Steps that a step builds on of which nothing was done: titles, in order. */
export function missingNeeds(procedure: Procedure, run: RunState, step: Step): string[] {
  return procedure.steps
    .filter(
      ({ id, items }) =>
        step.needs.includes(id) && items.length > 0 && items.every((item) => run.skipped[item.id]),
    )
    .map(({ title }) => title);
}

/** A supply below this part of what the run last read is gone; one above it, where the run has it off, is there. */
const GONE_PART = 0.1;
/** Less than this is none, Pa. */
const SOME_PA: Readonly<Partial<Record<Quantity, number>>> = { depression: 3_000, pressure: 1e5 };
/** What a source holds, in words. */
const HELD: Readonly<Partial<Record<Quantity, string>>> = { depression: 'vacuum', pressure: 'pressure' };

/**
 * Where the bench contradicts what the run has of it: the source on and read, and none there, or off and still there. A
 * vacuum that the run has shut in, or stored, is no contradiction.
 *
 * @returns a sentence that says both, and what to do; null where they agree or the supply is not seen
 */
export function contradiction(live: LiveState, { supply }: LivePorts): Sentence | null {
  if (!supply) return null;
  const { supplyQuantity: quantity } = live;
  const what = HELD[quantity] ?? 'source';
  const shown = { value: Math.max(0, supply.value), quantity };
  const on = supplied(live.sources);
  if (on && live.supply_Pa !== null && shown.value < GONE_PART * live.supply_Pa)
    return sentence(
      `The run has the ${what} on, last read at {read}; the gauge shows {shown}. Bring the ${what} back, or see whether the gauge is on what this run tests.`,
      { read: { value: live.supply_Pa, quantity }, shown },
    );
  if (
    !on &&
    live.sources.charge !== 'full' &&
    live.supply_Pa === null &&
    shown.value > (SOME_PA[quantity] ?? Infinity)
  )
    return sentence(
      `The run has the ${what} off and vented; the gauge shows {shown}. Vent it before a line comes off.`,
      { shown },
    );
  return null;
}
