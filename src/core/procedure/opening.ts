import type { Capture, RunState } from '../contract/run-state';
import { findItem, type Procedure, type ReadingItem, type Step } from '../contract/steps';
import { sentence, type Sentence } from '../quantities/sentence';
import type { Quantity } from '../quantities/units';
import { counts, emptied, makesSafe } from './run';

/** Readings of a gauge this much apart were made by one that moves, as a part of the higher. */
const MOVED_PART = 0.05;

/**
 * Ports of those named at which pressure or vacuum may stand: none is opened because somebody believes it empty. A port is
 * proved by a gauge that was seen to move in this run and was read at zero since anything was done. Where none can be
 * fitted it is by the looks that show it to be empty, every one of them. What no source and no pressure has reached since it
 * was last open holds nothing of this bench. Handbook 2.
 */
export function notProved(procedure: Procedure, state: RunState, ports: readonly string[]): string[] {
  const items = procedure.steps.flatMap((step) =>
    step.items.flatMap((item) => (item.kind === 'reading' ? [{ item, safe: makesSafe(step) }] : [])),
  );
  const itemOf = new Map(items.map(({ item }) => [item.id, item]));
  /** Where the meter of a port is read on a live source as well, it was since: one that died in between reads nothing too. */
  const livesStill = (port: string, { instrument, place }: Capture) => {
    const live = items.flatMap(({ item }) => (item.port === port && isBoundedBelow(item) ? item.id : []));
    return (
      live.length === 0 ||
      state.captures.some(
        (one) =>
          live.includes(one.item) &&
          one.instrument === instrument &&
          one.place > place &&
          counts(one) &&
          !one.lapsed,
      )
    );
  };
  const proof = (port: string) =>
    items.some(
      ({ item, safe }) =>
        item.port === port &&
        (item.gate === 'zero' ? safe : isBoundedAbove(item)) &&
        state.captures.some(
          (capture) =>
            capture.item === item.id &&
            counts(capture) &&
            !capture.lapsed &&
            moved(state, capture.instrument, itemOf) &&
            (item.gate === 'zero' || livesStill(port, capture)),
        ),
    );
  const looks = procedure.steps.filter(makesSafe).flatMap((step) => step.items);
  const seen = (port: string) => {
    const own = looks.filter((item) => emptied(item) === port);
    return (
      own.length > 0 &&
      own.every(
        (item) => item.kind === 'observation' && state.observations[item.id]?.answer === item.answers[0].id,
      )
    );
  };
  return ports.filter((port) => port in state.reachedAt && !proof(port) && !seen(port));
}

/** Whether a reading shows that no more than so much is left where it is taken: of volts that stand there no gauge reads its own zero. */
const isBoundedAbove = ({ gate }: ReadingItem) =>
  gate !== undefined && gate !== 'zero' && gate.high !== undefined && gate.low === undefined;

/** Whether a reading shows that a gauge tells something: no less than so much of what is known to be there. */
const isBoundedBelow = ({ gate }: ReadingItem) =>
  gate !== undefined && gate !== 'zero' && gate.low !== undefined && gate.high === undefined;

/** What is wrong with a reading that leaves its gate shut. */
export function notThrough({ gate, quantity }: ReadingItem): Sentence {
  if (gate === undefined || gate === 'zero') return sentence('not at zero');
  const at = (value = 0) => ({ value, quantity });
  if (gate.low === undefined) return sentence('not below {high}', { high: at(gate.high) });
  if (gate.high === undefined) return sentence('not above {low}', { low: at(gate.low) });
  return sentence('not within {low} to {high}', { low: at(gate.low), high: at(gate.high) });
}

/** The item of the step that makes safe at which a port is read at zero. */
export const safeId = (port: string): string => `safe.${port}`;

/** Gates of a step that asks for no vacuum in the unit: the gauge of each vacuum port at zero. */
export const ventedGates = (ports: readonly { readonly id: string; readonly quantity: Quantity | null }[]) =>
  ports.flatMap(({ id, quantity }) => (quantity === 'depression' ? [safeId(id)] : []));

/**
 * Whether a port was reached by pressure or vacuum, and no gauge there was read at zero since. A vented gauge of fluid pressure
 * says nothing of its line, from which a cock may part it: there only a reading with a gate does.
 */
export function mayStandAt(procedure: Procedure, state: RunState, port: string): boolean {
  const reached = state.reachedAt[port];
  if (reached === undefined) return false;
  return !state.captures.some(({ item, struck, gateShut, place }) => {
    if (struck || gateShut || place <= reached) return false;
    const read = findItem(procedure, item)?.item;
    if (read?.kind !== 'reading' || read.port !== port || read.measures !== 'zero') return false;
    return read.gate === 'zero' || read.quantity !== 'pressure';
  });
}

/**
 * Gates of a step that are shut as the run stands. A step under way is not stopped by what it does itself.
 *
 * @returns items that must be read first
 */
export function gatesShut(procedure: Procedure, state: RunState, step: Step): ReadingItem[] {
  const itemOf = (id: string) => findItem(procedure, id)?.item;
  return (step.gates ?? []).flatMap((id) => {
    const item = itemOf(id);
    if (item?.kind !== 'reading') return [];
    if (item.gate !== 'zero')
      return state.captures.some((c) => c.item === id && counts(c) && !c.lapsed) ? [] : [item];
    return mayStandAt(procedure, state, item.port) ? [item] : [];
  });
}

/** Whether a gauge was seen to move since lines were last off: it showed more than it does at zero. */
function moved(state: RunState, instrument: string, itemOf: ReadonlyMap<string, ReadingItem>): boolean {
  const values = state.captures
    .filter(
      (capture) => capture.instrument === instrument && !capture.struck && capture.place >= state.disturbedAt,
    )
    .map(({ item, value_SI }) => ({ zero: itemOf.get(item)?.measures === 'zero', value_SI }));
  const zeros = values.flatMap(({ zero, value_SI }) => (zero ? [Math.abs(value_SI)] : []));
  const others = values.flatMap(({ zero, value_SI }) => (zero ? [] : [Math.abs(value_SI)]));
  return Math.max(0, ...others) * (1 - MOVED_PART) > Math.max(0, ...zeros);
}
