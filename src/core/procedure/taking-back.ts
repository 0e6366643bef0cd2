import type { RunEvent } from '../contract/events';

/** What a technician does by hand and can take back, oldest first; a reading is struck instead. */
export function takesBack(events: readonly RunEvent[]): RunEvent[] {
  const back = new Set(events.flatMap((event) => (event.type === 'taken-back' ? [event.event] : [])));
  const carried = events.findLastIndex(({ type }) => type === 'disturbed');
  return events.slice(carried + 1).filter((event) => {
    if (back.has(event.id)) return false;
    // A wait that ran its time was ended by the clock, not by a hand.
    if (event.type === 'wait-ended') return event.early === true;
    // Nobody takes back that a line was opened.
    if (event.type === 'added' && event.step.closing) return false;
    return event.type !== 'taken-back' && event.type !== 'finished';
  });
}

/**
 * What takes back the last thing done, whatever it was: several events where they were one deed.
 *
 * @returns nothing where nothing was done yet
 */
export function takeBackLast(
  events: readonly RunEvent[],
): ({ type: 'struck'; capture: string } | { type: 'taken-back'; event: string })[] {
  const struck = new Set(events.flatMap((event) => (event.type === 'struck' ? [event.capture] : [])));
  const done = takesBack(events).filter(({ id, type }) => type !== 'struck' && !struck.has(id));
  const last = done.at(-1);
  if (!last) return [];
  const deed = last.deed ? done.filter((event) => event.deed === last.deed) : [last];
  return deed.map((event) =>
    event.type === 'captured'
      ? { type: 'struck', capture: event.id }
      : { type: 'taken-back', event: event.id },
  );
}
