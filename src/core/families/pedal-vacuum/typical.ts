import { limitFrom } from '../profile-fields';
import { DECAY_PA_PER_S, TYPICAL_NEED_PA, type PedalVacuumProfile } from './profile';

const typicalLimit = limitFrom(
  'Typical for pedal-mounted boosters; the maker’s own figure where it is known',
);

/** A single booster of middling size with the figures of the worked example (handbook-models 8.3). */
export const typical: PedalVacuumProfile = {
  kind: 'pedal-vacuum',
  name: 'Pedal booster, single, typical figures',
  maker: '',
  chambers: 'single',
  pedalRatio: 3.6,
  area_m2: 0.032,
  spring_N: 130,
  reaction: 4.2,
  begin_N: 40,
  jump_N: 168,
  friction_N: 10,
  valve_N: 8,
  front_m3: 3.6e-3,
  rear_m3: 0.3e-3,
  air_m3PerSPa: 4e-8,
  vacuumPort_m3PerSPa: 4e-8,
  clearance_m: 0.35e-3,
  light_N: 150,
  heavy_N: 300,
  moderate_N: 150,
  decay_s: 120,
  hold_s: 30,
  standing_s: 300,
  limits: {
    area_fraction: typicalLimit(0.06),
    reaction_fraction: typicalLimit(0.06),
    without_N: typicalLimit(80),
    supplyNeed_Pa: { value: TYPICAL_NEED_PA, source: 'Bench handbook 15: the 18 inHg school, uncorrected' },
    decay_PaPerS: typicalLimit(DECAY_PA_PER_S),
    rise_m: typicalLimit(3e-3),
    apply_s: typicalLimit(0.5),
    reserve: typicalLimit(2),
    standingReserve: typicalLimit(1),
    clearance_m: typicalLimit(0.15e-3),
  },
};
