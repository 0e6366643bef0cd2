import { limitFrom } from '../profile-fields';
import type { HydraulicBoosterProfile } from './profile';

const BAR = 1e5;
const MM = 1e-3;
const typicalLimit = limitFrom(
  'Typical for boosters fed by the steering pump; the maker’s own figure where it is known',
);
const shopLimit = limitFrom('Setting of this shop');

/** A booster fed by the steering pump with the handbook's figures (handbook-models 8.4), and settings where it gives none. */
export const typical: HydraulicBoosterProfile = {
  kind: 'hydraulic-booster',
  name: 'Hydraulic booster, typical figures',
  maker: '',
  steeringFluid: 'steering',
  pedalRatio: 4,
  ratio: 5,
  opens_N: 60,
  jump_N: 300,
  friction_N: 8,
  area_m2: 6.2e-4,
  spring_N: 180,
  gap_m: 1 * MM,
  spool_m3: 5e-7,
  // Three applications at 200 N, and something to spare.
  shell_m3: 50e-6,
  preCharge_Pa: 45 * BAR,
  full_Pa: 90 * BAR,
  // 0.6 cc a minute: k 9e−18 m³.
  leak_m3PerS: 0.6e-6 / 60,
  exhaust_m: 3 * MM,
  return_m: 3.5 * MM,
  assist_N: [50, 100, 150],
  reserve_N: 200,
  stand_s: 3600,
  limits: {
    output_fraction: typicalLimit(0.06),
    preCharge_fraction: typicalLimit(0.12),
    full_fraction: typicalLimit(0.08),
    drop_m: shopLimit(3 * MM),
    back_m: shopLimit(2 * MM),
    hysteresis_N: shopLimit(12),
    release_s: typicalLimit(0.5),
    residual_Pa: typicalLimit(0.5 * BAR),
    stated_Pa: shopLimit(35 * BAR),
    applications: typicalLimit(2),
  },
};
