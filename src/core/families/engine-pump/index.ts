import type { MemberFolder } from '../../contract/family';
import { faults, looks, parts } from './faults';
import { enginePumpProfile, type EnginePumpProfile } from './profile';
import { keeps, results } from './rules';
import { steps } from './steps';
import { typical } from './typical';

export { member } from './member';
export { motionOn } from './motion';
export type { EnginePumpProfile };

/** A pump that the engine drives, with an outlet for each of two circuits. Handbook-models 8.6. */
export const enginePump: MemberFolder<EnginePumpProfile> = {
  kind: 'engine-pump',
  name: 'Engine-driven pump',
  role: 'source',
  profile: enginePumpProfile,
  typical,
  faults,
  looks,
  steps,
  keeps,
  results,
  parts,
  leakPoints: [],
};
