import { limitFrom } from '../profile-fields';
import type { StoredPressureProfile } from './profile';

const BAR = 1e5;
const MM = 1e-3;
const typicalLimit = limitFrom(
  'Typical for cars on stored pressure; the maker’s own figure where it is known',
);
const benchLimit = limitFrom('Setting of this workshop');

/** A car on stored pressure with the handbook's figures (handbook-models 8.6), and settings where it gives none. */
export const typical: StoredPressureProfile = {
  kind: 'stored-pressure',
  name: 'Two circuits on stored pressure, typical figures',
  maker: '',
  fluid: 'mineral',
  sphere: 'sealed',
  shell_m3: 4e-4,
  preCharge_Pa: 65 * BAR,
  in_Pa: 145 * BAR,
  out_Pa: 165 * BAR,
  lamp_Pa: 85 * BAR,
  clearance_m: 4e-6,
  landDiameter_m: 8 * MM,
  landLength_m: 8 * MM,
  pedalRatio: 4,
  opens_N: 40,
  friction_N: 12,
  frontArea_m2: 0.7e-4,
  rearArea_m2: 1e-4,
  metering_N: [80, 110, 140],
  light_N: 30,
  weight_N: 3900,
  spring_NPerM: 21_000,
  free_m: 0.56,
  trim_m: 0.395,
  ramArea_m2: 8e-4,
  ramRatio: 0.62,
  bump_Pa: 20 * BAR,
  lineBore_m: 3.5 * MM,
  restrictor_m: 0.8 * MM,
  gear_m3PerS: 1.5e-6,
  parked_m3PerS: 4e-6,
  lift_m: 40 * MM,
  standing_s: 600,
  watch_s: 14_400,
  limits: {
    preCharge_fraction: typicalLimit(0.08),
    shell_fraction: benchLimit(0.12),
    lampOff_s: typicalLimit(30),
    charge_s: typicalLimit(60),
    switch_Pa: typicalLimit(5 * BAR),
    lamp_Pa: typicalLimit(5 * BAR),
    output_fraction: typicalLimit(0.06),
    hysteresis_Pa: typicalLimit(6 * BAR),
    residual_Pa: benchLimit(1.5 * BAR),
    clearance_fraction: benchLimit(0.12),
    applications: typicalLimit(40),
    height_m: typicalLimit(10 * MM),
    spring_fraction: typicalLimit(0.05),
    carried_fraction: typicalLimit(0.85),
    nudge_Pa: benchLimit(1.5 * BAR),
    rise_fraction: benchLimit(0.25),
  },
};
