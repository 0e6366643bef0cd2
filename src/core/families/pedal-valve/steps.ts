import type { CautionId } from '../../contract/cautions';
import type { PhasedStep, TestedAt } from '../../contract/family';
import type { Rig } from '../../contract/run-context';
import type { Item, ReadingItem, Step } from '../../contract/steps';
import { look, readingOn, taking, whileFed } from '../bench-items';
import { APPLICATION, type ReadingId } from './member';
import type { PedalValveProfile } from './profile';

/** Where a dual pedal valve is read, by name. */
type ValvePort = 'treadle' | 'supply' | 'supply-2' | 'output' | 'output-2' | 'oil' | 'recorder';

/** Applications made beyond those that must be there: they show where the reserve ends. */
const BEYOND = 2;
/** A valve that hunts does so within this time, s. Handbook-models 8.7. */
const HELD_S = 10;

/** Attended minutes of each step, its waits not counted. Handbook-models 8.7. */
const MINUTES = {
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
};

/** The travel in the middle of the sweep. */
export const middleOf = ({ sweep_m }: Pick<PedalValveProfile, 'sweep_m'>) =>
  Math.floor((sweep_m.length - 1) / 2);

/** Cocks in the lines of circuit 2, as a bench has them: they shut it off with no line opened. */
export interface Cocks {
  readonly cocks: boolean;
}

/** Tests of a dual pedal valve, in the order of handbook-models 8.7, with its minutes. */
export const stepsWith =
  ({ cocks }: Cocks) =>
  (profile: PedalValveProfile, _rig: Rig, at: TestedAt): PhasedStep[] => {
    const { sweep_m, stop_m, limits } = profile;
    const middle_m = sweep_m[middleOf(profile)]!;
    const least = limits.applications.value;
    const onBench = at.setting === 'bench';
    const pump = onBench ? 'pump' : 'engine';
    const justOff = onBench ? 'Pump just off' : 'Engine just off';
    // On a bench nothing turns that is not clamped, and the pressure that stands by itself is told of as it is charged.
    const charging = (...also: readonly CautionId[]) => (onBench ? also : whileFed(at, ...also));
    const reading = (
      id: string,
      port: ValvePort,
      measures: ReadingId | 'input' | 'source.charged' | 'source.oil',
      prompt: string,
      more: Partial<ReadingItem> = {},
    ) => readingOn(at.ports, id, port, measures, prompt, more);
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
    const setTo = (id: string, target_Pa: number, prompt: string, more: Partial<ReadingItem> = {}) =>
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
    const cross: Step = {
      id: 'cross',
      title: 'From one circuit into the other',
      instruction:
        'Pedal released, circuit 2 at zero: shut its cocks, the one to accumulator 2 and the one to its brake. No line is opened for this. Press to the travel named and hold.',
      cautions: ['held-by-check-valves', 'bench-pressure'],
      state: at.on,
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
    };
    const all: Step[] = [
      {
        id: 'charge',
        title: 'Charge from empty',
        instruction: `Accumulators empty. Start the ${pump} and watch both gauges: each jumps as fluid first enters. Let the charge settle while it is held.`,
        cautions: charging('held-by-check-valves'),
        state: at.on,
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
        instruction: `Run the ${onBench ? 'pack' : 'engine'} until the oil is at 30 °C or more: cold oil makes a sound valve hunt and leak less.`,
        cautions: charging(),
        state: at.on,
        needs: ['charge'],
        items: [
          reading(
            'oil.warm',
            'oil',
            'source.oil',
            onBench ? 'Read the oil at the pack.' : 'Read the oil at the tank.',
          ),
        ],
      },
      {
        id: 'sweep',
        title: 'Sweep',
        instruction:
          'Press slowly and only onward; at each travel let both circuits settle, then read. At the last, come back to the middle one.',
        cautions: charging('bench-pressure'),
        state: at.on,
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
        cautions: charging(),
        state: at.on,
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
        cautions: charging(),
        state: at.on,
        needs: ['sweep'],
        leaves: { input: 'released' },
        items: [
          reading('residual.output', 'output', 'residual', 'Read what is left in circuit 1.', {
            target_Pa: 0,
          }),
        ],
      },
      {
        id: 'maximum',
        title: 'At the stop, and how fast',
        instruction:
          'Press to the stop and read. Let go, press to the stop at once, and time circuit 1 to nine tenths.',
        cautions: charging('bench-pressure'),
        state: at.on,
        needs: ['sweep'],
        leaves: { input: 'released' },
        items: [
          reading('maximum.output', 'output', 'maximum', 'Read circuit 1 at the stop.', {
            target_Pa: stop_m,
          }),
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
      ...(cocks ? [cross] : []),
      {
        id: 'reserve',
        title: 'Reserve: pump off',
        instruction: `${cocks ? 'Both cocks of circuit 2 open again, both' : 'Both'} charged and settled, then the ${pump} off. Press to the stop, read after ${APPLICATION.held_s} s with the pedal down, let go; again every ${APPLICATION.every_s} s.`,
        cautions: [],
        state: at.off,
        needs: ['maximum'],
        leaves: { input: 'released', charge: 'spent' },
        items: [
          ...both('reserve', ['source.charged', 'source.charged'], (which) => `${justOff}: read ${which}.`),
          ...Array.from({ length: least + BEYOND }, (_, i) => [
            ...both(
              `reserve.${i + 1}`,
              ['kept', 'kept2'],
              (which) => `Application ${i + 1}: read ${which}.`,
              {
                target_Pa: stop_m,
                applications: i + 1,
                moment: 'next-application',
              },
            ).map((item) => ({
              ...item,
              sourceFrom: item.port === 'supply' ? 'reserve.supply' : 'reserve.supply2',
            })),
          ]).flat(),
        ],
      },
      {
        id: 'recharge',
        title: 'Charge again',
        instruction: `The reserve test used up what was stored. Start the ${pump} and let it settle.`,
        cautions: charging(),
        state: at.on,
        needs: ['charge'],
        leaves: { input: 'released', charge: 'full' },
        items: both('recharge', ['source.charged', 'source.charged'], (which) => `Settled: read ${which}.`),
      },
      {
        id: 'standing',
        title: 'Standing, pump off',
        instruction: `Settled, the ${pump} off, the pedal released. Read both and leave it alone: gas that still cools looks like a leak.`,
        cautions: [],
        state: at.off,
        needs: ['recharge', 'oil'],
        leaves: { input: 'released' },
        items: [
          ...both('standing', ['source.charged', 'source.charged'], (which) => `${justOff}: read ${which}.`),
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
        instruction: `${at.says.off}, pedal released. Look at what came back.`,
        cautions: [],
        state: at.off,
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
    ];
    return taking(all, MINUTES).map((step) => ({ phase: step.id === 'after' ? 'after' : 'unit', step }));
  };
