import type { Part, Port } from '../../contract/family';
import { gauge, line, part } from '../part-kinds';
import type { Side } from './parameters';
import type { StoredPressureProfile } from './profile';
import type { Levelled } from './steps';

/** Where it is looked for what no gauge shows. */
export const leakPoints: readonly Port[] = [
  { id: 'seat', name: 'Seat of an accumulator', short: 'Seat', quantity: null },
];

const PORT: Readonly<Record<Side, string>> = { front: 'supply', rear: 'supply-2' };
const BRAKE: Readonly<Record<Side, string>> = { front: 'front', rear: 'rear' };
const CHARGE = ['charge', 'cycles', 'idle'];
const STANDS = ['charge', 'standing', 'stand-to-lamp'];
const SWITCHED = [...new Set([...CHARGE, 'applications', ...STANDS])];
const STORE = ['level', ...SWITCHED];
const METERING = ['metering', 'travel', ...STANDS, 'applications'];
const HEIGHTS = ['heights', 'on-stands', 'rams', 'springs', 'bumps', 'rise'];
const EVERYTHING = [...new Set([...STORE, ...METERING, ...HEIGHTS, 'asked', 'seep'])];

const neverRebuilt = (profile: unknown) =>
  (profile as StoredPressureProfile).sphere === 'sealed'
    ? 'This accumulator is sealed: it is replaced, and handled and disposed of as a charged vessel.'
    : null;

const ofSide = (side: Side): readonly Part[] => [
  {
    ...part(`accumulator-${side}`, `Accumulator, ${side} circuit`, ['asked', 'seep', ...STORE], [PORT[side]]),
    neverRebuilt,
  },
  part(`valve-${side}`, `Distribution valve, ${side}`, [...METERING, 'seep'], [PORT[side], BRAKE[side]]),
  part(`block-${side}`, `Valve block, ${side} circuit`, [...STORE, 'seep'], [PORT[side]]),
  part(`switch-${side}`, `Pressure switch, ${side} circuit`, SWITCHED, [PORT[side]]),
];

/** What can be changed on two circuits of stored pressure, and which steps it makes stale. */
const circuitParts: readonly Part[] = [
  ...ofSide('front'),
  ...ofSide('rear'),
  part('fluid', 'Fluid, flushed and filled anew', EVERYTHING, ['supply', 'supply-2', 'ram']),
  line('front-pressure', 'Pressure line of the front circuit', [...STORE, 'seep'], ['supply']),
  line('rear-pressure', 'Pressure line of the rear circuit', [...STORE, 'seep'], ['supply-2']),
  gauge(
    'circuit-gauge',
    'A gauge of a circuit moved or changed',
    ['zeros', ...STORE],
    ['supply', 'supply-2'],
  ),
  gauge(
    'brake-gauge',
    'A gauge of the brakes moved or changed',
    ['zeros', 'metering', 'bumps'],
    ['front', 'rear'],
  ),
];

/** What can be changed on the levelling. */
const levellingParts: readonly Part[] = [
  part('height-valve', 'Height valve and its linkage', ['asked', ...HEIGHTS, ...STANDS], ['supply-2', 'ram']),
  part('restrictor', 'Restrictor valve', ['bumps', 'rise'], ['supply-2', 'ram']),
  part('springs', 'Springs', HEIGHTS, []),
  line('ram-line', 'Line to the rams', [...HEIGHTS, 'seep'], ['ram']),
];

/** Both where a body is levelled; without one nothing is read of it, and no ram is there. */
export const partsWith = ({ levelled }: Levelled): readonly Part[] =>
  levelled
    ? [...circuitParts, ...levellingParts]
    : circuitParts.map(({ disturbs, opens, ...one }) => ({
        ...one,
        disturbs: disturbs.filter((step) => !HEIGHTS.includes(step)),
        opens: opens.filter((port) => port !== 'ram'),
      }));
