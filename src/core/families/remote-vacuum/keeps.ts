import type { Keeps } from '../../contract/keeps';
import type { RemoteVacuumProfile } from './profile';

/** What the readings of a remote vacuum unit must keep to. Handbook 8.1. */
export const keeps: Keeps<RemoteVacuumProfile> = {
  supply: ({ limits }) => limits.supplyNeed_Pa,
  readings: {
    outputPassed: {
      to: 'about',
      least: ({ limits }) => limits.bypass_Pa,
      part: { of: 'input_Pa', limit: ({ limits }) => limits.bypass_fraction },
    },
    activation: { to: 'about', least: ({ limits }) => limits.restDifference_Pa, floor: 0 },
    outputAtRest: { to: 'at-most', limit: ({ limits }) => limits.residual_Pa },
    residual: { to: 'at-most', limit: ({ limits }) => limits.residual_Pa },
    crackInput: {
      to: 'range',
      low: ({ limits }) => limits.crackLow_Pa,
      high: ({ limits }) => limits.crackHigh_Pa,
    },
    switchCloses: {
      to: 'range',
      low: ({ lampSwitch: lamp }) => lamp && { value: lamp.closesFrom_Pa, source: lamp.source },
      high: ({ lampSwitch: lamp }) => lamp && { value: lamp.closesTo_Pa, source: lamp.source },
    },
    supplyApplied: { to: 'below', by: ({ limits }) => limits.supplyDrop_Pa },
    fullActivation: { to: 'at-most', limit: ({ limits }) => limits.fullActivation_Pa },
    outputHeld: { to: 'start', lossPerS: ({ limits }) => limits.holdLoss_PaPerS },
    supplyLeftReleased: { to: 'start', lossPerS: ({ limits }) => limits.vacuumLossReleased_PaPerS },
    supplyLeftApplied: { to: 'start', lossPerS: ({ limits }) => limits.vacuumLossApplied_PaPerS },
    outputReleasing: {
      to: 'band',
      says: ({ limits }) => [limits.hysteresis_fraction],
      wider: ({ limits }) => limits.hysteresis_fraction,
    },
  },
  otherwise: {
    to: 'band',
    says: ({ limits }) => [limits.boostRatio_fraction, limits.effectiveArea_fraction],
  },
};
