import { limitFrom } from '../profile-fields';
import type { ElectromechanicalProfile } from './profile';

const typically = limitFrom('Bench handbook, typical of the kind');

/** Made-up, with the handbook's typical figures. Handbook-models 8.8. */
export const typical: ElectromechanicalProfile = {
  kind: 'electromechanical',
  name: 'Electromechanical booster, typical figures',
  maker: '',
  fluid: 'dot4',
  pedalRatio: 3.5,
  spring_N: 150,
  friction_N: 60,
  crack_N: 30,
  jump_N: 120,
  gain: 5,
  perAmpere_N: 60,
  limit_N: 3600,
  winding_Ohm: 0.09,
  idle_W: 8,
  limit_A: 60,
  cutOff_V: 9.5,
  delay_s: 0.02,
  stall_N: 4500,
  free_mPerS: 0.15,
  usual_V: 12.6,
  mass_kg: 1.5,
  full_m: 0.04,
  sensor_V: 5,
  assist_N: [80, 130, 180, 220],
  limits: {
    output_fraction: typically(0.05),
    friction_fraction: typically(0.5),
    current_fraction: typically(0.08),
    step_s: typically(0.25),
    returns_s: typically(0.3),
    rest_m: typically(0.3e-3),
    sum_V: typically(0.1),
  },
};
