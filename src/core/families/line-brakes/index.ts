import type { MemberFolder } from '../../contract/family';
import { faults, looks, parts } from './faults';
import { lineBrakesProfile, type LineBrakesProfile } from './profile';
import { keeps, results } from './rules';
import { steps } from './steps';
import { typical } from './typical';

export { FRONT, lineOf, member, REAR } from './member';
export { motionOn } from './motion';
export type { LineBrakesProfile };

/** Brakes that stored pressure is let into, and the small master that gives the pedal its feel. Handbook 8.6. */
export const lineBrakes: MemberFolder<LineBrakesProfile> = {
  kind: 'line-brakes',
  name: 'Brakes on stored pressure',
  role: 'load',
  profile: lineBrakesProfile,
  typical,
  faults,
  looks,
  steps,
  keeps,
  results,
  parts,
  leakPoints: [],
};
