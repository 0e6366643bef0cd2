import { createEvents, type DateArray, type EventAttributes } from 'ics';
import { printSentence } from '@/core/quantities/sentence';
import type { UnitSet } from '@/core/quantities/units';
import type { CareDue } from '@/core/families/care-plan';
import type { AccumulatorDue, DueDate } from '@/core/shop/due';

const dayOf = (iso: string): DateArray => iso.split('-').map(Number) as unknown as DateArray;

interface Due {
  readonly calibrations: readonly DueDate[];
  readonly accumulators: readonly AccumulatorDue[];
}

/** The care plan of one unit or vehicle as whole-day entries of a calendar. */
export const careCalendarOf = (tag: string, name: string, due: readonly CareDue[]): string =>
  written(
    due.map(({ id, what, why, on }) => ({
      uid: `care-${tag}-${id}-${on}`,
      title: `${tag}, ${name}: ${what}`,
      description: why,
      on,
    })),
    `Hard Pedal: care of ${tag}`,
  );

/** What falls due as whole-day entries of a calendar (RFC 5545). Nothing due is an empty calendar. */
export function calendarOf({ calibrations, accumulators }: Due, units: UnitSet): string {
  const entries = [
    ...calibrations.map(({ tag, name, on }) => ({
      // The same gauge and day is the same entry: a calendar read again does not double it.
      uid: `calibration-${tag}-${on}`,
      title: `Calibration due: ${tag}`,
      description: name,
      on,
    })),
    ...accumulators.map(({ jobId, tag, accumulator, name, on, says }) => ({
      // A forecast moves with every reading: its entry moves with it.
      uid: `pre-charge-${jobId}-${accumulator}`,
      title: `Read the pre-charge again: ${tag}`,
      description: `${name}. ${printSentence(says, units)}`,
      on,
    })),
  ];
  return written(entries, 'Hard Pedal: due dates');
}

/** A job of a day, in minutes from its midnight. */
interface Planned {
  readonly uid: string;
  readonly title: string;
  readonly description: string;
  readonly from_min: number;
  readonly until_min: number;
}

/** The plan of a day as entries of a calendar, in the time of the place. */
export function dayCalendarOf(day: string, planned: readonly Planned[]): string {
  const at = (min: number): DateArray => {
    const time = new Date(`${day}T00:00:00Z`);
    time.setUTCMinutes(Math.round(min));
    return [
      time.getUTCFullYear(),
      time.getUTCMonth() + 1,
      time.getUTCDate(),
      time.getUTCHours(),
      time.getUTCMinutes(),
    ];
  };
  const { error, value } = createEvents(
    planned.map(({ uid, title, description, from_min, until_min }): EventAttributes => ({
      uid: `${encodeURIComponent(uid)}@hard-pedal`,
      productId: 'hard-pedal',
      title,
      description,
      start: at(from_min),
      end: at(Math.max(until_min, from_min + 1)),
      startInputType: 'local',
      startOutputType: 'local',
      endInputType: 'local',
      endOutputType: 'local',
    })),
    { productId: 'hard-pedal', calName: `Hard Pedal: ${day}` },
  );
  if (error) throw error;
  return value ?? '';
}

interface Entry {
  readonly uid: string;
  readonly title: string;
  readonly description: string;
  readonly on: string;
}

function written(entries: readonly Entry[], calName: string): string {
  const { error, value } = createEvents(
    entries.map(({ uid, title, description, on }): EventAttributes => ({
      uid: `${encodeURIComponent(uid)}@hard-pedal`,
      productId: 'hard-pedal',
      title,
      description,
      start: dayOf(on),
      duration: { days: 1 },
    })),
    { productId: 'hard-pedal', calName },
  );
  if (error) throw error;
  return value ?? '';
}
