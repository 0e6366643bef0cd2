import { limitFrom } from '../profile-fields';
import type { WheelBrakesProfile } from './profile';

const BAR = 1e5;
const typicalLimit = limitFrom('Typical for cars and light vans; the maker’s own figure where it is known');

/** Disc and drum brakes of a light vehicle with the handbook's typical figures (10). */
export const typical: WheelBrakesProfile = {
  kind: 'wheel-brakes',
  name: 'Wheel brakes with tandem master, typical figures',
  maker: '',
  fluid: 'dot4',
  masterBore_m: 0.0222,
  freeTravel_m: 1e-3,
  takeUp_m3: 1.2e-6,
  stiffness_m3PerPa: 3.5e-13,
  valves: 'one',
  split_Pa: 30 * BAR,
  slope: 0.4,
  sink_s: 60,
  // The mass of another vehicle is no stand-in for this one's.
  stop: null,
  limits: {
    stiffness_fraction: typicalLimit(0.15),
    rear_Pa: typicalLimit(3 * BAR),
    rear_fraction: typicalLimit(0.1),
    split_fraction: typicalLimit(0.1),
    slope: typicalLimit(0.06),
    sink_m: typicalLimit(2e-3),
  },
};
