import { gaugeFor, type Instrument } from '@/core/metrology/instrument';
import { findItem, type ReadingItem, type Step } from '@/core/contract/steps';
import { counts, isDone } from '@/core/procedure/run';
import type { RunHandle } from './use-run';

/** The gauge that a reading is taken on: the one named, else the one whose scale reaches, else the widest of the port. */
export function gaugeInUse(
  choices: readonly Instrument[],
  own: readonly Instrument[],
  picked: string | null,
  reach_Pa: number,
): Instrument | null {
  const named = choices.find(({ tag }) => tag === picked);
  const widest = [...own].sort((a, b) => b.fullScale_Pa - a.fullScale_Pa)[0];
  return named ?? gaugeFor(own, reach_Pa) ?? widest ?? null;
}

/** A gauge from the shelf that was put on a port in place of its own, and read there last; null where none was. */
export function broughtTo({ state, context }: RunHandle, port: string): string | null {
  const last = state.captures.findLast((capture) => {
    const item = findItem(context.procedure, capture.item)?.item;
    return counts(capture) && item?.kind === 'reading' && item.port === port;
  });
  const own = (context.rig[port] ?? []).some(({ tag }) => tag === last?.instrument);
  return last && !own ? last.instrument : null;
}

/** The output that goes with an input set to its aim, in the same quantity; null where there is none. */
export function outputOf({ items }: Step, item: ReadingItem): ReadingItem | null {
  if (item.measures !== 'input' || item.target_Pa === undefined) return null;
  const next = items[items.findIndex(({ id }) => id === item.id) + 1];
  return next?.kind === 'reading' && next.inputFrom === item.id ? next : null;
}

/** Gauges of a step that are still to be read vented. */
export const zerosLeft = (
  { state, context }: RunHandle,
  { items }: Step,
): { of: ReadingItem; on: Instrument }[] =>
  items.flatMap((of) => {
    if (of.kind !== 'reading' || of.measures !== 'zero' || isDone(state, of)) return [];
    const on = (context.rig[of.port] ?? []).find(({ tag }) => tag === of.gauge);
    return on ? [{ of, on }] : [];
  });
