import type { Family } from '../contract/family';
import type { RunContext } from '../contract/run-context';
import type { RunState } from '../contract/run-state';
import { supplied } from '../contract/sources';
import { findItem, setItem, type ReadingItem } from '../contract/steps';
import { measured, type Measured } from '../metrology/uncertainty';
import { restingReading } from '../model/vectors';
import { instrumentsOf, measuredItem, ventedZero_SI, type ItemReading } from './measured-item';
import { roomOf } from './room';
import { countedCaptures, counts } from './run';

/** An input, and the reading that it comes from; null where it comes from none. */
export interface Known {
  readonly value: number;
  readonly measured: Measured | null;
  /** Reading item that it comes from. */
  readonly item?: string;
  /** Nothing says it: what a healthy one shows stands in for it. */
  readonly assumed?: true;
}

/**
 * Inputs of the twin at an item: what was set or is aimed at, the source as last read before it, the room.
 *
 * @param source 'at-rest': only readings of the source that the unit itself does not pull down, where the twin is to
 *   account for what it pulls down
 * @param supposed what stands for a source that is on and was not read, where a reading is only planned
 * @returns null where the source is on and was not read: nothing is assumed in its place
 * @throws RangeError where the model has an input that a run knows nothing of
 */
export function inputsAt(
  family: Family,
  context: RunContext<unknown>,
  run: RunState,
  item: ReadingItem,
  source: 'under-load' | 'at-rest' = 'under-load',
  supposed: number | null = null,
): Known[] | null {
  const instruments = instrumentsOf(context.rig, context.shelf);
  const { barometer_Pa, temperature_K } = roomOf(context, run, item.id);
  const constants: Readonly<Record<string, number>> = {
    barometer_Pa,
    temperature_K,
    // What is read at once is read after no time and no application.
    elapsed_s: item.elapsed_s ?? 0,
    applications: item.applications ?? 0,
  };
  const known: Known[] = [];
  for (const { id, from } of family.inputs) {
    if (!from) {
      const value = constants[id];
      if (value === undefined) throw new RangeError(`inputs: nothing says what “${id}” is`);
      known.push({ value, measured: null });
    } else if (from.as === 'set') {
      const set = setItem(context.procedure, item, from.port);
      const read = set && measuredItem(instruments, run, set.id);
      const value = read?.value_SI ?? set?.target_Pa ?? item.target_Pa ?? 0;
      known.push({ value, measured: read, ...(read && { item: read.captures[0]!.item }) });
    } else {
      const counts = (other: ReadingItem) =>
        source === 'under-load' ||
        other.measures === from.until ||
        !family.readings.some(({ id: reading }) => reading === other.measures);
      const read = sourceBefore(context, run, item, from, counts);
      if (read === 'unknown') {
        if (!from.until) {
          if (supposed === null) return null;
          known.push({ value: supposed, measured: null, assumed: true });
          continue;
        }
        // Until the gauge was read, what a healthy source makes there.
        const healthy = family.healthy(context.profile).values;
        const room = { barometer_Pa, temperature_K };
        const value = restingReading(family, healthy, room, from.until);
        known.push({ value, measured: null, assumed: true });
        continue;
      }
      known.push({
        value: read?.value_SI ?? 0,
        measured: read,
        ...(read && 'captures' in read && { item: read.captures[0]!.item }),
      });
    }
  }
  return known;
}

/** The source as read last before the item's own reading; null while it is off. */
function sourceBefore(
  context: RunContext<unknown>,
  run: RunState,
  item: ReadingItem,
  { port, stays }: Extract<Family['inputs'][number]['from'], { as: 'source' }>,
  countsAsSource: (other: ReadingItem) => boolean,
): Measured | ItemReading | null | 'unknown' {
  const procedure = context.procedure;
  const step = findItem(procedure, item.id)?.step;
  const shutIn = item.elapsed_s !== undefined && item.port === port;
  const stored = item.sourceFrom !== undefined || stays === true;
  if (step && !supplied(step.state) && !shutIn && !stored) return null;
  const instruments = instrumentsOf(context.rig, context.shelf);
  const named = item.sourceFrom ? findItem(procedure, item.sourceFrom)?.item : null;
  // With the source off, what was found stored counts, whoever has used of it before.
  const found =
    named?.kind === 'reading' &&
    named.port === port &&
    (countsAsSource(named) || (step && !supplied(step.state)))
      ? measuredItem(instruments, run, named.id)
      : null;
  if (found) return found;
  // What was read while the source was shut off says what was stored then, not what the source makes.
  const on = shutIn || stored || step === undefined ? null : supplied(step.state);
  const sourceItems = new Set(
    procedure.steps.flatMap(({ items, state }) =>
      items.flatMap((i) =>
        i.kind === 'reading' &&
        (on === null || supplied(state) === on) &&
        i.port === port &&
        i.measures !== 'zero' &&
        i.id !== item.id &&
        countsAsSource(i)
          ? [i.id]
          : [],
      ),
    ),
  );
  const own = countedCaptures(run, item.id).at(-1);
  const end = own ? run.captures.findIndex(({ id }) => id === own.id) : run.captures.length;
  // A reading that still counts goes with the source as it was then, though that has become stale since.
  const ofSource = (captures: RunState['captures']) =>
    captures.filter((c) => sourceItems.has(c.item) && (own ? !c.struck && !c.gateShut : counts(c)));
  // What stays was as it is before anybody read it.
  const last = ofSource(run.captures.slice(0, end)).at(-1) ?? (stays && ofSource(run.captures.slice(end))[0]);
  if (!last) return 'unknown';
  const gauge = last.stale ? instruments.get(last.instrument) : undefined;
  if (gauge) return measured([last.value_SI], gauge, ventedZero_SI(run, gauge.tag, last.session));
  return measuredItem(instruments, run, last.item) ?? 'unknown';
}
