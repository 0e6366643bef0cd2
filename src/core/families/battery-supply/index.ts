import type { MemberFolder } from '../../contract/family';
import { faults, looks, parts } from './faults';
import { batterySupplyProfile, type BatterySupplyProfile } from './profile';
import { keeps, results } from './rules';
import { steps } from './steps';
import { typical } from './typical';

export { asRead, member } from './member';
export { motionOn } from './motion';
export type { BatterySupplyProfile };

/** A battery with the feed and the earth of a motor. Handbook-models 8.8. */
export const batterySupply: MemberFolder<BatterySupplyProfile> = {
  kind: 'battery-supply',
  name: 'Battery and feed',
  role: 'source',
  profile: batterySupplyProfile,
  typical,
  faults,
  looks,
  steps,
  keeps,
  results,
  parts,
  leakPoints: [],
};
