import { SEA_LEVEL_PA } from '../air/atmosphere';
import { leakFor_m3PerSPa, REFERENCE_TEMPERATURE_K } from '../air/leak';

/** A healthy unit's leaks and hysteresis are small, not nil: it uses a quarter of each limit. */
export const HEALTHY_SHARE_OF_LIMIT = 0.25;

/** Atmosphere and room at which a leak limit is turned into a conductance; the twin then follows the real ones. */
const LIMIT_ROOM = { barometer_Pa: SEA_LEVEL_PA, temperature_K: REFERENCE_TEMPERATURE_K };

/** Leak of a healthy unit whose limit is this loss, m³/(s·Pa). */
export const healthyLeak_m3PerSPa = (limit_PaPerS: number, volume_m3: number): number =>
  HEALTHY_SHARE_OF_LIMIT * leakFor_m3PerSPa(limit_PaPerS, { volume_m3, ...LIMIT_ROOM });
