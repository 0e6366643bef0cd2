import { SHOWN_BY_LOAD, type Part, type Port } from '../../contract/family';
import { gauge, line, part } from '../part-kinds';

/** Where it is looked for what no gauge shows. */
export const leakPoints: readonly Port[] = [
  { id: 'input', name: 'Input of the booster', short: 'Input', quantity: null },
  { id: 'return', name: 'Return line', short: 'Return', quantity: null },
];

const FORCES = ['start', 'assist', 'release', 'rest'];
const STORED = ['reserve', 'hour'];
const EVERYTHING = ['seep', ...FORCES, ...STORED, 'without', SHOWN_BY_LOAD.pressure];

/** What can be changed on a hydraulic booster, and which steps it makes stale. */
export const parts: readonly Part[] = [
  part('spool', 'Spool and its seals', EVERYTHING, ['line']),
  part('piston', 'Power piston and its seals', EVERYTHING, ['line']),
  part('input-seal', 'Input seal', ['seep'], ['line']),
  part('accumulator', 'Accumulator', STORED, ['line']),
  part('check-valve', 'Check valve of the accumulator', STORED, ['line']),
  part('return', 'Return line', ['release', 'rest', 'assist', 'start', 'seep'], ['line']),
  part('booster', 'Booster', EVERYTHING, ['line']),
  line('pressure-line', 'Pressure line of the steering', ['pump', 'seep', ...FORCES], ['line']),
  gauge('line-gauge', 'The gauge of the pressure line moved or changed', ['zeros', 'pump'], ['line']),
];
