import { limitFrom } from '../profile-fields';
import type { BatterySupplyProfile } from './profile';

const typically = limitFrom('Bench handbook, typical of the kind');

/** Made-up, with the handbook's typical figures. Handbook-models 8.8. */
export const typical: BatterySupplyProfile = {
  kind: 'battery-supply',
  name: 'Battery and feed, typical figures',
  maker: '',
  battery_V: 12.6,
  own_Ohm: 0.008,
  feed_Ohm: 0.008,
  earth_Ohm: 0.004,
  hold_N: 220,
  limits: {
    battery_V: typically(0.4),
    feed_V: typically(0.25),
    earth_V: typically(0.15),
  },
};
