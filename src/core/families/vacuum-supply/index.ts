import type { MemberFolder } from '../../contract/family';
import { faults, leakPoints, looks, parts } from './faults';
import { throughInterface } from './interface';
import { member as steady } from './member';
import { motion } from './motion';
import { vacuumSupplyProfile, type VacuumSupplyProfile } from './profile';
import { keeps, results } from './rules';
import { steps } from './steps';
import { typical } from './typical';

export { asRead } from './member';
/** The supply, at rest and over time. */
export const member = { ...steady, motion };
export type { VacuumSupplyProfile };

/** What makes a vehicle's vacuum, with its hose, check valve and tank. Handbook 9. */
export const vacuumSupply: MemberFolder<VacuumSupplyProfile> = {
  kind: 'vacuum-supply',
  name: 'Vacuum supply',
  role: 'source',
  profile: vacuumSupplyProfile,
  typical,
  faults,
  looks,
  steps,
  keeps,
  results,
  parts,
  leakPoints,
  throughInterface,
};
