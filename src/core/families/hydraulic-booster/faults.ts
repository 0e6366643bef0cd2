import type { CautionId } from '../../contract/cautions';
import type { Fault, Look } from '../../contract/family';
import { moving } from '../../model/vectors';
import { hotLeakOf_m3 } from '../../fluid/steering-fluid';
import { grown, left } from '../severity';
import { parameters } from './member';

const moves = moving(parameters);
const OPENING: readonly CautionId[] = ['held-by-check-valves', 'open-line'];
const VESSEL: readonly CautionId[] = ['held-by-check-valves', 'charged-vessel', 'open-line'];

/** Leaks as the handbook has them, as coefficients k in m³, stated as a technician measures them. */
const stated = (k_m3: number) => k_m3 / hotLeakOf_m3(1);

const leaking = grown(4, 49);
const past = grown(stated(1e-13), stated(4e-13));
const backwards = grown(stated(1e-16), stated(5e-15));
const spent = left(0.7, 0.02);
const narrowReturn = left(0.8, 0.5);
const narrowExhaust = left(0.5, 0.15);
const dragging = grown(2, 9);
const heavier = grown(0.5, 3);

/** Faults of a booster fed by the steering pump, named and weighted as in handbook-models 8.4. */
export const faults: readonly Fault[] = [
  {
    id: 'spool-leak',
    prior: 8,
    brings: ['fades'],
    name: 'seal leak at the spool',
    plain: 'What the accumulator stores leaks past the spool: after standing there is no reserve.',
    apply: moves((p, s) => ({ leak_m3PerS: p.leak_m3PerS * (1 + leaking(s)) })),
    signs: {},
    confirm: 'Reserve at once as it should be, gone after an hour, nothing wet outside.',
    repair: 'Renew spool and seals, or the booster; watch the reserve for an hour again.',
    parts: ['spool'],
    cautions: OPENING,
  },
  {
    id: 'input-seal',
    prior: 14,
    brings: ['fluid'],
    name: 'input seal leak',
    plain: 'Fluid seeps out where the pedal’s rod goes in.',
    apply: (healthy) => [...healthy],
    signs: { seep: 'wet' },
    confirm: 'Wet at the input, wiped dry and wet again after some applications.',
    repair: 'Renew the input seal; look at the rod for pitting.',
    parts: ['input-seal'],
    cautions: OPENING,
  },
  {
    id: 'piston-leak',
    prior: 8,
    brings: ['hard', 'slow'],
    name: 'seal leak of the power piston',
    plain: 'Pump flow slips past the power piston, so hot and at idle there is too little assist.',
    apply: moves((_p, s) => ({ pistonLeak_m3PerS: past(s) })),
    signs: { 'oil-master': 'oil' },
    confirm:
      'Pump as it should be, assist low hot at idle and better with the pump faster; oil where the master is fixed.',
    repair: 'Renew the seals of the power piston, or the booster.',
    parts: ['piston'],
    cautions: OPENING,
  },
  {
    id: 'gas-loss',
    prior: 13,
    brings: ['fades'],
    name: 'gas lost from the accumulator',
    plain:
      'The gas of the accumulator is nearly gone: with the pump at rest there are more applications, each far weaker.',
    apply: moves((p, s) => ({ preCharge_Pa: p.preCharge_Pa * spent(s) })),
    signs: {},
    confirm:
      'First application of the reserve weak though it was charged, and more of them than usual help a little.',
    repair:
      'Replace the accumulator by the maker’s procedure; it is a charged vessel, and disposed of as one.',
    parts: ['accumulator'],
    cautions: VESSEL,
  },
  {
    id: 'check-leak',
    prior: 7,
    brings: ['fades'],
    name: 'check valve of the accumulator leaks',
    plain: 'The check valve lets the stored fluid back within minutes once the pump has stopped.',
    apply: moves((p, s) => ({ leak_m3PerS: p.leak_m3PerS + backwards(s) })),
    signs: {},
    confirm: 'Reserve gone within minutes of stopping the pump.',
    repair: 'Renew the check valve, or the booster; watch the reserve again.',
    parts: ['check-valve'],
    cautions: OPENING,
  },
  {
    id: 'return-restricted',
    prior: 4,
    brings: ['drags', 'slow'],
    name: 'return restricted',
    plain: 'The return is too narrow: the brake comes off slowly and may hold itself on.',
    apply: moves((p, s) => ({
      return_m2: p.return_m2 * narrowReturn(s) ** 2,
      exhaust_m2: p.exhaust_m2 * narrowExhaust(s) ** 2,
    })),
    signs: {},
    confirm:
      'Release slow, pressure with the foot off and the pump running; with the return into a can it is gone.',
    repair: 'Find the kink, the swollen hose or the blocked filter; hoses of the right bore.',
    parts: ['return'],
    cautions: OPENING,
  },
  {
    id: 'spool-sticking',
    prior: 4,
    brings: ['grabs', 'drags'],
    name: 'spool sticking',
    plain: 'The spool of the booster sticks, so the brake comes late, grabs, and hangs on.',
    apply: moves((p, s) => ({ friction_N: p.friction_N * (1 + dragging(s)) })),
    signs: {},
    confirm: 'The foot eases off far before the pressure falls.',
    repair: 'Flush, look for what is in the fluid; renew the spool or the booster.',
    parts: ['spool'],
    cautions: OPENING,
  },
  {
    id: 'wrong-fluid',
    prior: 5,
    brings: ['slow', 'drags'],
    name: 'wrong fluid in the steering',
    plain: 'The steering is filled with a fluid that is too thick: all of it is slow, most when cold.',
    apply: moves((p, s) => ({
      thicker: p.thicker * (1 + heavier(s)),
      friction_N: p.friction_N * (1 + heavier(s) / 1.5),
    })),
    signs: { 'steering-fluid': 'other' },
    confirm: 'Colour and smell not those of the fluid named; slow from cold, better warm.',
    repair:
      'Drain, flush and fill with the fluid named. Where brake fluid was put in, every seal is renewed.',
    parts: ['spool', 'piston'],
    cautions: ['fluids'],
  },
];

/** What is looked at, and how far that can be trusted. Handbook-models 8.4; the fluid by its colour: our judgement. */
export const looks: readonly Look[] = [
  { item: 'seep', falseAlarm: 0.03, miss: 0.15 },
  { item: 'oil-master', falseAlarm: 0.02, miss: 0.3 },
  { item: 'steering-fluid', falseAlarm: 0.03, miss: 0.4 },
];
