import { chokedPerPa_m3PerS } from './flow';

/** A pump that empties a space into which air leaks. SI. */
export interface PulledDown {
  readonly volume_m3: number;
  /** Suction of the pump, m³/s. */
  readonly suction_m3PerS: number;
  /** Part of the barometer that the pump leaves with nothing leaking. */
  readonly floorShare: number;
  /** Sonic conductance of the leak, m³/(s·Pa). */
  readonly leak_m3PerSPa: number;
  readonly barometer_Pa: number;
  readonly temperature_K: number;
}

/** Absolute pressure that the pump brings the space to in the end, Pa: p_e = p_atm·(ε + C·K_T/S), choked. Handbook-models 9. */
export const reached_Pa = ({
  suction_m3PerS,
  floorShare,
  leak_m3PerSPa,
  barometer_Pa,
  temperature_K,
}: Omit<PulledDown, 'volume_m3'>): number =>
  barometer_Pa * Math.min(1, floorShare + chokedPerPa_m3PerS(leak_m3PerSPa, temperature_K) / suction_m3PerS);

/**
 * Time in which the pump brings the space from the room's pressure to a depression, s:
 * (V/S)·ln((p₀ − p_e)/(p₁ − p_e)). Handbook-models 9.
 *
 * @returns Infinity where it never gets there: a leak, or altitude
 */
export function pullDown_s(depression_Pa: number, pump: PulledDown): number {
  const end_Pa = reached_Pa(pump);
  const to_Pa = pump.barometer_Pa - depression_Pa;
  if (to_Pa <= end_Pa) return Infinity;
  return (pump.volume_m3 / pump.suction_m3PerS) * Math.log((pump.barometer_Pa - end_Pa) / (to_Pa - end_Pa));
}
