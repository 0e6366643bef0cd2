import { FLUIDS, type FluidKind } from '../fluid/kinds';
import type { CautionId } from '../contract/cautions';
import type { Port, TestedAt } from '../contract/family';
import type { Rig } from '../contract/run-context';
import type { ObservationItem, Step } from '../contract/steps';
import type { Setting } from './assembly';
import { look, openCocks, untilMended, zeroItems } from './bench-items';
import { bleedingLooks, closedLook, dryLook, pedalLook } from './closing-looks';
import { safeItems } from './making-safe';
import { VEHICLE_PORTS } from './vehicle-ports';

/** What a kind of vehicle asks for besides what all do. */
interface Peculiar {
  /** Everything off, key and all. */
  readonly atRest: TestedAt['off'];
  readonly cautions: readonly CautionId[];
  /** What must be so before a gauge is fitted, beside chocks and fluid. */
  readonly first: readonly ObservationItem[];
  /** How the gauges are fitted, and what is done so that nothing is stored. */
  readonly fits: string;
  readonly spends: string;
  /** What is closed again besides bleed screws. */
  readonly closes: string;
}

/** A vehicle as a place of tests: what comes before and after is asked by what it has. Handbook 2, 8. */
export const onVehicle = (
  at: Omit<TestedAt, 'setting' | 'output'>,
  own: Peculiar,
): Omit<Setting, 'names'> => ({
  ...at,
  setting: 'vehicle',
  output: 'front',
  opening: (rig, fluid) => openingSteps(at, own, rig, fluid),
  closing: (rig, fluid) => closingSteps(at, own, rig, fluid),
});

/** A vehicle whose engine feeds its brake. */
export const BY_AN_ENGINE = {
  on: { ignition: 'on', engine: 'idle' },
  off: { engine: 'off' },
  lit: { ignition: 'on', engine: 'off' },
  says: { on: 'Engine idling', off: 'Engine off' },
} as const satisfies Partial<TestedAt>;

/** A vehicle of which the engine makes the vacuum. */
export const ON_VEHICLE = onVehicle(
  {
    ports: VEHICLE_PORTS,
    ...BY_AN_ENGINE,
    stored: [],
  },
  {
    atRest: { ignition: 'off', engine: 'off' },
    cautions: ['running-engine', 'vacuum', 'fluids', 'lining-dust', 'bench-pressure'],
    first: [],
    fits: 'the vacuum gauge with its tee at the booster, a pressure gauge at a front bleed screw, the force gauge on the pedal',
    spends: 'Engine off, pedal pumped until it changes no more, foot off.',
    closes: 'vacuum hose back on and clipped',
  },
);

type Place = Omit<TestedAt, 'setting' | 'output'>;

/** What is said where lines are opened: on a car that is levelled the body moves as its rams are let out. */
const openingCautions = (ports: readonly Port[]): CautionId[] => [
  'open-line',
  ...(ports.some(({ bledOnly }) => bledOnly) ? (['body-moves'] as const) : []),
];

/** What comes before anything is measured on a vehicle: cautions, what can be seen, gauges vented. */
const openingSteps = ({ ports }: Place, own: Peculiar, rig: Rig, fluid: FluidKind): Step[] => [
  {
    id: 'cautions',
    title: 'Before anything is touched',
    instruction: 'Read the cautions. Chock the wheels and put the gear in neutral or park.',
    cautions: own.cautions,
    state: own.atRest,
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
      ...own.first,
    ],
  },
  {
    id: 'zeros',
    title: 'Gauges fitted and vented',
    instruction: `Fit what you carry: ${own.fits}. Bleed what was opened. ${own.spends}${openCocks(rig)} Read what each shows; its zero is taken off every later reading.`,
    cautions: openingCautions(ports),
    state: { ...own.atRest, charge: 'spent' },
    needs: ['cautions'],
    fluid: true,
    leaves: { input: 'released' },
    attended_s: 420,
    items: zeroItems(ports, rig),
  },
];

/** What ends a test on a vehicle: every gauge at zero, then everything closed and the vehicle handed on as it is. */
function closingSteps({ ports, says }: Place, own: Peculiar, rig: Rig, fluid: FluidKind): Step[] {
  // A gauge of pressure stands at a bleed screw that was opened for it.
  const wet = ports.some(({ id, quantity }: Port) => quantity === 'pressure' && (rig[id] ?? []).length > 0);
  return [
    {
      id: 'make-safe',
      title: 'Make safe',
      instruction: `${own.spends}${openCocks(rig)} Every gauge must read zero before it comes off.`,
      cautions: openingCautions(ports),
      state: own.atRest,
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
      state: own.atRest,
      needs: ['make-safe'],
      mandatory: true,
      fluid: true,
      attended_s: 240,
      items: [
        closedLook('good', `Bleed screws tight and capped, ${own.closes}, tools and gauges out?`),
        ...(wet ? bleedingLooks('good', fluid) : []),
        dryLook(
          'good',
          'Pedal pressed hard for ten seconds: dry wherever it was open? Use card, never a hand.',
        ),
        pedalLook(
          'good',
          `Pedal pressed hard and held, ${says.on.toLowerCase()}: firm, and does it stay where it is?`,
        ),
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
