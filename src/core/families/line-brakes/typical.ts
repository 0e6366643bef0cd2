import { limitFrom } from '../profile-fields';
import type { LineBrakesProfile } from './profile';

const CC = 1e-6;
const typicalLimit = limitFrom(
  'Typical for brakes on stored pressure; the maker’s own figure where it is known',
);

/** Brakes on stored pressure: a light application takes 1.5 to 2.5 cc of each circuit. Handbook-models 8.6. */
export const typical: LineBrakesProfile = {
  kind: 'line-brakes',
  name: 'Brakes on stored pressure, typical figures',
  maker: '',
  frontTakeUp_m3: 1.2 * CC,
  frontGive_m3PerPa: 4e-13,
  rearTakeUp_m3: 1.2 * CC,
  rearGive_m3PerPa: 4e-13,
  feelBore_m: 0.012,
  freeTravel_m: 1.2e-3,
  feelGive_m3PerPa: 1.5e-13,
  travel_N: 100,
  // The mass of another vehicle is no stand-in for this one's.
  stop: null,
  limits: { give_fraction: typicalLimit(0.2) },
};
