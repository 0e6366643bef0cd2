import type { MemberFolder } from '../../contract/family';
import { faults, looks, parts } from './faults';
import { motorPumpProfile, type MotorPumpProfile } from './profile';
import { keeps, results } from './rules';
import { steps } from './steps';
import { typical } from './typical';

export { member } from './member';
export { motionOn } from './motion';
export type { MotorPumpProfile };

/** A pump with an electric motor of its own. Handbook-models P.4, 8.5. */
export const motorPump: MemberFolder<MotorPumpProfile> = {
  kind: 'motor-pump',
  name: 'Motor pump',
  role: 'source',
  profile: motorPumpProfile,
  typical,
  faults,
  looks,
  steps,
  keeps,
  results,
  parts,
  leakPoints: [],
};
