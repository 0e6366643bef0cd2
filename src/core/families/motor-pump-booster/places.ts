import type { Part, Port } from '../../contract/family';
import { gauge, line, part } from '../part-kinds';

/** Where it is looked for what no gauge shows. */
export const leakPoints: readonly Port[] = [
  { id: 'body', name: 'Body of the booster', short: 'Body', quantity: null },
];

const CYCLES = ['charge', 'switch', 'off-times', 'relief'];
const STORE = ['level', ...CYCLES, 'reserve'];
const FORCES = ['assist', 'unpowered', 'reserve'];
const EVERYTHING = [...new Set(['outside', 'feed', ...STORE, ...FORCES, 'after'])];

/** What can be changed on a motor-pump booster, and which steps it makes stale. */
export const parts: readonly Part[] = [
  part('accumulator', 'Accumulator', STORE, ['supply']),
  part('switch', 'Pressure switch', ['feed', ...CYCLES], ['supply']),
  part('spool', 'Spool, piston and their seals', [...STORE, ...FORCES], ['supply']),
  part('relief', 'Relief valve', CYCLES, ['supply']),
  part('whole', 'Several parts: the whole booster apart', EVERYTHING, ['supply']),
  line('pressure-line', 'Line from pump to accumulator', [...STORE, 'feed'], ['supply']),
  gauge(
    'accumulator-gauge',
    'The gauge of the accumulator moved or changed',
    ['zeros', 'feed', ...STORE, 'assist'],
    ['supply'],
  ),
];
