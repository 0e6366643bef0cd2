import type { PhasedStep, TestedAt } from '../../contract/family';
import type { Rig } from '../../contract/run-context';
import type { CautionId } from '../../contract/cautions';
import type { Item, ReadingItem, Step } from '../../contract/steps';
import { look, whileFed } from '../bench-items';
import { EVERY_S, LONGEST_S, SETTLES_S } from './circuit';
import { drops, levellingSteps } from './levelling-steps';
import type { ReadingId } from './member';
import { TENS, type StoredPressureProfile } from './profile';
import { BY_HAND, readingsAt } from './readings';

/** Applications made beyond those that must be there: they show where the reserve ends. */
const BEYOND = TENS;

/** Whether a body stands on them that is levelled: on a bench none does. */
export interface Levelled {
  readonly levelled: boolean;
}

/** Tests of two circuits of stored pressure, in the order of handbook-models 8.6, with its minutes. */
export const stepsWith =
  ({ levelled }: Levelled) =>
  (profile: StoredPressureProfile, rig: Rig, at: TestedAt): PhasedStep[] => {
    const { limits, metering_N, light_N, standing_s, watch_s } = profile;
    const { read, both } = readingsAt(at);
    const levelling = levelled ? levellingSteps(profile, rig, at) : { fed: [], onSprings: [] };
    const engine = at.on.engine ? 'engine' : 'pump';
    const { off: stopped } = at.says;
    const nobodyNear = levelled ? ', nobody near the body: it rises' : '';
    const fed = (...also: readonly CautionId[]) => [
      ...whileFed(at, ...also),
      ...(levelled ? (['body-moves'] as const) : []),
    ];
    /** The gas comes to its shell, the engine off. */
    const settles = (id: string): Item => ({
      kind: 'wait',
      id,
      prompt: `${stopped}: gas settles`,
      duration_s: SETTLES_S,
      starts: 'key',
    });
    const timed = (
      id: string,
      measures: readonly [ReadingId, ReadingId],
      prompt: (which: string) => string,
    ) => [
      read(`${id}.time`, 'timer', measures[0], prompt('the front circuit'), BY_HAND),
      read(`${id}.time2`, 'timer-2', measures[1], prompt('the rear circuit'), BY_HAND),
    ];
    const found = (id: string) =>
      both(id, ['supply', 'supply'], (which) => `${stopped}, settled: read ${which}.`);
    /** What was found to be stored counts for a pair of readings of both circuits. */
    const storedAt = (id: string, pair: readonly ReadingItem[]): ReadingItem[] =>
      pair.map((item, i) => ({ ...item, sourceFrom: i === 0 ? `${id}.supply` : `${id}.supply2` }));
    const pedal = (id: string, target_Pa: number, prompt: string) =>
      read(`${id}.input`, 'pedal', 'input', prompt, { target_Pa });
    const brakes = (id: string, measures: readonly [ReadingId, ReadingId], target_Pa: number): Item[] => [
      read(`${id}.front`, 'front', measures[0], 'Read the front brakes.', {
        target_Pa,
        inputFrom: `${id}.input`,
      }),
      read(`${id}.rear`, 'rear', measures[1], 'Read the rear brakes.', {
        target_Pa,
        inputFrom: `${id}.input`,
      }),
    ];
    const middle_N = metering_N[Math.floor((metering_N.length - 1) / 2)]!;

    const first: Step[] = [
      {
        id: 'asked',
        title: levelled ? 'Asked, and read on the spheres' : 'Read on the spheres',
        instruction: `${at.says.off}. ${levelled ? 'Ask how it stands overnight, read' : 'Read'} the labels of the accumulators, look at the fluid.`,
        cautions: ['charged-vessel', 'fluids'],
        state: at.off,
        needs: ['cautions'],
        fluid: true,
        attended_s: 180,
        items: [
          ...(levelled ? [drops] : []),
          look(
            'label',
            'Labels of the accumulators',
            `Does each ${profile.sphere} accumulator carry the label that belongs there? One thread takes many gases.`,
            'The ones that belong',
            ['other', 'Another one'],
            'seat',
          ),
          look('colour', 'Fluid', 'Fluid clear, of the right colour and smell?', 'The right one', [
            'other',
            'Another fluid',
          ]),
        ],
      },
      {
        id: 'level',
        title: 'Level',
        instruction: `Both circuits emptied, the ${engine} off: only so does the level say anything.`,
        cautions: ['fluids'],
        state: { ...at.off, charge: 'spent' },
        needs: ['cautions'],
        fluid: true,
        leaves: { input: 'released' },
        attended_s: 60,
        items: [
          look(
            'level',
            'Level, both circuits empty',
            'Reservoir at its mark, both circuits empty?',
            'At its mark',
            ['off', 'Below or above'],
          ),
        ],
      },
    ];
    const charge: Step = {
      id: 'charge',
      title: 'Charge from empty',
      instruction: `Both circuits at zero${nobodyNear}. Start the ${engine} and the watch with it. Both lamps are lit, as they should be; each gauge jumps as fluid first enters. Where a circuit is not there after ${LONGEST_S} s, enter that. Once both have stopped rising, stop the ${engine} and leave it.`,
      cautions: fed('held-by-check-valves'),
      state: at.on,
      needs: ['zeros', 'level'],
      leaves: { ...at.off, input: 'released', charge: 'full' },
      attended_s: 360,
      items: [
        ...both(
          'flick',
          ['flickUp', 'flickUp2'],
          (which) => `Read the pressure to which ${which} jumps.`,
          BY_HAND,
        ),
        ...timed(
          'lamp',
          ['lampOff', 'lampOff2'],
          (which) => `Read the time until the lamp of ${which} is out.`,
        ),
        ...timed(
          'charge',
          ['chargeTime', 'chargeTime2'],
          (which) => `Read the time until ${which} stops rising.`,
        ),
        ...both('charge', ['cutOut', 'cutOut2'], (which) => `Read the highest of ${which}.`, BY_HAND),
        settles('charge.wait'),
        ...both('settled', ['settled', 'settled2'], (which) => `Settled: read ${which}.`, BY_HAND),
      ],
    };
    const rest: Step[] = [
      {
        id: 'standing',
        title: `Standing, ${engine} off`,
        instruction: `${stopped} and the gas settled, leave it as it stands, foot off. Gas that still cools looks like a leak, and what leaks by design is in what is expected.`,
        cautions: [],
        state: at.off,
        needs: ['charge'],
        leaves: { input: 'released' },
        attended_s: 180,
        items: [
          settles('standing.settle'),
          ...found('standing'),
          {
            kind: 'wait',
            id: 'standing.wait',
            prompt: 'Both stand',
            duration_s: standing_s,
            starts: 'reading',
          },
          ...both('left', ['left', 'left2'], (which) => `Read ${which} again.`, { elapsed_s: standing_s }),
        ],
      },
      {
        id: 'seep',
        title: 'Seeps',
        instruction: `${stopped}, still charged. Look with card and lamp at seats, unions and valves; never feel with a hand.`,
        cautions: ['held-by-check-valves', 'bench-pressure'],
        state: at.off,
        needs: ['charge'],
        leaves: { input: 'released' },
        attended_s: 300,
        items: [
          look(
            'seep',
            'Seats and unions',
            'Seats of both accumulators, unions and valves dry? Use card, never a hand.',
            'Dry',
            ['wet', 'Wet somewhere'],
            'seat',
          ),
        ],
      },
      {
        id: 'cycles',
        title: 'Cut-in',
        instruction:
          'Both charged. Press lightly again and again: each gauge falls, then turns as its block lets the pump in again.',
        cautions: whileFed(at),
        state: at.on,
        needs: ['charge'],
        leaves: { input: 'released', charge: 'full' },
        attended_s: 360,
        items: [
          ...both('in', ['cutIn', 'cutIn2'], (which) => `Read ${which} as it turns upward.`, BY_HAND),
          look('ticks', 'Left alone', 'Nobody braking for a minute: does the block stay quiet?', 'Quiet', [
            'ticks',
            'It ticks again and again',
          ]),
        ],
      },
      {
        id: 'metering',
        title: 'Metering',
        instruction:
          'Both charged. Bring the pedal to each force, always onward, let it stand and read front and rear; at the last come back to the middle one, then let go.',
        cautions: whileFed(at, 'bench-pressure'),
        state: at.on,
        needs: ['charge'],
        leaves: { input: 'released', charge: 'full' },
        attended_s: 600,
        items: [
          ...both('metering', ['supply', 'supply'], (which) => `Foot off: read ${which}.`),
          ...metering_N.flatMap((force_N, i) => [
            pedal(`metering.${i + 1}`, force_N, 'Press on to this force, never back, and read it.'),
            ...brakes(`metering.${i + 1}`, ['output', 'output2'], force_N),
          ]),
          pedal('down', middle_N, 'Come back to this force, only downward, and read it.'),
          ...brakes('down', ['releasing', 'releasing2'], middle_N),
          read('released.front', 'front', 'residual', 'Let go: read what is left in the front brakes.', {
            target_Pa: 0,
          }),
          read('released.rear', 'rear', 'residual2', 'Read what is left in the rear brakes.', {
            target_Pa: 0,
          }),
        ],
      },
      ...levelling.fed,
      {
        id: 'applications',
        title: 'Applications from full',
        instruction: `Both charged: the ${engine} off, and let the gas settle. Then light applications at the force named, one every ${EVERY_S} s, let go fully between them; read both gauges after every ${TENS}.`,
        cautions: [],
        state: at.off,
        needs: ['cycles'],
        leaves: { input: 'released', charge: 'spent' },
        attended_s: 300,
        items: [
          settles('applications.wait'),
          ...found('applications'),
          ...Array.from({ length: (limits.applications.value + BEYOND) / TENS }, (_, i) => {
            const made = (i + 1) * TENS;
            return storedAt(
              'applications',
              both(
                `kept.${made}`,
                ['kept', 'kept2'],
                (which) => `${made} applications made: read ${which}.`,
                {
                  ...BY_HAND,
                  target_Pa: light_N,
                  applications: made,
                },
              ),
            );
          }).flat(),
          ...both(
            'lit',
            ['lamp', 'lamp2'],
            (which) => `Go on until the lamp of ${which} lights: read it.`,
            BY_HAND,
          ),
        ],
      },
      {
        id: 'recharge',
        title: 'Charge again',
        instruction: `${at.says.on} until both gauges have stopped rising; then stop it and leave it alone.`,
        cautions: fed(),
        state: at.on,
        needs: ['charge'],
        leaves: { ...at.off, input: 'released', charge: 'full' },
        attended_s: 60,
        items: [settles('recharge.wait')],
      },
      {
        id: 'stand-to-lamp',
        title: 'Stand to the lamp',
        instruction: `${levelled ? 'Ignition on, engine off' : stopped}, foot off. It empties by design, the sooner the warmer its oil. The recorder tells when each lamp lights; where one did not within ${Math.round(watch_s / 3600)} h, enter those.`,
        cautions: [],
        state: at.off,
        needs: ['recharge'],
        leaves: { input: 'released', charge: 'spent' },
        attended_s: 120,
        items: [
          ...found('stand'),
          { kind: 'wait', id: 'stand.wait', prompt: 'Both stand', duration_s: watch_s, starts: 'key' },
          ...storedAt(
            'stand',
            timed('stand', ['toLamp', 'toLamp2'], (which) => `Read when the lamp of ${which} lit.`),
          ),
        ],
      },
      ...levelling.onSprings,
    ];
    return [
      ...first.map((step): PhasedStep => ({ phase: 'look', step })),
      { phase: 'supply', step: charge },
      ...rest.map((step): PhasedStep => ({ phase: 'unit', step })),
    ];
  };
