import { limitFrom } from '../profile-fields';
import type { MotorPumpProfile } from './profile';

const typicalLimit = limitFrom(
  'Typical for motor pumps of power brakes; the maker’s own figure where it is known',
);

/** A motor pump with the handbook's figures (handbook-models P.4, 8.5). */
export const typical: MotorPumpProfile = {
  kind: 'motor-pump',
  name: 'Motor pump, typical figures',
  maker: '',
  displacement_m3: 0.13e-6,
  // 32 cc a minute: k_p 9e−16 m³.
  leak_m3PerS: 32e-6 / 60,
  efficiency: 0.78,
  friction_Nm: 0.08,
  constant_NmPerA: 0.03,
  // Of the handbook's 0.18 Ω together.
  motor_Ohm: 0.155,
  wiring_Ohm: 0.025,
  supply_V: 13,
  limits: {
    supply_V: typicalLimit(0.8),
    friction_fraction: typicalLimit(0.4),
    leak_fraction: typicalLimit(0.4),
    drop_V: typicalLimit(0.5),
  },
};
