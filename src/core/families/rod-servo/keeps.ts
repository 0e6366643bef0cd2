import type { Keeps } from '../../contract/keeps';
import type { RodServoProfile } from './profile';

/** What the readings of a rod-acting servo must keep to. Handbook 8.2. */
export const keeps: Keeps<RodServoProfile> = {
  supply: ({ limits }) => limits.supplyNeed_Pa,
  readings: {
    pullDown: { to: 'at-most', limit: ({ limits }) => limits.pullDown_s },
    applyTime: { to: 'at-most', limit: ({ limits }) => limits.apply_s },
    releaseTime: { to: 'at-most', limit: ({ limits }) => limits.release_s },
    residual: { to: 'at-most', limit: ({ limits }) => limits.residual_N },
    outputWithout: { to: 'about', least: ({ limits }) => limits.forceWithout_N },
    // Those beyond show where the reserve ends.
    reserveForce: {
      to: 'at-least',
      limit: ({ limits }, { applications = 0 }) =>
        applications <= limits.applications.value ? limits.reserveForce_N : null,
    },
    tankLeft: {
      to: 'start',
      lossPerS: ({ limits }, { id }) =>
        id.startsWith('standing') ? limits.standingLoss_PaPerS : limits.tankLoss_PaPerS,
    },
    tankUsed: { to: 'noted' },
    supplyApplied: { to: 'noted' },
  },
  otherwise: { to: 'band', says: ({ limits }) => [limits.effectiveArea_fraction, limits.lift_Pa] },
};
