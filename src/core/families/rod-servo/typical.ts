import { limitFrom } from '../profile-fields';
import { INHG_PA } from '../../quantities/units';
import type { RodServoProfile } from './profile';

const BAR = 1e5;
const MINUTE = 60;
const typicalLimit = limitFrom(
  'Typical for servos that push a rod; the maker’s own figure where it is known',
);
const benchLimit = limitFrom('Setting of this bench');

/** A servo of middling size with the handbook's typical figures (8.2), and bench settings where it gives none. */
export const typical: RodServoProfile = {
  kind: 'rod-servo',
  name: 'Rod-acting servo with tank, typical figures',
  maker: '',
  fluid: 'dot4',
  effectiveArea_m2: 0.02,
  preload_N: 100,
  springRate_NPerM: 2000,
  stroke_m: 0.045,
  lever_m: 0.14,
  crack_Pa: 1.5 * BAR,
  fullLift_Pa: 8 * BAR,
  pushArea_m2: null,
  frontVolume_m3: 1.2e-3,
  rearVolume_m3: 0.25e-3,
  tank_m3: 8e-3,
  airBore_m: 3e-3,
  lineBore_m: 4e-3,
  loadStiffness_NPerM: 60_000,
  proof_Pa: 60 * BAR,
  forceInputs_Pa: [3 * BAR, 4.5 * BAR, 6 * BAR],
  fullInput_Pa: 12 * BAR,
  pullDownTo_Pa: 15 * INHG_PA,
  hold_s: 60,
  standing_s: 300,
  limits: {
    effectiveArea_fraction: benchLimit(0.08),
    lift_Pa: typicalLimit(0.4 * BAR),
    supplyNeed_Pa: { value: 16 * INHG_PA, source: 'Bench handbook 15: the 16 inHg school, uncorrected' },
    pullDown_s: benchLimit(30),
    forceWithout_N: benchLimit(20),
    tankLoss_PaPerS: benchLimit((0.5 * INHG_PA) / MINUTE),
    standingLoss_PaPerS: benchLimit((0.5 * INHG_PA) / MINUTE),
    apply_s: benchLimit(1.2),
    release_s: benchLimit(1.5),
    residual_N: benchLimit(30),
    reserveForce_N: benchLimit(450),
    applications: typicalLimit(6),
  },
};
