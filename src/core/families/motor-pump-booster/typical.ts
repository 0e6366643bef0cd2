import { limitFrom } from '../profile-fields';
import type { MotorPumpBoosterProfile } from './profile';

const BAR = 1e5;
const typicalLimit = limitFrom('Typical for motor-pump boosters; the maker’s own figure where it is known');
const benchLimit = limitFrom('Setting of this shop');

/** A motor-pump booster with the handbook's figures (handbook-models 8.4, 8.5), and settings where it gives none. */
export const typical: MotorPumpBoosterProfile = {
  kind: 'motor-pump-booster',
  name: 'Motor-pump booster, typical figures',
  maker: '',
  fluid: 'dot4',
  pedalRatio: 4,
  ratio: 5,
  opens_N: 60,
  jump_N: 300,
  friction_N: 8,
  area_m2: 6.2e-4,
  spring_N: 180,
  spool_m3: 5e-7,
  shell_m3: 3e-4,
  preCharge_Pa: 65 * BAR,
  in_Pa: 125 * BAR,
  out_Pa: 160 * BAR,
  delay_s: 0.1,
  lamp_Pa: 95 * BAR,
  relief_Pa: 210 * BAR,
  // 0.7 cc a minute: k 2e−17 m³.
  leak_m3PerS: 0.7e-6 / 60,
  assist_N: [50, 100, 150],
  watch_s: 1200,
  limits: {
    output_fraction: typicalLimit(0.06),
    preCharge_fraction: typicalLimit(0.1),
    charge_s: typicalLimit(40),
    switch_Pa: typicalLimit(6 * BAR),
    leak_fraction: benchLimit(0.5),
    off_s: typicalLimit(300),
    relief_Pa: typicalLimit(20 * BAR),
    lamp_Pa: typicalLimit(8 * BAR),
    applications: benchLimit(6),
  },
};
