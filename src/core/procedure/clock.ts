import type { RunEvent } from '../contract/events';
import { printHours } from '../quantities/print';

/** By how much an event may stand before the one that it came after, s: screens' clocks are set now and then. */
export const LEAST_SET_BACK_S = 30;

/** A place in a run before which the clock of the machine was set back. */
export interface SetBack {
  /** The first event by the clock as it was set. */
  readonly event: string;
  readonly at: string;
  readonly by_s: number;
}

/** Where the times of a run's events, in the order in which they came, run back. */
export function clockSetBack(events: readonly Pick<RunEvent, 'id' | 'at'>[]): SetBack[] {
  const found: SetBack[] = [];
  for (const [i, { id, at }] of events.entries()) {
    const before = events[i - 1]?.at ?? at;
    const by_s = (Date.parse(before) - Date.parse(at)) / 1000;
    if (by_s >= LEAST_SET_BACK_S) found.push({ event: id, at, by_s });
  }
  return found;
}

/** What a wait says that began by a clock which was set back since. */
export const SET_BACK_IN_WAIT =
  'The clock of this machine was set back since this wait began, so nobody can tell how long it was. Take its start back, and begin it anew.';

/** That in words, as a mark between what was done before and after it. */
export const setBackWords = ({ by_s }: Pick<SetBack, 'by_s'>): string =>
  `The clock of this machine was set back by ${printHours(by_s)} here. A wait or a hold that it fell into is done anew.`;

/** The same on paper. @param time when it was by the clock as it was set, as it is printed */
export const setBackOnPaper = ({ by_s }: Pick<SetBack, 'by_s'>, time: string): string =>
  `The clock of the machine was set back by ${printHours(by_s)} during this test, before ${time}. Times on this report are those of the clock.`;
