import type { Command, Hands } from '../model/motion';
import { PACK_PUMP } from './bench-hands';
import { KEY_COMMAND } from './vehicle-hands';

/** What turns a steering pump, as hands have it. */
export interface SteeringDrive {
  readonly command: Command;
  readonly turns: (hands: Hands) => boolean;
}

/** An engine, by its key. */
export const BY_ENGINE: SteeringDrive = { command: KEY_COMMAND, turns: ({ key }) => key === 'engine' };

/** The motor of a bench, by its switch: it turns the pump as fast as a hot idle would. */
export const BY_BENCH: SteeringDrive = { command: PACK_PUMP, turns: ({ pump }) => pump === true };
