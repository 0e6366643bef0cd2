import type { MemberFolder } from '../../contract/family';
import { faults, leakPoints, looks, parts } from './faults';
import { member as steady } from './member';
import { VEHICLE_PORTS } from '../vehicle-ports';
import { motionOn } from './motion';
import { pedalVacuumProfile, type PedalVacuumProfile } from './profile';
import { contradictions, keeps, results } from './rules';
import { steps } from './steps';
import { typical } from './typical';

export { pedalBooster } from './bench';
/** The booster in its vehicle, at rest and over time. */
export const member = { ...steady, motion: motionOn(VEHICLE_PORTS) };
export { RHYTHM } from './profile';
export type { PedalVacuumProfile };

/** Pedal-mounted vacuum booster, single or tandem, on its vehicle. Handbook 8.3. */
export const pedalVacuum: MemberFolder<PedalVacuumProfile> = {
  kind: 'pedal-vacuum',
  name: 'Pedal-mounted vacuum booster',
  role: 'unit',
  profile: pedalVacuumProfile,
  typical,
  faults,
  looks,
  steps,
  keeps,
  results,
  contradictions,
  parts,
  shows: {
    travel: ['start', 'without', 'airtight', 'recovery', 'reserve', 'standing', 'apply'],
    pressure: ['with', 'without', 'gap'],
  },
  leakPoints,
};
