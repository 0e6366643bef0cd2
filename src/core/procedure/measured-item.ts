import { measured, readingUncertainty_SI, type Measured } from '../metrology/uncertainty';
import type { Rig } from '../contract/run-context';
import { countedCaptures, type GateRule } from './run';
import { type Capture, type RunState } from '../contract/run-state';

/** Instruments by tag: the rig, and any better gauge brought from the shelf during the run. */
export function instrumentsOf(rig: Rig, shelf: readonly Measured['instrument'][] = []) {
  return new Map([...shelf, ...Object.values(rig).flat()].map((gauge) => [gauge.tag, gauge]));
}

/** What a gauge showed when vented in a session (the present one, unless said), SI; null where it was not read. */
export function ventedZero_SI(run: RunState, tag: string, session = run.session): number | null {
  const captures = run.captures.filter(
    (c) => c.item === `zero.${tag}` && c.session === session && !c.struck && !c.gateShut,
  );
  if (captures.length === 0) return null;
  return captures.reduce((sum, capture) => sum + capture.value_SI, 0) / captures.length;
}

/** The value of an item: readings of one gauge averaged, corrected by its table and its vented zero. */
export interface ItemReading extends Measured {
  readonly captures: readonly Capture[];
}

/** Captures behind some readings. */
export const captureIds = (...readings: (ItemReading | null)[]): string[] =>
  readings.flatMap((reading) => reading?.captures.map(({ id }) => id) ?? []);

/** The value of a reading item by each gauge that read it, the one with the smallest uncertainty first. */
export function measuredByGauge(
  instruments: ReadonlyMap<string, Measured['instrument']>,
  run: RunState,
  itemId: string,
): ItemReading[] {
  const counted = countedCaptures(run, itemId);
  const readings = [...new Set(counted.map(({ instrument }) => instrument))].flatMap((tag) => {
    const instrument = instruments.get(tag);
    if (!instrument) return [];
    const captures = counted.filter((capture) => capture.instrument === tag);
    const values = captures.map(({ value_SI }) => value_SI);
    return [{ ...measured(values, instrument, ventedZero_SI(run, tag, captures[0]!.session)), captures }];
  });
  return readings.sort((a, b) => readingUncertainty_SI(a) - readingUncertainty_SI(b));
}

/**
 * The value of a reading item. Readings by different gauges are never averaged: those of the gauge with the
 * smallest uncertainty count.
 *
 * @returns null where nothing counts yet
 */
export const measuredItem = (...of: Parameters<typeof measuredByGauge>): ItemReading | null =>
  measuredByGauge(...of)[0] ?? null;

/** A gate opens when the gauge is within this many readable steps of what it showed vented. */
export const GATE_STEPS = 2;

/**
 * The rule of gates: a gauge back at its own vented zero, or its corrected reading within bounds. By reading, never by a
 * tick. Handbook 2.
 */
export const gateRule =
  (instruments: ReadonlyMap<string, Measured['instrument']>): GateRule =>
  (capture, before, gate) => {
    const gauge = instruments.get(capture.instrument);
    if (!gauge) return false;
    if (gate !== 'zero') {
      const { value_SI } = measured([capture.value_SI], gauge, ventedZero_SI(before, gauge.tag));
      return value_SI >= (gate.low ?? -Infinity) && value_SI <= (gate.high ?? Infinity);
    }
    const zero_Pa = ventedZero_SI(before, gauge.tag) ?? 0;
    return Math.abs(capture.value_SI - zero_Pa) <= (GATE_STEPS + 1e-6) * gauge.step_Pa;
  };
