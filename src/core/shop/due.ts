import type { Instrument } from '../metrology/instrument';
import type { Sentence } from '../quantities/sentence';

/** Something that is to be done by a day. */
export interface DueDate {
  readonly tag: string;
  readonly name: string;
  /** ISO date. */
  readonly on: string;
}

/** An accumulator whose pre-charge is to be read again by a day, since it can be too low from then on. */
export interface AccumulatorDue extends DueDate {
  /** Job of the last reading, whose tag it goes by. */
  readonly jobId: string;
  readonly accumulator: string;
  /** What its history comes to. */
  readonly says: Sentence;
}

/** Calibrations by the day they fall due, soonest first; an instrument without a date is left out. Handbook 13. */
export function dueDates(instruments: readonly Instrument[]): DueDate[] {
  return instruments
    .flatMap(({ tag, name, calibrationDue }) => (calibrationDue ? [{ tag, name, on: calibrationDue }] : []))
    .sort((a, b) => a.on.localeCompare(b.on) || a.tag.localeCompare(b.tag));
}

/** Days from one ISO date to another. */
export const daysBetween = (from: string, to: string): number =>
  Math.round((Date.parse(to) - Date.parse(from)) / 86_400_000);
