import { limitFrom } from '../profile-fields';
import type { RemoteVacuumProfile } from './profile';

const BAR = 1e5;
const INHG = 3386.389;
const MINUTE = 60;
const bar = (...values: number[]) => values.map((value) => value * BAR);
const typicalLimit = limitFrom('Typical for remote vacuum units; the maker’s own figure where it is known');

/** The handbook's worked example of a large remote unit (8.1), with its typical limits. */
export const typical: RemoteVacuumProfile = {
  kind: 'remote-vacuum',
  name: 'Large remote unit, typical figures',
  maker: '',
  suspension: 'vacuum',
  fluid: 'dot4',
  effectiveDiameter_m: 0.23,
  slaveBore_m: 0.0206,
  rodDiameter_m: 0.006,
  spring_N: 110,
  boostRatio: 3.6,
  crack_Pa: 3 * BAR,
  jumpIn_Pa: null,
  vacuumVolume_m3: 4e-3,
  proof_Pa: 140 * BAR,
  ratioLimitFor: 'slope',
  bypassInputs_Pa: bar(20, 45, 70, 95, 115),
  ratioInputs_Pa: bar(12, 16, 20, 24),
  fullInput_Pa: 28 * BAR,
  holdInput_Pa: 22 * BAR,
  settle_s: 10,
  hold_s: 60,
  lampSwitch: { closesFrom_Pa: 2 * BAR, closesTo_Pa: 6 * BAR, source: 'Typical for pressure switches' },
  limits: {
    bypass_fraction: typicalLimit(0.05),
    bypass_Pa: typicalLimit(BAR),
    boostRatio_fraction: typicalLimit(0.1),
    effectiveArea_fraction: typicalLimit(0.08),
    crackLow_Pa: typicalLimit(2 * BAR),
    crackHigh_Pa: typicalLimit(4 * BAR),
    supplyNeed_Pa: { value: 16 * INHG, source: 'Bench handbook 15: the 16 inHg school, uncorrected' },
    restDifference_Pa: typicalLimit(0.8 * INHG),
    fullActivation_Pa: typicalLimit(0.8 * INHG),
    supplyDrop_Pa: typicalLimit(2 * INHG),
    holdLoss_PaPerS: typicalLimit((2 * BAR) / MINUTE),
    residual_Pa: typicalLimit(0.5 * BAR),
    hysteresis_fraction: typicalLimit(0.15),
    vacuumLossReleased_PaPerS: typicalLimit(INHG / MINUTE),
    vacuumLossApplied_PaPerS: typicalLimit((2 * INHG) / MINUTE),
  },
};
