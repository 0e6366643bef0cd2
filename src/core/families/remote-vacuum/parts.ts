import type { Part } from '../../contract/family';
import { gauge, line, part } from '../part-kinds';

/** What the vacuum side can have moved when the can is opened: everything that air or the diaphragm makes. */
const AIR_SIDE = [
  'supply-on',
  'ratio',
  'full',
  'hold',
  'release',
  'loss-released',
  'charge',
  'loss-applied',
  'after',
];
/** What the slave cylinder makes, from bypass to residual. */
const FLUID_SIDE = ['bypass', 'seep-low', 'supply-on', 'ratio', 'full', 'hold', 'release', 'charge', 'after'];
/** The control valve meters air by fluid pressure: it belongs to both. */
const VALVE = [...new Set([...FLUID_SIDE, ...AIR_SIDE])];
const EVERYTHING = ['cautions', 'lamp-switch', ...VALVE];
const VACUUM_HOSE = ['supply-on', 'full', 'loss-released', 'charge', 'loss-applied'];
const SEEPS = ['bypass', 'seep-low', 'hold', 'charge', 'after'];

/** Lines that are opened by work on each side. */
const AIR = ['supply', 'activation'];
const FLUID = ['input', 'output'];
const BOTH = [...FLUID, ...AIR];

/** What can be changed on a remote vacuum unit, and which steps it makes stale (handbook 8, opening). */
export const parts: readonly Part[] = [
  part('diaphragm', 'Diaphragm', AIR_SIDE, AIR),
  part('hub-seals', 'Hub and shaft seals', AIR_SIDE, AIR),
  part('return-spring', 'Return spring', AIR_SIDE, AIR),
  part('poppet', 'Control-valve poppet and seat', AIR_SIDE, AIR),
  part('control-valve', 'Control valve and its seals', VALVE, BOTH),
  part('spool-seal', 'Control-valve spool seal', VALVE, BOTH),
  part('slave-cup', 'Slave cup', FLUID_SIDE, FLUID),
  part('piston-check', 'Slave piston check', FLUID_SIDE, FLUID),
  part('rod-seal', 'Push-rod seal', VALVE, BOTH),
  part('slave-body', 'Slave cylinder, honed or sleeved', VALVE, BOTH),
  part(
    'breather',
    'Breather hose or filter',
    ['ratio', 'full', 'hold', 'release', 'supply-on', 'charge'],
    ['activation'],
  ),
  part('crossover', 'Crossover pipe', AIR_SIDE, AIR),
  part('check-valve', 'Check valve', VACUUM_HOSE, ['supply']),
  part('bleed-screw', 'Bleed screw', ['cautions', ...SEEPS, 'supply-on'], FLUID),
  part('end-cap', 'End cap and its seal', FLUID_SIDE, FLUID),
  part('switch', 'Stop-lamp switch', ['cautions', 'lamp-switch', ...SEEPS], FLUID),
  part('whole', 'Several parts: the whole unit apart', EVERYTHING, BOTH),
  line('fluid-line', 'Fluid line, in or out', SEEPS, FLUID),
  // Outputs lean on the supply under load, which the hose makes.
  line('vacuum-line', 'Vacuum hose', [...VACUUM_HOSE, 'ratio', 'hold', 'release'], ['supply']),
  line(
    'activation-line',
    'Hose to the activation gauge',
    ['supply-on', 'ratio', 'full', 'release', 'loss-released', 'loss-applied', 'charge'],
    ['activation'],
  ),
  gauge(
    'fluid-gauge',
    'A fluid gauge moved or changed',
    ['zeros', 'lamp-switch', 'bypass', 'seep-low', 'supply-on', 'ratio', 'full', 'hold', 'release', 'charge'],
    FLUID,
  ),
  gauge(
    'vacuum-gauge',
    'A vacuum gauge moved or changed',
    ['zeros', 'supply-on', 'ratio', 'full', 'hold', 'release', 'loss-released', 'charge', 'loss-applied'],
    AIR,
  ),
];
