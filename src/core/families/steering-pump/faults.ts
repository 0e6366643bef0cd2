import type { CautionId } from '../../contract/cautions';
import type { Fault, Look, Part } from '../../contract/family';
import { moving } from '../../model/vectors';
import { part } from '../part-kinds';
import { grown, left } from '../severity';
import { parameters } from './member';

const moves = moving(parameters);
const OPENING: readonly CautionId[] = ['held-by-check-valves', 'open-line'];

const worn = grown(2, 9);
const slack = left(0.7, 0.3);
const frothy = left(0.97, 0.8);
const open = left(0.7, 0.2);

/** Faults of a steering pump and its drive, named and weighted as in handbook-models 8.4. */
export const faults: readonly Fault[] = [
  {
    id: 'pump-low',
    prior: 12,
    brings: ['hard', 'slow'],
    name: 'low pump pressure and flow',
    plain: 'The steering pump is worn: hot and at idle it gives too little for brakes and steering.',
    apply: moves((p, s) => ({ leak_m3PerS: p.leak_m3PerS * (1 + worn(s)) })),
    signs: { 'push-back': 'none' },
    confirm: 'Hot at idle both flow and shut-off pressure low; raising the idle brings them up.',
    repair: 'Renew or rebuild the pump, flush, fill with the right fluid and bleed lock to lock.',
    parts: ['pump'],
    cautions: OPENING,
  },
  {
    id: 'belt-slips',
    prior: 9,
    brings: ['hard', 'fades'],
    name: 'slipping belt',
    plain: 'The belt of the steering pump slips as soon as much pressure is asked for.',
    apply: moves((p, s) => ({ belt_Nm: p.belt_Nm * slack(s) })),
    signs: { squeal: 'squeals' },
    confirm: 'Flow at 50 bar as it should be, the shut-off pressure low with a squeal; marks on the pulley.',
    repair: 'Renew the belt, set its tension, look at pulleys and tensioner.',
    parts: ['belt'],
    cautions: [],
  },
  {
    id: 'air-in-fluid',
    prior: 12,
    brings: ['soft', 'slow'],
    name: 'air in the steering fluid',
    plain: 'There is air in the steering fluid, so the pump gives less and growls.',
    apply: moves((p, s) => ({ fluidPart: p.fluidPart * frothy(s) })),
    signs: { foam: 'foam', growl: 'growls' },
    confirm: 'Foam in the reservoir, flow low, the shut-off pressure kept.',
    repair:
      'Find where it draws air: suction hose, shaft seal, level. Bleed lock to lock with the engine off first.',
    parts: ['pump', 'steering-lines'],
    cautions: [],
  },
  {
    id: 'relief-open',
    prior: 4,
    brings: ['hard'],
    name: 'relief of the pump stuck open',
    plain: 'The relief of the steering pump opens too early, so hard braking gets no help.',
    apply: moves((p, s) => ({ relief_Pa: p.relief_Pa * open(s) })),
    signs: {},
    confirm: 'Shut-off pressure low with no squeal, the flow below it as it should be.',
    repair: 'Clean or renew the relief; look for what jammed it.',
    parts: ['pump'],
    cautions: OPENING,
  },
];

/** What is looked at and listened to, and how far that can be trusted. Handbook-models 8.4. */
export const looks: readonly Look[] = [
  { item: 'squeal', falseAlarm: 0.03, miss: 0.15 },
  { item: 'foam', falseAlarm: 0.04, miss: 0.2 },
  { item: 'growl', falseAlarm: 0.08, miss: 0.4 },
  { item: 'push-back', falseAlarm: 0.03, miss: 0.6 },
];

const RUNS = ['belt', 'pump', 'start', 'assist', 'release', 'rest'];

export const parts: readonly Part[] = [
  part('pump', 'Steering pump', [...RUNS, 'seep'], ['line']),
  part('belt', 'Belt of the steering pump', RUNS, []),
  part('steering-lines', 'Hoses and reservoir of the steering', [...RUNS, 'seep'], ['line']),
];
