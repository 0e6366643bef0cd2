import { limitFrom } from '../profile-fields';
import type { PedalValveProfile } from './profile';

const BAR = 1e5;
const MM = 1e-3;
const typicalLimit = limitFrom(
  'Typical for dual pedal valves of working machines; the maker’s own figure where it is known',
);
const benchLimit = limitFrom('Setting of this shop');

/** A dual pedal valve with the handbook's typical figures (handbook-models 8.7), and bench settings where it gives none. */
export const typical: PedalValveProfile = {
  kind: 'pedal-valve',
  name: 'Dual pedal valve, typical figures',
  maker: '',
  fluid: 'mineral',
  area_m2: 2.01e-4,
  spring_NPerM: 160e3,
  starts_m: 1.5 * MM,
  preload_N: 35,
  friction_N: 30,
  lag_N: 25,
  stop_m: 12 * MM,
  drilling_m: 0.8 * MM,
  drillingLength_m: 6 * MM,
  openFlow_m3PerS: 1e-4,
  lineLoss_Pa: 0.5 * BAR,
  orifice_m: 0.9 * MM,
  give_m3PerPa: 1.5e-12,
  slack_m3: 8e-6,
  clearance_m: 4e-6,
  landDiameter_m: 16 * MM,
  landLength_m: 8 * MM,
  shell_m3: 0.75e-3,
  preCharge_Pa: 85 * BAR,
  charge_Pa: 150 * BAR,
  lamp_Pa: 100 * BAR,
  sweep_m: [4 * MM, 6 * MM, 8 * MM, 10 * MM],
  cross_s: 30,
  standing_s: 600,
  limits: {
    output_fraction: typicalLimit(0.05),
    hysteresis_Pa: typicalLimit(5 * BAR),
    match_Pa: typicalLimit(4 * BAR),
    residual_Pa: typicalLimit(0.5 * BAR),
    maximum_fraction: typicalLimit(0.05),
    peak_Pa: benchLimit(6 * BAR),
    apply_s: benchLimit(0.4),
    preCharge_fraction: benchLimit(0.08),
    charge_Pa: benchLimit(6 * BAR),
    cross_Pa: benchLimit(2 * BAR),
    clearance_fraction: benchLimit(0.15),
    applications: typicalLimit(5),
  },
};
