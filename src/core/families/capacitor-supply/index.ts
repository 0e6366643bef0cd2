import type { MemberFolder } from '../../contract/family';
import { faults, looks, parts } from './faults';
import { capacitorSupplyProfile, type CapacitorSupplyProfile } from './profile';
import { keeps, results } from './rules';
import { steps } from './steps';
import { typical } from './typical';

export { member, wait_s } from './member';
export { motionOn } from './motion';
export type { CapacitorSupplyProfile };

/** A battery with a capacitor store. Handbook 2; handbook-models 8.9. */
export const capacitorSupply: MemberFolder<CapacitorSupplyProfile> = {
  kind: 'capacitor-supply',
  name: 'Battery and capacitor store',
  role: 'source',
  profile: capacitorSupplyProfile,
  typical,
  faults,
  looks,
  steps,
  keeps,
  results,
  parts,
  leakPoints: [],
};
