import type { Part } from '../../contract/family';
import { gauge, part } from '../part-kinds';
import { WHEELS } from '../wheel-lines';

const STORE = ['charge', 'stand', 'targets', 'currents'];
const VALVES = ['simulator', 'released', 'targets', 'currents', 'fallback'];
const WHEEL_PORTS = WHEELS.map(({ port }) => port);
const EVERYTHING = [...new Set(['codes', 'lamps', 'tracks', ...STORE, ...VALVES, 'blend', 'store', 'after'])];

/** What can be changed on a decoupled brake, and which steps it makes stale. */
export const parts: readonly Part[] = [
  part('accumulator', 'Accumulator and its relief', [...STORE, 'lamps'], ['supply', 'store']),
  part('pump', 'Pump and its relay', [...STORE, 'codes', 'lamps'], ['supply', 'store']),
  part(
    'sensors',
    'Sensors of pressure',
    ['codes', 'lamps', 'simulator', ...STORE, 'released', 'fallback'],
    ['supply', 'store'],
  ),
  part(
    'pedal-sensor',
    'Sensor of the pedal with its magnet',
    ['codes', 'lamps', 'tracks', 'simulator', 'targets'],
    [],
  ),
  part('simulator', 'Simulator and its valve', [...VALVES, 'blend', 'tracks'], ['store']),
  part('valves', 'Valve block', [...VALVES, ...STORE, 'tracks'], ['supply', 'store', ...WHEEL_PORTS]),
  part('lamp-switch', 'Stop-lamp switch', ['codes', 'lamps'], []),
  part(
    'wiring',
    'Leads and shields of the sensors',
    ['codes', 'lamps', 'tracks', 'simulator', 'released', 'targets'],
    [],
  ),
  part('drive', 'Drive that takes back', ['codes', 'lamps', 'blend'], []),
  part('whole', 'The whole unit', EVERYTHING, ['supply', 'store', ...WHEEL_PORTS]),
  gauge(
    'accumulator-gauge',
    'The gauge of the accumulator moved or changed',
    ['zeros', ...STORE],
    ['supply'],
  ),
];
