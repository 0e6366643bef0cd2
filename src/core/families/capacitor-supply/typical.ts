import { limitFrom } from '../profile-fields';
import type { CapacitorSupplyProfile } from './profile';

const typically = limitFrom('Bench handbook, typical of the kind');

/** Made-up, with the handbook's typical figures. Handbook 2; handbook-models 8.9. */
export const typical: CapacitorSupplyProfile = {
  kind: 'capacitor-supply',
  name: 'Battery and capacitor store, typical figures',
  maker: '',
  battery_V: 13.5,
  own_Ohm: 0.02,
  capacitance_F: 20,
  esr_Ohm: 0.01,
  bleed_Ohm: 40,
  stated_s: null,
  least_V: 9,
  stop_J: 320,
  stop_A: 25,
  standing_W: 4,
  apart_s: 8,
  limits: {
    battery_V: typically(0.5),
    capacitance_fraction: typically(0.1),
    dip_V: typically(0.5),
    safe_V: typically(5),
    stops: typically(2),
  },
};
