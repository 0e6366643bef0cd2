import type { MemberFolder } from '../../contract/family';
import { faults, looks, parts } from './faults';
import { steeringPumpProfile, type SteeringPumpProfile } from './profile';
import { keeps, results } from './rules';
import { steps } from './steps';
import { typical } from './typical';

export { member } from './member';
export { motionOn } from './motion';
export type { SteeringPumpProfile };

/** A pump driven by a belt, for steering and brakes. Handbook-models P.3, 8.4. */
export const steeringPump: MemberFolder<SteeringPumpProfile> = {
  kind: 'steering-pump',
  name: 'Steering pump',
  role: 'source',
  profile: steeringPumpProfile,
  typical,
  faults,
  looks,
  steps,
  keeps,
  results,
  parts,
  leakPoints: [],
};
