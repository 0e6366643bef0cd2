import type { Part } from '../../contract/family';

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

const part = (id: string, name: string, disturbs: readonly string[]): Part => ({
  id,
  name,
  kind: 'part',
  disturbs,
});
const line = (id: string, name: string, disturbs: readonly string[]): Part => ({
  id,
  name,
  kind: 'line',
  disturbs,
});

/** What can be changed on a remote vacuum unit, and which steps it makes stale (handbook 8, opening). */
export const parts: readonly Part[] = [
  part('diaphragm', 'Diaphragm', AIR_SIDE),
  part('hub-seals', 'Hub and shaft seals', AIR_SIDE),
  part('return-spring', 'Return spring', AIR_SIDE),
  part('poppet', 'Control-valve poppet and seat', AIR_SIDE),
  part('control-valve', 'Control valve and its seals', VALVE),
  part('spool-seal', 'Control-valve spool seal', VALVE),
  part('slave-cup', 'Slave cup', FLUID_SIDE),
  part('piston-check', 'Slave piston check', FLUID_SIDE),
  part('rod-seal', 'Push-rod seal', VALVE),
  part('slave-body', 'Slave cylinder, honed or sleeved', VALVE),
  part('breather', 'Breather hose or filter', ['ratio', 'full', 'release', 'supply-on', 'charge']),
  part('crossover', 'Crossover pipe', AIR_SIDE),
  part('check-valve', 'Check valve', VACUUM_HOSE),
  part('bleed-screw', 'Bleed screw', ['cautions', ...SEEPS, 'supply-on']),
  part('end-cap', 'End cap and its seal', [...FLUID_SIDE]),
  part('switch', 'Stop-lamp switch', ['cautions', 'lamp-switch', ...SEEPS]),
  part('whole', 'Several parts: the whole unit apart', EVERYTHING),
  line('fluid-line', 'Fluid line, in or out', SEEPS),
  line('vacuum-line', 'Vacuum hose', VACUUM_HOSE),
  line('activation-line', 'Hose to the activation gauge', [
    'supply-on',
    'ratio',
    'full',
    'release',
    'loss-released',
    'loss-applied',
    'charge',
  ]),
  {
    id: 'fluid-gauge',
    name: 'A fluid gauge moved or changed',
    kind: 'gauge',
    disturbs: [
      'zeros',
      'lamp-switch',
      'bypass',
      'seep-low',
      'supply-on',
      'ratio',
      'full',
      'hold',
      'release',
      'charge',
    ],
  },
  {
    id: 'vacuum-gauge',
    name: 'A vacuum gauge moved or changed',
    kind: 'gauge',
    disturbs: [
      'zeros',
      'supply-on',
      'ratio',
      'full',
      'hold',
      'release',
      'loss-released',
      'charge',
      'loss-applied',
    ],
  },
];
