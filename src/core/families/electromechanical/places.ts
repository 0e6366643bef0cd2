import { SHOWN_BY_LOAD, type Part } from '../../contract/family';
import { part } from '../part-kinds';

const FORCES = ['hold', 'assist', 'unpowered', 'step'];
const EVERYTHING = ['feeds', 'codes', 'tracks', ...FORCES, 'after', SHOWN_BY_LOAD.pressure];

/** What can be changed on an electromechanical booster, and which steps it makes stale. */
export const parts: readonly Part[] = [
  part('sensor', 'Sensor of the pedal with its magnet', ['codes', 'tracks'], []),
  part('motor', 'Motor and gear', EVERYTHING, []),
  part('control', 'Control unit', EVERYTHING, []),
  part('return-spring', 'Return spring', [...FORCES, 'tracks', SHOWN_BY_LOAD.pressure], []),
  part('whole', 'The whole booster', EVERYTHING, []),
];
