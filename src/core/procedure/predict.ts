import { supplied } from '../contract/sources';
import type { Limits } from '../metrology/verdict';
import { measured, readingUncertainty_SI, type Measured, type Term } from '../metrology/uncertainty';
import { extremesOf, placeOf, type HealthyUnit } from '../model/vectors';
import { type Family } from '../contract/family';
import { type RunContext } from '../contract/run-context';
import { type Vector } from '../model/descriptor';
import { instrumentsOf, measuredItem, ventedZero_SI } from './measured-item';
import { findItem, type ReadingItem } from '../contract/steps';
import { roomOf } from './room';
import { countedCaptures, counts } from './run';
import { type RunState } from '../contract/run-state';

/** A reading predicted by the twin at the conditions actually read. */
export interface Prediction {
  readonly expected: number;
  /** Spread of healthy units: the tolerances taken together at their worst. No uncertainty of any reading is in it. */
  readonly band: Required<Limits>;
  /** −∂ŷ/∂x for each reading that the prediction rests on. */
  readonly terms: readonly Term[];
  /** Inputs of the twin by name. */
  readonly inputs: Readonly<Record<string, number>>;
}

type Known = { value: number; measured: Measured | null };

/**
 * Inputs of the twin at an item: what was set or is aimed at, the source as last read before it, the room.
 *
 * @param source 'at-rest': only readings of the source that the unit itself does not pull down, where the twin is to
 *   account for what it pulls down
 * @returns null where the source is on and was not read: nothing is assumed in its place
 */
export function inputsAt(
  family: Family,
  context: RunContext<unknown>,
  run: RunState,
  item: ReadingItem,
  source: 'under-load' | 'at-rest' = 'under-load',
): Known[] | null {
  const instruments = instrumentsOf(context.rig, context.shelf);
  const { barometer_Pa, temperature_K } = roomOf(context, run, item.id);
  const constants: Record<string, number> = {
    barometer_Pa,
    temperature_K,
    elapsed_s: item.elapsed_s ?? 0,
    applications: item.applications ?? 0,
  };
  const known: Known[] = [];
  for (const { id, from } of family.inputs) {
    if (!from) {
      known.push({ value: constants[id] ?? 0, measured: null });
    } else if (from.as === 'set') {
      const read = item.inputFrom ? measuredItem(instruments, run, item.inputFrom) : null;
      known.push({ value: read?.value_SI ?? item.target_Pa ?? 0, measured: read });
    } else {
      const counts = (other: ReadingItem) =>
        source === 'under-load' || !family.readings.some(({ id: reading }) => reading === other.measures);
      const read = sourceBefore(context, run, item, from.port, counts);
      if (read === 'unknown') return null;
      known.push({ value: read?.value_SI ?? 0, measured: read });
    }
  }
  return known;
}

/** The source as read last before the item's own reading; null while it is off. */
function sourceBefore(
  context: RunContext<unknown>,
  run: RunState,
  item: ReadingItem,
  port: string,
  countsAsSource: (other: ReadingItem) => boolean,
): Measured | null | 'unknown' {
  const procedure = context.procedure;
  const step = procedure.steps.find(
    ({ items }) => items.includes(item) || items.some(({ id }) => id === item.id),
  );
  const shutIn = item.elapsed_s !== undefined && item.port === port;
  const stored = item.sourceFrom !== undefined;
  if (step && !supplied(step.state) && !shutIn && !stored) return null;
  const instruments = instrumentsOf(context.rig, context.shelf);
  const named = item.sourceFrom ? findItem(procedure, item.sourceFrom)?.item : null;
  const underLoad =
    named?.kind === 'reading' && countsAsSource(named) ? measuredItem(instruments, run, named.id) : null;
  if (underLoad) return underLoad;
  const sourceItems = new Set(
    procedure.steps.flatMap(({ items }) =>
      items.flatMap((i) =>
        i.kind === 'reading' &&
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
  const before = run.captures
    .slice(0, end)
    .filter((c) => sourceItems.has(c.item) && (own ? !c.struck && !c.gateShut : counts(c)));
  const last = before.at(-1);
  if (!last) return 'unknown';
  const gauge = last.stale ? instruments.get(last.instrument) : undefined;
  if (gauge) return measured([last.value_SI], gauge, ventedZero_SI(run, gauge.tag, last.session));
  return measuredItem(instruments, run, last.item) ?? 'unknown';
}

/** Predicts an item's reading with the family's twin, healthy. */
export function predict(
  family: Family,
  context: RunContext<unknown>,
  run: RunState,
  item: ReadingItem,
): Prediction | null {
  if (!family.readings.some(({ id }) => id === item.measures)) return null;
  const known = inputsAt(family, context, run, item);
  if (!known) return null;
  const place = placeOf(family.readings, item.measures);
  const healthy = family.healthy(context.profile);
  const { values } = healthy;
  const inputs = known.map(({ value }) => value);
  const at = (parameters: Vector, where: Vector) => family.steady(parameters, where)[place]!;
  const terms = known.flatMap(({ measured: read }, i): Term[] => {
    if (!read) return [];
    const slope = sensitivity((x) => at(values, inputs.with(i, x)), inputs[i]!, readingUncertainty_SI(read));
    return slope === 0 ? [] : [{ sensitivity: -slope, measured: read }];
  });
  return {
    expected: at(values, inputs),
    band: healthyBand((p) => at(p, inputs), healthy),
    terms,
    inputs: Object.fromEntries(family.inputs.map(({ id }, i) => [id, inputs[i]!])),
  };
}

/** Central difference over ± one standard uncertainty: near a knee it gives the slope that the doubt really spans. */
function sensitivity(f: (x: number) => number, x: number, u: number): number {
  const step = Math.max(u, 1);
  const low = Math.max(0, x - step);
  return (f(x + step) - f(low)) / (x + step - low);
}

/** Least and greatest healthy value: a reading rises or falls with each parameter all the way, so the outermost units have them. */
export function healthyBand(reading: (parameters: Vector) => number, healthy: HealthyUnit): Required<Limits> {
  const values = extremesOf(healthy).map(reading);
  return { low: Math.min(...values), high: Math.max(...values) };
}
