import type { VehicleFolder } from '../../contract/family';
import { faults, leakPoints, looks, parts } from './faults';
import { vacuumSupplyProfile, type VacuumSupplyProfile } from './profile';
import { keeps, results } from './rules';
import { steps } from './steps';
import { typical } from './typical';

export { asRead, member } from './member';
export type { VacuumSupplyProfile };

/** What makes a vehicle's vacuum, with its hose, check valve and tank. Handbook 9. */
export const vacuumSupply: VehicleFolder<VacuumSupplyProfile> = {
  kind: 'vacuum-supply',
  name: 'Vacuum supply',
  role: 'source',
  profile: vacuumSupplyProfile,
  typical,
  faults,
  looks,
  steps,
  keeps,
  results,
  parts,
  leakPoints,
};
