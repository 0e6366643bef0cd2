import type { RunState } from '../contract/run-state';
import type { Procedure, ReadingItem } from '../contract/steps';
import { counts, makesSafe } from './run';

/** Readings of a gauge this much apart were made by one that moves, as a part of the higher. */
const MOVED_PART = 0.05;

/**
 * Ports of those named at which pressure or vacuum may stand: none is opened because somebody believes it empty. A port is
 * proved by a gauge that was seen to move in this run and was read at zero since anything was done. What no source and no
 * pressure has reached since it was last open holds nothing of this bench. Handbook 2.
 */
export function notProved(procedure: Procedure, state: RunState, ports: readonly string[]): string[] {
  const items = procedure.steps.flatMap((step) =>
    step.items.flatMap((item) => (item.kind === 'reading' ? [{ item, safe: makesSafe(step) }] : [])),
  );
  const itemOf = new Map(items.map(({ item }) => [item.id, item]));
  const proof = (port: string) =>
    items.some(
      ({ item, safe }) =>
        safe &&
        item.port === port &&
        item.gate === 'zero' &&
        state.captures.some(
          (capture) =>
            capture.item === item.id && counts(capture) && moved(state, capture.instrument, itemOf),
        ),
    );
  return ports.filter((port) => state.mayHold.includes(port) && !proof(port));
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
