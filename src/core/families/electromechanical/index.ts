import type { MemberFolder } from '../../contract/family';
import { faults, looks } from './faults';
import { tracksThroughInterface } from '../tracks-interface';
import { parts } from './places';
import { electromechanicalProfile, type ElectromechanicalProfile } from './profile';
import { keeps, results } from './rules';
import { steps } from './steps';
import { typical } from './typical';

export { member } from './member';
export { motionOn } from './motion';
export type { ElectromechanicalProfile };

/** Booster in which a motor pushes beside the rod. Handbook-models 8.8. */
export const electromechanical: MemberFolder<ElectromechanicalProfile> = {
  kind: 'electromechanical',
  name: 'Electromechanical booster',
  role: 'unit',
  profile: electromechanicalProfile,
  typical,
  faults,
  looks,
  steps,
  keeps,
  results,
  parts,
  throughInterface: { tracks: tracksThroughInterface },
  shows: { travel: ['tracks', 'step'], pressure: ['assist', 'unpowered', 'step'] },
  leakPoints: [],
};
