import type { Room, RunContext } from '../contract/run-context';
import { countedCaptures } from './run';
import { type RunState } from '../contract/run-state';

/** The room an item was read in: that of its last reading that counts, else the room of now. */
export function roomOf(context: RunContext<unknown>, run: RunState, itemId: string): Room {
  const place = countedCaptures(run, itemId).at(-1)?.place ?? Infinity;
  return context.earlier?.find(({ until }) => place < until) ?? context.conditions;
}
