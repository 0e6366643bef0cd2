import type { Command, Hands } from '../model/motion';
import { PACK_PUMP } from './bench-hands';
import { KEY_COMMAND } from './vehicle-hands';

/** What turns a pump, as hands have it. */
export interface PumpDrive {
  readonly command: Command;
  readonly turns: (hands: Hands) => boolean;
}

/** An engine, by its key. */
export const BY_ENGINE: PumpDrive = { command: KEY_COMMAND, turns: ({ key }) => key === 'engine' };

/** The motor of a bench, by its switch: it turns a pump as fast as a hot idle would. */
export const BY_BENCH: PumpDrive = { command: PACK_PUMP, turns: ({ pump }) => pump === true };
