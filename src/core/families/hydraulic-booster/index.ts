import type { MemberFolder } from '../../contract/family';
import { faults, looks } from './faults';
import { leakPoints, parts } from './places';
import { hydraulicBoosterProfile, type HydraulicBoosterProfile } from './profile';
import { keeps, results } from './rules';
import { steps } from './steps';
import { typical } from './typical';

export { FIRM, member } from './member';
export { motionOn } from './motion';
export type { HydraulicBoosterProfile };

/** Booster that the steering pump feeds. Handbook-models 8.4. */
export const hydraulicBooster: MemberFolder<HydraulicBoosterProfile> = {
  kind: 'hydraulic-booster',
  name: 'Hydraulic booster',
  role: 'unit',
  profile: hydraulicBoosterProfile,
  typical,
  faults,
  looks,
  steps,
  keeps,
  results,
  parts,
  shows: {
    travel: ['start', 'release', 'reserve', 'hour'],
    pressure: ['start', 'assist', 'release', 'rest', 'reserve', 'hour', 'without'],
  },
  leakPoints,
};
