import type { MemberFolder } from '../../contract/family';
import { faults, looks } from './faults';
import { throughInterface } from './interface';
import { parts } from './places';
import { byWireProfile, type ByWireProfile } from './profile';
import { keeps, results } from './rules';
import { steps } from './steps';
import { typical } from './typical';

export { member } from './member';
export { motionOn } from './motion';
export type { ByWireProfile };

/** A brake whose pedal is parted from its wheels while there is power. Handbook 8.9; handbook-models 8.9. */
export const byWire: MemberFolder<ByWireProfile> = {
  kind: 'by-wire',
  name: 'Decoupled brake',
  role: 'unit',
  profile: byWireProfile,
  typical,
  faults,
  looks,
  steps,
  keeps,
  results,
  parts,
  throughInterface,
  shows: { travel: ['simulator', 'fallback', 'tracks'], pressure: ['released', 'targets', 'currents'] },
  leakPoints: [],
};
