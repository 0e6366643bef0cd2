import { limitFrom } from '../profile-fields';
import type { SteeringPumpProfile } from './profile';

const BAR = 1e5;
const L_PER_MIN = 1e-3 / 60;
const typicalLimit = limitFrom('Typical for steering pumps; the maker’s own figure where it is known');

/** A steering pump with the handbook's figures (handbook-models P.3). */
export const typical: SteeringPumpProfile = {
  kind: 'steering-pump',
  name: 'Steering pump, typical figures',
  maker: '',
  displacement_m3: 9.6e-6,
  // 750 rpm of the engine over a pulley of 1.15.
  idle_PerS: (750 / 60) * 1.15,
  control_m3PerS: 7.5 * L_PER_MIN,
  // k_p 2.8e−14 m³.
  leak_m3PerS: 1.85 * L_PER_MIN,
  relief_Pa: 100 * BAR,
  efficiency: 0.85,
  belt_Nm: 30,
  limits: {
    flow_fraction: typicalLimit(0.05),
    relief_Pa: typicalLimit(8 * BAR),
    leak_fraction: typicalLimit(0.5),
  },
};
