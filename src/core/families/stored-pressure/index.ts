import type { MemberFolder } from '../../contract/family';
import { faults, looks } from './faults';
import { levellingFaults, levellingLooks } from './levelling-faults';
import { leakPoints, partsWith } from './places';
import { storedPressureProfile, type StoredPressureProfile } from './profile';
import { keeps, results } from './rules';
import { stepsWith, type Levelled } from './steps';
import { typical } from './typical';

export { member } from './member';
export { motionOn } from './motion';
export type { StoredPressureProfile };

/** Two circuits of stored pressure, on their car with the levelling that lives on one of them. Handbook-models 8.6. */
export const storedPressure = ({ levelled }: Levelled): MemberFolder<StoredPressureProfile> => ({
  kind: 'stored-pressure',
  name: 'Two circuits of stored pressure, with levelling',
  role: 'unit',
  profile: storedPressureProfile,
  typical,
  faults: levelled ? [...faults, ...levellingFaults] : faults,
  looks: levelled ? [...looks, ...levellingLooks] : looks,
  steps: stepsWith({ levelled }),
  keeps,
  results,
  parts: partsWith({ levelled }),
  gas: { 'pre-charge': 'accumulator-front', 'pre-charge-2': 'accumulator-rear' },
  leakPoints,
  shows: levelled ? { pressure: ['bumps'], flow: ['rise'] } : {},
});
