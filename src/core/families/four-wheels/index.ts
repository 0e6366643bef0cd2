import type { MemberFolder } from '../../contract/family';
import { UNTESTED } from '../part-kinds';
import { faults, looks, parts } from './faults';
import { fourWheelsProfile, type FourWheelsProfile } from './profile';
import { typical } from './typical';

export { member } from './member';
export { motionOn } from './motion';
export type { FourWheelsProfile };

/** Brakes of four wheels, each behind valves of its own. What stands in them is what those let in: the unit’s tests read it. */
export const fourWheels: MemberFolder<FourWheelsProfile> = {
  ...UNTESTED,
  kind: 'four-wheels',
  name: 'Brakes of four wheels',
  role: 'load',
  profile: fourWheelsProfile,
  typical,
  faults,
  looks,
  parts,
};
