import type { MemberFolder } from '../../contract/family';
import { faults, looks } from './faults';
import { leakPoints, parts } from './places';
import { storedPressureProfile, type StoredPressureProfile } from './profile';
import { keeps, results } from './rules';
import { steps } from './steps';
import { typical } from './typical';

export { member } from './member';
export { motionOn } from './motion';
export type { StoredPressureProfile };

/** Two circuits of stored pressure with levelling. Handbook-models 8.6. */
export const storedPressure: MemberFolder<StoredPressureProfile> = {
  kind: 'stored-pressure',
  name: 'Two circuits of stored pressure, with levelling',
  role: 'unit',
  profile: storedPressureProfile,
  typical,
  faults,
  looks,
  steps,
  keeps,
  results,
  parts,
  gas: { 'pre-charge': 'accumulator-front', 'pre-charge-2': 'accumulator-rear' },
  leakPoints,
};
