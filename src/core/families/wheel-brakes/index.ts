import type { MemberFolder } from '../../contract/family';
import { faults, leakPoints, looks, parts, SWEPT } from './faults';
import { member as steady } from './member';
import { motion } from './motion';
import { wheelBrakesProfile, type WheelBrakesProfile } from './profile';
import { keeps, results } from './rules';
import { steps } from './steps';
import { typical } from './typical';

export { behindFront } from './member';
/** The brakes, at rest and over time. */
export const member = { ...steady, motion };
export type { WheelBrakesProfile };

/** What a brake unit drives: master cylinder, lines, wheels, lamps, parking brake. Handbook 10. */
export const wheelBrakes: MemberFolder<WheelBrakesProfile> = {
  kind: 'wheel-brakes',
  name: 'Wheel brakes with master cylinder',
  role: 'load',
  profile: wheelBrakesProfile,
  typical,
  faults,
  looks,
  steps,
  keeps,
  results,
  parts,
  shows: { pressure: SWEPT },
  leakPoints,
};
