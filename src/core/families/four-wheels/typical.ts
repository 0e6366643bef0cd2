import { limitFrom } from '../profile-fields';
import type { FourWheelsProfile } from './profile';

const CC = 1e-6;

/** Made-up: c_w as in handbook-models 8.9, clearances of a car’s discs. */
export const typical: FourWheelsProfile = {
  kind: 'four-wheels',
  name: 'Brakes of four wheels, typical figures',
  maker: '',
  frontTakeUp_m3: 0.7 * CC,
  frontGive_m3PerPa: 2e-13,
  rearTakeUp_m3: 0.4 * CC,
  rearGive_m3PerPa: 1.2e-13,
  stop: null,
  limits: { give_fraction: limitFrom('Bench handbook, typical of the kind')(0.2) },
};
