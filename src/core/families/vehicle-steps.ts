import { FLUIDS, type FluidKind } from '../fluid/kinds';
import type { Port } from '../contract/family';
import type { Rig } from '../contract/run-context';
import type { Step } from '../contract/steps';
import { look, openCocks, untilMended, zeroItems } from './bench-items';
import { bleedingLooks, closedLook, dryLook, pedalLook } from './closing-looks';
import type { Setting } from './assembly';
import { safeItems } from './making-safe';
import { VEHICLE_PORTS } from './vehicle-ports';

/** A vehicle of which the engine makes the vacuum. */
export const ON_VEHICLE: Omit<Setting, 'names'> = {
  setting: 'vehicle',
  ports: VEHICLE_PORTS,
  output: 'front',
  on: { ignition: 'on', engine: 'idle' },
  off: { engine: 'off' },
  opening: (rig, fluid) => openingSteps(VEHICLE_PORTS, rig, fluid),
  closing: (rig, fluid) => closingSteps(VEHICLE_PORTS, rig, fluid),
};

/** Every source of a vehicle that a booster is fed by, at rest. */
const AT_REST = { ignition: 'off', engine: 'off' } as const;

/** What comes before anything is measured on a vehicle: cautions, what can be seen, gauges vented. Handbook 2, 8. */
const openingSteps = (ports: readonly Port[], rig: Rig, fluid: FluidKind): Step[] => [
  {
    id: 'cautions',
    title: 'Before anything is touched',
    instruction: 'Read the cautions. Chock the wheels and put the gear in neutral or park.',
    cautions: ['running-engine', 'vacuum', 'fluids', 'lining-dust', 'bench-pressure'],
    state: AT_REST,
    needs: [],
    mandatory: true,
    attended_s: 180,
    items: [
      look(
        'chocked',
        'Wheels chocked',
        'Wheels chocked, gear in neutral or park, extraction on?',
        'Chocked',
        [
          'not',
          'Not yet',
          untilMended('No engine is started before the wheels are chocked and the extraction is on.'),
        ],
      ),
      look(
        'fluid',
        'Brake fluid',
        `Reservoir filled with ${FLUIDS[fluid]}, the fluid of this vehicle?`,
        'Yes, that fluid',
        [
          'other',
          'Another fluid',
          untilMended(
            `Another fluid destroys the seals. Find out what it is; drain, flush and fill with ${FLUIDS[fluid]} before anything is tested, then look again.`,
          ),
        ],
      ),
    ],
  },
  {
    id: 'zeros',
    title: 'Gauges fitted and vented',
    instruction: `Fit what you carry: the vacuum gauge with its tee at the booster, a pressure gauge at a front bleed screw, the force gauge on the pedal. Bleed what was opened. Engine off, pedal pumped until it changes no more, foot off.${openCocks(rig)} Read what each shows; its zero is taken off every later reading.`,
    cautions: ['open-line'],
    state: { ...AT_REST, charge: 'spent' },
    needs: ['cautions'],
    fluid: true,
    leaves: { input: 'released' },
    attended_s: 420,
    items: zeroItems(ports, rig),
  },
];

/** What ends a test on a vehicle: every gauge at zero, then everything closed and the vehicle handed on as it is. */
function closingSteps(ports: readonly Port[], rig: Rig, fluid: FluidKind): Step[] {
  // A gauge of pressure stands at a bleed screw that was opened for it.
  const wet = ports.some(({ id, quantity }) => quantity === 'pressure' && (rig[id] ?? []).length > 0);
  return [
    {
      id: 'make-safe',
      title: 'Make safe',
      instruction: `Engine off, pedal pumped until nothing helps any more, foot off.${openCocks(rig)} Every gauge must read zero before it comes off.`,
      cautions: ['open-line'],
      state: AT_REST,
      needs: [],
      mandatory: true,
      leaves: { input: 'released', charge: 'spent' },
      attended_s: 60,
      items: safeItems(ports, rig),
    },
    {
      id: 'made-good',
      title: 'Made good',
      instruction: `Take the gauges off, close what was open${wet ? ', bleed it in order, each place again until it runs clear,' : ''} and look at all of it. What is left open is said, never guessed.`,
      cautions: ['fluids'],
      state: AT_REST,
      needs: ['make-safe'],
      mandatory: true,
      fluid: true,
      attended_s: 240,
      items: [
        closedLook(
          'good',
          'Bleed screws tight and capped, vacuum hose back on and clipped, tools and gauges out?',
        ),
        ...(wet ? bleedingLooks('good', fluid) : []),
        dryLook(
          'good',
          'Pedal pressed hard for ten seconds: dry wherever it was open? Use card, never a hand.',
        ),
        pedalLook('good', 'Pedal pressed hard and held, engine running: firm, and does it stay where it is?'),
        look(
          'good.lamps',
          'Brake lamps',
          'Warning lamp out, stop lamps on with the pedal and off without?',
          'As they should',
          ['wrong', 'Not as they should'],
        ),
      ],
    },
  ];
}
