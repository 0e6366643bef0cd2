import type { TestedAt } from '../../contract/family';
import type { Rig } from '../../contract/run-context';
import type { Step } from '../../contract/steps';
import { look, mustBe, untilMended } from '../bench-items';
import type { StoredPressureProfile } from './profile';
import { BY_HAND, readingsAt } from './readings';

/** What is asked of a body that is levelled. */
export const drops = look(
  'drops',
  'Overnight',
  'Does the body stand as high in the morning as it was parked?',
  'As high',
  ['drops', 'It goes down'],
);

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

/** Tests of the levelling, on its car: while it is fed, and last of all on springs alone. Handbook-models 8.6. */
export function levellingSteps(
  { lift_m }: StoredPressureProfile,
  rig: Rig,
  at: TestedAt,
): { readonly fed: readonly Step[]; readonly onSprings: readonly Step[] } {
  const { read, both } = readingsAt(at);
  const ramRead = (rig.ram ?? []).length > 0;
  const empty = { ...at.off, charge: 'spent' } as const;
  const fed: Step[] = [
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
  ];
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
  return { fed, onSprings: ramRead ? onSprings : [] };
}
