import { limitFrom } from '../profile-fields';
import type { EnginePumpProfile } from './profile';

const CC = 1e-6;
const typicalLimit = limitFrom(
  'Typical for pumps that an engine drives; the maker’s own figure where it is known',
);

/** An engine-driven pump with the handbook's figures (handbook-models 8.6): 4.5 cc/s for each circuit. */
export const typical: EnginePumpProfile = {
  kind: 'engine-pump',
  name: 'Engine-driven pump, typical figures',
  maker: '',
  front_m3: 0.36 * CC,
  rear_m3: 0.36 * CC,
  // 750 rpm.
  idle_PerS: 12.5,
  limits: {
    idle_fraction: typicalLimit(0.08),
    flow_fraction: typicalLimit(0.06),
  },
};
