import type { Rig } from '../../contract/run-context';
import type { Sources } from '../../contract/sources';
import type { Item, Procedure, ReadingItem, Step } from '../../contract/steps';
import {
  fluidLook,
  look,
  mustBe,
  readingOn,
  shuttingCocks,
  taking,
  untilMended,
  zerosStep,
} from '../bench-items';
import { makeSafeStep } from '../making-safe';
import { APPLICATION, type ReadingId } from './member';
import { ports } from './places';
import type { PedalValveProfile } from './profile';

const OFF: Sources = { pump: 'off' };
const ON: Sources = { pump: 'on' };

const reading = (
  id: string,
  port: 'treadle' | 'supply' | 'supply-2' | 'output' | 'output-2' | 'oil' | 'recorder',
  measures: ReadingId | 'input' | 'source.charged' | 'source.oil',
  prompt: string,
  more: Partial<ReadingItem> = {},
) => readingOn(ports, id, port, measures, prompt, more);

/** Both accumulators, the second as the first. */
const both = (
  id: string,
  measures: readonly [ReadingId | 'source.charged', ReadingId | 'source.charged'],
  prompt: (which: string) => string,
  more: Partial<ReadingItem> = {},
): ReadingItem[] => [
  reading(`${id}.supply`, 'supply', measures[0], prompt('accumulator 1'), more),
  reading(`${id}.supply2`, 'supply-2', measures[1], prompt('accumulator 2'), more),
];

const setTo = (id: string, target_Pa: number, prompt: string, more: Partial<ReadingItem> = {}): ReadingItem =>
  reading(`${id}.travel`, 'treadle', 'input', prompt, { target_Pa, ...more });

/** A travel of the sweep, and both circuits at it. */
const swept = (id: string, travel_m: number): Item[] => [
  setTo(id, travel_m, 'Press on to this travel, never back, and read it.'),
  reading(`${id}.output`, 'output', 'output', 'Read circuit 1.', {
    target_Pa: travel_m,
    inputFrom: `${id}.travel`,
  }),
  reading(`${id}.output2`, 'output-2', 'output2', 'Read circuit 2.', {
    target_Pa: travel_m,
    inputFrom: `${id}.travel`,
  }),
];

/** Applications made beyond those that must be there: they show where the reserve ends. */
const BEYOND = 2;
/** A valve that hunts does so within this time, s. Handbook-models 8.7. */
const HELD_S = 10;

/** Attended minutes of each step, its waits not counted. Handbook-models 8.7. */
const MINUTES = {
  cautions: 4,
  zeros: 2,
  charge: 5,
  oil: 1,
  sweep: 8,
  hold: 3,
  residual: 2,
  maximum: 6,
  cross: 8,
  reserve: 5,
  recharge: 0.5,
  standing: 2,
  after: 1,
  'make-safe': 2,
};

/** The travel in the middle of the sweep. */
export const middleOf = ({ sweep_m }: Pick<PedalValveProfile, 'sweep_m'>) =>
  Math.floor((sweep_m.length - 1) / 2);

/** The bench test of a dual pedal valve, in the order of handbook-models 8.7, for one profile on one rig. */
export function procedure(profile: PedalValveProfile, rig: Rig): Procedure {
  const { sweep_m, stop_m, limits } = profile;
  const middle_m = sweep_m[middleOf(profile)]!;
  const least = limits.applications.value;
  const steps: Step[] = [
    {
      id: 'cautions',
      title: 'Before anything is connected',
      instruction: 'Read the cautions. Fix the valve to the bench, its pedal free to travel.',
      cautions: ['held-by-check-valves', 'charged-vessel', 'bench-pressure', 'machine-stands', 'fluids'],
      state: OFF,
      fluid: true,
      needs: [],
      mandatory: true,
      items: [
        fluidLook(profile.fluid),
        mustBe(
          'emptied',
          'Both accumulators emptied',
          'Pump off and secured, the pedal pressed again and again until nothing comes, and the bleed screw of each accumulator opened slowly into a closed hose until its flow has stopped?',
          'Emptied, nothing comes',
          [
            'charged',
            'Not yet, or it still comes',
            untilMended(
              'Press until the pedal moves nothing, then bleed each accumulator into a closed hose until nothing comes. No gauge is connected before that: check valves keep what is stored.',
            ),
          ],
        ),
        mustBe(
          'still',
          'Stands still',
          'Wheels chocked and implements down, or the valve clamped to the bench?',
          'Chocked or clamped',
          ['loose', 'Not yet', untilMended('Chock it and lower what is raised, then look again.')],
        ),
        look('drag-hot', 'Brakes dragged hot', 'Came in with brakes that drag once they are hot?', 'No', [
          'drags',
          'They drag',
        ]),
        look(
          'one-lamp',
          'One low-pressure lamp',
          'Did one low-pressure lamp come on well before the other?',
          'No',
          ['one', 'One of them'],
        ),
      ],
    },
    zerosStep(ports, rig, 'Pump off, pedal released, every line vented; read what each gauge shows.', OFF),
    {
      id: 'charge',
      title: 'Charge from empty',
      instruction:
        'Accumulators empty. Start the pump and watch both gauges: each jumps as fluid first enters. Let the charge settle while the pump holds it.',
      cautions: ['held-by-check-valves'],
      state: ON,
      needs: ['zeros'],
      leaves: { input: 'released', charge: 'full' },
      items: [
        reading('flick.supply', 'supply', 'flickUp', 'Read the pressure that accumulator 1 jumps to.', {
          moment: 'by-hand',
        }),
        reading('flick.supply2', 'supply-2', 'flickUp2', 'Read the pressure that accumulator 2 jumps to.', {
          moment: 'by-hand',
        }),
        ...both('rest', ['source.charged', 'source.charged'], (which) => `Settled: read ${which}.`),
      ],
    },
    {
      id: 'oil',
      title: 'Oil warm',
      instruction:
        'Run the pack until its oil is at 30 °C or more: cold oil makes a sound valve hunt and leak less.',
      cautions: [],
      state: ON,
      needs: ['charge'],
      items: [reading('oil.warm', 'oil', 'source.oil', 'Read the oil at the pack.')],
    },
    {
      id: 'sweep',
      title: 'Sweep',
      instruction:
        'Press slowly and only onward; at each travel let both circuits settle, then read. At the last, come back to the middle one.',
      cautions: ['bench-pressure'],
      state: ON,
      needs: ['charge', 'oil'],
      leaves: { input: 'applied' },
      items: [
        reading(
          'begin.travel',
          'treadle',
          'begins',
          'Press slowly: read the travel as circuit 1 first rises.',
          {
            moment: 'output-begins',
          },
        ),
        ...sweep_m.flatMap((travel_m, i) => swept(`sweep.${i + 1}`, travel_m)),
        setTo('down', middle_m, 'Come back to this travel, only downward, and read it.'),
        reading('down.output', 'output', 'releasing', 'Read circuit 1.', {
          target_Pa: middle_m,
          inputFrom: 'down.travel',
        }),
      ],
    },
    {
      id: 'hold',
      title: 'Pressed at once, and held',
      instruction: 'Let go. Press to this travel at once and hold: watch how far circuit 1 goes beyond.',
      cautions: [],
      state: ON,
      needs: ['sweep'],
      leaves: { input: 'applied' },
      items: [
        setTo('hold', middle_m, 'Press at once to this travel, hold it there and read it.', {
          moment: 'next-application',
        }),
        reading('hold.peak', 'output', 'peak', 'Read the highest that circuit 1 came to.', {
          target_Pa: middle_m,
          inputFrom: 'hold.travel',
          moment: 'by-hand',
        }),
        { kind: 'wait', id: 'hold.wait', prompt: 'Held still', duration_s: HELD_S, starts: 'key' },
        reading('hold.output', 'output', 'output', 'Read circuit 1 after the hold.', {
          target_Pa: middle_m,
          inputFrom: 'hold.travel',
        }),
        look(
          'throbs',
          'Steady while held',
          'Pedal and gauge steady while it was held?',
          'Steady',
          ['throbs', 'It throbs'],
          'valve',
        ),
      ],
    },
    {
      id: 'residual',
      title: 'Released',
      instruction: 'Let the pedal fully back.',
      cautions: [],
      state: ON,
      needs: ['sweep'],
      leaves: { input: 'released' },
      items: [
        reading('residual.output', 'output', 'residual', 'Read what is left in circuit 1.', { target_Pa: 0 }),
      ],
    },
    {
      id: 'maximum',
      title: 'At the stop, and how fast',
      instruction:
        'Press to the stop and read. Let go, press to the stop at once, and time circuit 1 to nine tenths.',
      cautions: ['bench-pressure'],
      state: ON,
      needs: ['sweep'],
      leaves: { input: 'released' },
      items: [
        reading('maximum.output', 'output', 'maximum', 'Read circuit 1 at the stop.', { target_Pa: stop_m }),
        reading(
          'apply.time',
          'recorder',
          'applyTime',
          'Press to the stop at once: read the time to nine tenths.',
          {
            target_Pa: stop_m,
            moment: 'by-hand',
          },
        ),
      ],
    },
    {
      id: 'cross',
      title: 'From one circuit into the other',
      instruction:
        'Pedal released, circuit 2 at zero: shut its cocks, the one to accumulator 2 and the one to its brake. No line is opened for this. Press to the travel named and hold.',
      cautions: ['held-by-check-valves', 'bench-pressure'],
      state: ON,
      needs: ['sweep'],
      leaves: { input: 'released' },
      items: [
        setTo('cross', middle_m, 'Press to this travel, hold it there and read it.'),
        {
          kind: 'wait',
          id: 'cross.wait',
          prompt: 'Circuit 1 held',
          duration_s: profile.cross_s,
          starts: 'key',
        },
        reading('cross.output2', 'output-2', 'crossed', 'Read circuit 2.', {
          target_Pa: middle_m,
          inputFrom: 'cross.travel',
          elapsed_s: profile.cross_s,
        }),
      ],
    },
    {
      id: 'reserve',
      title: 'Reserve: pump off',
      instruction: `Both cocks of circuit 2 open again, both charged and settled, then pump off. Press to the stop, read after ${APPLICATION.held_s} s with the pedal down, let go; again every ${APPLICATION.every_s} s.`,
      cautions: [],
      state: OFF,
      needs: ['maximum'],
      leaves: { input: 'released', charge: 'spent' },
      items: [
        ...both('reserve', ['source.charged', 'source.charged'], (which) => `Pump just off: read ${which}.`),
        ...Array.from({ length: least + BEYOND }, (_, i) => [
          ...both(`reserve.${i + 1}`, ['kept', 'kept2'], (which) => `Application ${i + 1}: read ${which}.`, {
            target_Pa: stop_m,
            applications: i + 1,
            moment: 'next-application',
          }).map((item) => ({
            ...item,
            sourceFrom: item.port === 'supply' ? 'reserve.supply' : 'reserve.supply2',
          })),
        ]).flat(),
      ],
    },
    {
      id: 'recharge',
      title: 'Charge again',
      instruction: 'The reserve test used up what was stored. Start the pump and let it settle.',
      cautions: [],
      state: ON,
      needs: ['charge'],
      leaves: { input: 'released', charge: 'full' },
      items: both('recharge', ['source.charged', 'source.charged'], (which) => `Settled: read ${which}.`),
    },
    {
      id: 'standing',
      title: 'Standing, pump off',
      instruction:
        'Settled, the pump off, the pedal released. Read both and leave it alone: gas that still cools looks like a leak.',
      cautions: [],
      state: OFF,
      needs: ['recharge', 'oil'],
      leaves: { input: 'released' },
      items: [
        ...both('standing', ['source.charged', 'source.charged'], (which) => `Pump just off: read ${which}.`),
        {
          kind: 'wait',
          id: 'standing.wait',
          prompt: 'Both stand',
          duration_s: profile.standing_s,
          starts: 'reading',
        },
        ...both('left', ['left', 'left2'], (which) => `Read ${which} again.`, {
          elapsed_s: profile.standing_s,
        }),
      ],
    },
    {
      id: 'after',
      title: 'Return side',
      instruction: 'Pump off, pedal released. Look at what came back.',
      cautions: [],
      state: OFF,
      fluid: true,
      needs: [],
      leaves: { input: 'released' },
      items: [
        look(
          'metal-return',
          'Metal in the return',
          'Filter or tray of the return: free of metal?',
          'Free of metal',
          ['metal', 'Metal found'],
          'return',
        ),
        look('fluid-level', 'Fluid level', 'Level as it was, with nothing wet outside?', 'As it was', [
          'falls',
          'Level fell',
        ]),
      ],
    },
    makeSafeStep(
      ports,
      rig,
      'Pump off and secured. Press again and again until both accumulators read zero: their check valves hold what is stored.',
      OFF,
    ),
  ];
  return {
    id: 'pedal-valve-bench',
    version: 2,
    steps: taking(
      steps.map((step) => shuttingCocks(step, rig, 1)),
      MINUTES,
    ),
  };
}
