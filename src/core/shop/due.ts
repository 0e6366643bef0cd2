import type { Instrument } from '../metrology/instrument';

/** Something that is to be done by a day. */
export interface DueDate {
  readonly tag: string;
  readonly name: string;
  /** ISO date. */
  readonly on: string;
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
