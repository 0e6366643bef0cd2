import { createEvents, type DateArray, type EventAttributes } from 'ics';
import type { DueDate } from '@/core/shop/due';

const dayOf = (iso: string): DateArray => iso.split('-').map(Number) as unknown as DateArray;

/** Calibrations as whole-day entries of a calendar (RFC 5545). An empty list is an empty calendar. */
export function calendarOf(dates: readonly DueDate[]): string {
  const events = dates.map(({ tag, name, on }): EventAttributes => ({
    // The same gauge and day is the same entry: a calendar read again does not double it.
    uid: `calibration-${encodeURIComponent(tag)}-${on}@hard-pedal`,
    productId: 'hard-pedal',
    title: `Calibration due: ${tag}`,
    description: name,
    start: dayOf(on),
    duration: { days: 1 },
  }));
  const { error, value } = createEvents(events, {
    productId: 'hard-pedal',
    calName: 'Hard Pedal: calibrations',
  });
  if (error) throw error;
  return value ?? '';
}
