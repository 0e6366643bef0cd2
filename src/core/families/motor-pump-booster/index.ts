import type { MemberFolder } from '../../contract/family';
import { faults, looks } from './faults';
import { leakPoints, parts } from './places';
import { motorPumpBoosterProfile, type MotorPumpBoosterProfile } from './profile';
import { keeps, results } from './rules';
import { steps } from './steps';
import { typical } from './typical';

export { member } from './member';
export { motionOn } from './motion';
export type { MotorPumpBoosterProfile };

/** Booster that works on brake fluid stored by a motor pump. Handbook-models 8.5. */
export const motorPumpBooster: MemberFolder<MotorPumpBoosterProfile> = {
  kind: 'motor-pump-booster',
  name: 'Motor-pump booster',
  role: 'unit',
  profile: motorPumpBoosterProfile,
  typical,
  faults,
  looks,
  steps,
  keeps,
  results,
  parts,
  gas: { 'pre-charge': 'accumulator' },
  shows: { travel: ['reserve'], pressure: ['assist', 'unpowered', 'reserve'] },
  leakPoints,
};
