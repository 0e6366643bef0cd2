import type { CautionId } from '../../contract/cautions';
import type { Fault, Look } from '../../contract/family';
import { grown, left } from '../severity';
import { backwards } from './leaks';
import { movesShared } from './parameters';

const MM = 1e-3;
const BODY: readonly CautionId[] = ['body-moves', 'held-by-check-valves', 'open-line'];

const misset = grown(15 * MM, 60 * MM);
const opened = grown(1, 3);
const tired = left(0.9, 0.6);
const sagged = grown(15 * MM, 50 * MM);

/** Faults of the levelling that lives on the rear circuit, named and weighted as in handbook-models 8.6. */
export const levellingFaults: readonly Fault[] = [
  {
    id: 'height-leaks',
    prior: 9 / 2,
    brings: ['sinks', 'lamp'],
    name: 'height valve leaks',
    plain: 'The height valve leaks, so the body goes down overnight and the rear circuit empties.',
    apply: movesShared((p, s) => ({ heightLeak_m3PerS: p.heightLeak_m3PerS + backwards(s) })),
    signs: { drops: 'drops' },
    confirm: 'The rear circuit falls with the engine off and is quiet with the height valve’s line capped.',
    repair: 'Renew the height valve; watch the rear circuit stand again.',
    parts: ['height-valve'],
    cautions: BODY,
  },
  ...([1, -1] as const).map((sign): Fault => {
    const way = sign > 0 ? 'high' : 'low';
    return {
      id: `height-${way}`,
      prior: 9 / 4,
      name: `height valve set ${way}`,
      plain: `The height valve keeps the body too ${way}.`,
      apply: movesShared((p, s) => ({ trim_m: p.trim_m + sign * misset(s) })),
      signs: {},
      confirm: 'Height on springs alone as it should be, the trimmed one off by as much on both sides.',
      repair: 'Set the linkage of the height valve by the maker’s figure; read both heights again.',
      parts: ['height-valve'],
      cautions: BODY,
    };
  }),
  {
    id: 'restrictor-open',
    prior: 2,
    brings: ['grabs'],
    name: 'restrictor valve failed',
    plain: 'The restrictor of the levelling stays open, so bumps nudge the rear brakes.',
    apply: movesShared((p, s) => ({
      restrictor_m: p.restrictor_m * (1 + opened(s)),
      gear_m3PerS: p.gear_m3PerS * (1 + opened(s)) ** 4,
    })),
    signs: { knock: 'knocks' },
    confirm: 'The rear brake pressure nudges over bumps, and the body lifts in gear as fast as parked.',
    repair: 'Renew the restrictor valve, the rams bled on stands; try both again.',
    parts: ['restrictor'],
    cautions: BODY,
  },
  {
    id: 'springs-tired',
    prior: 6 / 2,
    name: 'springs tired, and masked by the rams',
    plain: 'The springs carry too little; the hydraulics hold the body up and hide it.',
    apply: movesShared((p, s) => ({ spring_NPerM: p.spring_NPerM * tired(s) })),
    signs: {},
    confirm:
      'On springs alone the body stands low on both sides; trimmed it is right, with the rams at more pressure.',
    repair: 'Renew the springs as a pair; read the height on springs alone again.',
    parts: ['springs'],
    cautions: BODY,
  },
  {
    id: 'springs-sagged',
    prior: 6 / 2,
    name: 'springs sagged, and masked by the rams',
    plain: 'The springs have become shorter; the hydraulics hold the body up and hide it.',
    apply: movesShared((p, s) => ({ free_m: p.free_m - sagged(s) })),
    signs: {},
    confirm: 'On springs alone the body stands low on both sides; off the car the springs are short.',
    repair: 'Renew the springs as a pair; read the height on springs alone again.',
    parts: ['springs'],
    cautions: BODY,
  },
];

/** What is felt for and asked of it, and how far that can be trusted. Handbook-models 8.6. */
export const levellingLooks: readonly Look[] = [
  { item: 'knock', falseAlarm: 0.05, miss: 0.3 },
  { item: 'drops', falseAlarm: 0.4, miss: 0.3 },
];
