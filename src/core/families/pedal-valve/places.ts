import type { Part, Port } from '../../contract/family';
import { gauge, line, part } from '../part-kinds';
import type { Cocks } from './steps';

/** Where readings are taken on a dual pedal valve. */
export const ports: readonly Port[] = [
  { id: 'treadle', name: 'Pedal travel', short: 'Travel', quantity: 'travel', ink: 'input' },
  { id: 'supply', name: 'Accumulator, circuit 1', short: 'Acc 1', quantity: 'pressure' },
  { id: 'supply-2', name: 'Accumulator, circuit 2', short: 'Acc 2', quantity: 'pressure', ink: 'activation' },
  { id: 'output', name: 'Brake circuit 1', short: 'Circ 1', quantity: 'pressure' },
  { id: 'output-2', name: 'Brake circuit 2', short: 'Circ 2', quantity: 'pressure', ink: 'output' },
  { id: 'oil', name: 'Oil', short: 'Oil', quantity: 'temperature', ink: 'supply' },
  { id: 'recorder', name: 'Recorder', short: 'Time', quantity: 'duration' },
];

/** Where it is looked for what no gauge shows. */
export const leakPoints: readonly Port[] = [
  { id: 'valve', name: 'Valve body', short: 'Valve', quantity: null },
  { id: 'return', name: 'Return line', short: 'Return', quantity: null },
];

const CHARGE = ['cautions', 'charge', 'reserve', 'recharge', 'standing'];
const METERING = ['sweep', 'hold', 'residual', 'maximum', 'cross'];
const FILLING = ['maximum', 'reserve'];
const EVERYTHING = ['cautions', 'oil', ...new Set([...CHARGE, ...METERING]), 'after'];

const FIRST = ['supply', 'output'];
const SECOND = ['supply-2', 'output-2'];
const BOTH = [...FIRST, ...SECOND];

/** What can be changed on a dual pedal valve, and which steps it makes stale. */
const everyPart: readonly Part[] = [
  part('spools', 'Spools and their bores', [...METERING, ...CHARGE], BOTH),
  part('drilling', 'Feedback drilling', ['sweep', 'hold', 'reserve'], FIRST),
  part('spring', 'Metering spring', [...METERING, ...FILLING], []),
  part('circuit-seal', 'Seal between the circuits', ['sweep', 'cross', 'residual', 'standing'], BOTH),
  part('stop', 'Pedal stop', ['sweep', 'hold', 'maximum', 'reserve', 'cross'], []),
  part('accumulator-1', 'Accumulator, circuit 1', CHARGE, ['supply']),
  part('accumulator-2', 'Accumulator, circuit 2', CHARGE, ['supply-2']),
  part('return', 'Return line and its filter', ['cautions', ...METERING, 'after'], ['output', 'output-2']),
  part('discs', 'Brake discs or linings', ['hold', 'after', ...FILLING], BOTH),
  part('whole', 'Several parts: the whole valve apart', EVERYTHING, BOTH),
  line('circuit-1-line', 'Line of circuit 1', [...METERING, ...FILLING], ['output']),
  line('circuit-2-line', 'Line of circuit 2', ['sweep', 'cross', 'reserve'], ['output-2']),
  gauge(
    'circuit-gauge',
    'A gauge of a brake circuit moved or changed',
    ['zeros', ...METERING],
    ['output', 'output-2'],
  ),
  gauge(
    'accumulator-gauge',
    'A gauge of an accumulator moved or changed',
    ['zeros', ...CHARGE],
    ['supply', 'supply-2'],
  ),
];

/** The same where it is tested: without cocks nothing is read of what crosses over. */
export const partsWith = ({ cocks }: Cocks): readonly Part[] =>
  cocks
    ? everyPart
    : everyPart.map(({ disturbs, ...one }) => ({
        ...one,
        disturbs: disturbs.filter((step) => step !== 'cross'),
      }));
