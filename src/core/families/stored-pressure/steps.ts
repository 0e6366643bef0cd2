import type { PhasedStep, TestedAt } from '../../contract/family';
import type { Rig } from '../../contract/run-context';
import type { Item, ReadingItem, Step } from '../../contract/steps';
import { look, mustBe, readingOn, untilMended } from '../bench-items';
import { EVERY_S, LONGEST_S, SETTLES_S } from './circuit';
import type { ReadingId } from './member';
import { TENS, type StoredPressureProfile } from './profile';

/** Where only a meter or an eye tells the moment. */
const BY_HAND = { moment: 'by-hand' } as const;

/** Applications made beyond those that must be there: they show where the reserve ends. */
const BEYOND = TENS;

type Measures = ReadingId | 'input' | 'supply' | 'zero';

/** Looked for before a ram or its line is touched, and before anybody goes near it again. */
const STANDS = mustBe(
  'springs.stands',
  'Body on stands',
  'Body on stands at its lifting points, wheels chocked, nobody under it?',
  'On stands',
  [
    'not',
    'Not yet',
    untilMended('A ram that is bled drops the body: set it on stands first, then look again.'),
  ],
);
const BLED = mustBe(
  'springs.bled',
  'Rams bled',
  'Bleed screw of each ram opened slowly into a closed hose. Has the flow stopped?',
  'Flow has stopped',
  [
    'flows',
    'It still comes',
    untilMended('Leave it until nothing comes, then look again. Nothing is lowered before.'),
  ],
);
const LOWERED = mustBe(
  'springs.lowered',
  'On its springs',
  'Lifted, stands out, lowered slowly with nobody under it or in a wheel arch, and bounced once so that it settles?',
  'It stands on its springs',
  [
    'not',
    'Not yet',
    untilMended('Read from outside only, once it stands on its wheels with everybody clear.'),
  ],
);
const BACK = mustBe(
  'springs.back',
  'Back on stands',
  'Lifted again and back on stands, screws of the rams closed?',
  'On stands, closed',
  [
    'not',
    'Not yet',
    untilMended('Nobody reaches under a body that stands on springs alone: set it on stands first.'),
  ],
);

/** The gas comes to its shell, the engine off. */
const settles = (id: string): Item => ({
  kind: 'wait',
  id,
  prompt: 'Engine off: gas settles',
  duration_s: SETTLES_S,
  starts: 'key',
});

/** Tests of two circuits of stored pressure and their levelling, in the order of handbook-models 8.6, with its minutes. */
export function steps(profile: StoredPressureProfile, rig: Rig, at: TestedAt): PhasedStep[] {
  const { limits, metering_N, light_N, standing_s, watch_s, lift_m } = profile;
  const read = (
    id: string,
    port: string,
    measures: Measures,
    prompt: string,
    more: Partial<ReadingItem> = {},
  ) => readingOn(at.ports, id, port, measures, prompt, more);
  /** The same of both circuits, the rear one as the front one. */
  const both = (
    id: string,
    measures: readonly [Measures, Measures],
    prompt: (which: string) => string,
    more: Partial<ReadingItem> = {},
  ): ReadingItem[] => [
    read(`${id}.supply`, 'supply', measures[0], prompt('the front circuit'), more),
    read(`${id}.supply2`, 'supply-2', measures[1], prompt('the rear circuit'), more),
  ];
  const timed = (
    id: string,
    measures: readonly [ReadingId, ReadingId],
    prompt: (which: string) => string,
  ) => [
    read(`${id}.time`, 'timer', measures[0], prompt('the front circuit'), BY_HAND),
    read(`${id}.time2`, 'timer-2', measures[1], prompt('the rear circuit'), BY_HAND),
  ];
  const found = (id: string) =>
    both(id, ['supply', 'supply'], (which) => `Engine just off, settled: read ${which}.`);
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
    read(`${id}.rear`, 'rear', measures[1], 'Read the rear brakes.', { target_Pa, inputFrom: `${id}.input` }),
  ];
  const middle_N = metering_N[Math.floor((metering_N.length - 1) / 2)]!;
  const ramRead = (rig.ram ?? []).length > 0;

  const empty = { ...at.off, charge: 'spent' } as const;

  const first: Step[] = [
    {
      id: 'asked',
      title: 'Asked, and read on the spheres',
      instruction: `${at.says.off}. Ask how it stands overnight, read the labels of the accumulators, look at the fluid.`,
      cautions: ['charged-vessel', 'fluids'],
      state: at.off,
      needs: ['cautions'],
      fluid: true,
      attended_s: 180,
      items: [
        look(
          'drops',
          'Overnight',
          'Does the body stand as high in the morning as it was parked?',
          'As high',
          ['drops', 'It goes down'],
        ),
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
      instruction: 'Both circuits emptied, engine off: only so does the level say anything.',
      cautions: ['fluids'],
      state: empty,
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
    instruction: `Both circuits at zero, nobody near the body: it rises. Start the engine and the watch with it. Both lamps are lit, as they should be; each gauge jumps as fluid first enters. Where a circuit is not there after ${LONGEST_S} s, enter that. Once both have stopped rising, stop the engine and leave it.`,
    cautions: ['running-engine', 'held-by-check-valves', 'body-moves'],
    state: at.on,
    needs: ['zeros', 'level'],
    leaves: { engine: 'off', input: 'released', charge: 'full' },
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
  /** The last two begin only with what they open at zero: what was read before the engine ran again does not count. */
  const onSprings: Step[] = [
    {
      id: 'on-stands',
      title: 'Body on stands, both circuits empty',
      instruction:
        'Hydraulics hide weak springs. Body on stands, engine off, the brake applied until both circuits read zero.',
      cautions: ['body-moves', 'held-by-check-valves'],
      state: empty,
      needs: ['zeros'],
      leaves: { input: 'released' },
      attended_s: 300,
      items: [
        STANDS,
        ...both(
          'springs',
          ['zero', 'zero'],
          (which) => `Apply until it stays there: ${which} must be at zero.`,
          {
            gate: 'zero',
          },
        ),
      ],
    },
    {
      id: 'rams',
      title: 'Rams bled',
      instruction:
        'The height valve unlinked; each ram bled into a closed hose. They hold pressure behind that valve with both circuits at zero.',
      cautions: ['body-moves', 'held-by-check-valves', 'open-line'],
      state: empty,
      gates: ['springs.supply', 'springs.supply2'],
      needs: ['on-stands'],
      fluid: true,
      leaves: { input: 'released' },
      attended_s: 300,
      items: [
        BLED,
        read('springs.ram', 'ram', 'zero', 'Ram line: it must be at zero as well.', { gate: 'zero' }),
      ],
    },
    {
      id: 'springs',
      title: 'Height on springs alone',
      instruction: 'Lifted, stands out, lowered slowly onto its springs, and read from outside.',
      cautions: ['body-moves'],
      state: empty,
      gates: ['springs.supply', 'springs.supply2', 'springs.ram'],
      needs: ['rams'],
      leaves: { input: 'released' },
      attended_s: 300,
      items: [
        LOWERED,
        read('springs.left', 'left', 'onSprings', 'Read the height, left, from outside.'),
        read('springs.right', 'right', 'onSprings', 'Read the height, right, from outside.'),
        BACK,
      ],
    },
  ];
  const rest: Step[] = [
    {
      id: 'standing',
      title: 'Standing, engine off',
      instruction:
        'Engine off and the gas settled, leave it as it stands, foot off. Gas that still cools looks like a leak, and what leaks by design is in what is expected.',
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
      instruction:
        'Engine off, still charged. Look with card and lamp at seats, unions and valves; never feel with a hand.',
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
      cautions: ['running-engine'],
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
      cautions: ['running-engine', 'bench-pressure'],
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
        read('released.rear', 'rear', 'residual2', 'Read what is left in the rear brakes.', { target_Pa: 0 }),
      ],
    },
    {
      id: 'heights',
      title: 'Height as trimmed',
      instruction:
        'Both charged, level ground, nobody in or leaning on it, tyres at their pressures. Wait until the body has come to rest, bounce it once and wait again.',
      cautions: ['running-engine', 'body-moves'],
      state: at.on,
      needs: ['charge'],
      leaves: { input: 'released', charge: 'full' },
      attended_s: 300,
      items: [
        read('trim.left', 'left', 'trimmed', 'Read the height, left.'),
        read('trim.right', 'right', 'trimmed', 'Read the height, right.'),
        ...(ramRead ? [read('trim.ram', 'ram', 'ram', 'Read the ram line.')] : []),
      ],
    },
    {
      id: 'rise',
      title: 'Lift in gear, and parked',
      instruction: `Wheels chocked. In each mode, set as the maker says: height lever down by ${Math.round(lift_m * 1000)} mm until the body has followed, then back, and time the lift.`,
      cautions: ['running-engine', 'body-moves'],
      state: at.on,
      needs: ['heights'],
      leaves: { input: 'released', charge: 'full' },
      attended_s: 240,
      items: [
        read('rise.time', 'timer', 'rise', 'As in gear: read the time until it is as high again.', BY_HAND),
        read('rise.parked', 'timer', 'riseParked', 'Parked, a door open: read the time.', BY_HAND),
      ],
    },
    {
      id: 'bumps',
      title: 'Over a bump',
      instruction: 'Foot off. Bounce a rear corner hard by hand, again and again, and watch the rear brakes.',
      cautions: ['running-engine', 'body-moves'],
      state: at.on,
      needs: ['heights'],
      leaves: { input: 'released', charge: 'full' },
      attended_s: 360,
      items: [
        read('bumps.rear', 'rear', 'nudge', 'Read the highest that the rear brakes came to.', BY_HAND),
        look(
          'knock',
          'Over bumps',
          'Does it ride over bumps without a nudge or a knock from the rear brakes?',
          'Without',
          ['knocks', 'It nudges or knocks'],
        ),
      ],
    },
    {
      id: 'applications',
      title: 'Applications from full',
      instruction: `Both charged: engine off, and let the gas settle. Then light applications at the force named, one every ${EVERY_S} s, let go fully between them; read both gauges after every ${TENS}.`,
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
            both(`kept.${made}`, ['kept', 'kept2'], (which) => `${made} applications made: read ${which}.`, {
              ...BY_HAND,
              target_Pa: light_N,
              applications: made,
            }),
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
      instruction: 'Engine idling until both gauges have stopped rising; then stop it and leave it alone.',
      cautions: ['running-engine', 'body-moves'],
      state: at.on,
      needs: ['charge'],
      leaves: { engine: 'off', input: 'released', charge: 'full' },
      attended_s: 60,
      items: [settles('recharge.wait')],
    },
    {
      id: 'stand-to-lamp',
      title: 'Stand to the lamp',
      instruction: `Ignition on, engine off, foot off. It empties by design, the sooner the warmer its oil. The recorder tells when each lamp lights; where one did not within ${Math.round(watch_s / 3600)} h, enter those.`,
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
    ...(ramRead ? onSprings : []),
  ];
  return [
    ...first.map((step): PhasedStep => ({ phase: 'look', step })),
    { phase: 'supply', step: charge },
    ...rest.map((step): PhasedStep => ({ phase: 'unit', step })),
  ];
}
