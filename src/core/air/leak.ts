/** ISO 6358 reference conditions, with the gas constant that goes with them (handbook 4). */
export const REFERENCE_DENSITY_KG_M3 = 1.185;
export const REFERENCE_TEMPERATURE_K = 293.15;
export const AIR_GAS_CONSTANT = 288;
/** Critical pressure ratio of a small orifice, typical. */
export const CRITICAL_RATIO = 0.5;

/**
 * Flow below the choked one at a pressure ratio, as a part of it: 1 up to the critical ratio b, beyond it
 * √(1 − ((r − b)/(1 − b))²), nothing at equal pressures. ISO 6358.
 *
 * @param critical b of this opening, 0 to below 1
 */
export function flowShare(ratio: number, critical = CRITICAL_RATIO): number {
  if (ratio <= critical) return 1;
  const over = (ratio - critical) / (1 - critical);
  return over >= 1 ? 0 : Math.sqrt(1 - over * over);
}

/** An air leak from the room into an evacuated space. */
export interface Leak {
  /** Sonic conductance C, m³/(s·Pa) (ISO 6358). */
  readonly conductance_m3PerSPa: number;
  /** Volume that is losing its vacuum, m³. */
  readonly volume_m3: number;
  readonly barometer_Pa: number;
  readonly temperature_K: number;
}

/** Rate at which the absolute pressure rises while the leak is choked, Pa/s. */
export function chokedRise_PaPerS({
  conductance_m3PerSPa,
  volume_m3,
  barometer_Pa,
  temperature_K,
}: Leak): number {
  const massFlow_kgPerS =
    conductance_m3PerSPa *
    barometer_Pa *
    REFERENCE_DENSITY_KG_M3 *
    Math.sqrt(REFERENCE_TEMPERATURE_K / temperature_K);
  return (massFlow_kgPerS * AIR_GAS_CONSTANT * temperature_K) / volume_m3;
}

/**
 * Sonic conductance of a leak that costs a space so much vacuum in a second while it is choked: the other way round.
 *
 * @param rise_PaPerS zero or more
 */
export const leakFor_m3PerSPa = (rise_PaPerS: number, space: Omit<Leak, 'conductance_m3PerSPa'>): number =>
  rise_PaPerS / chokedRise_PaPerS({ ...space, conductance_m3PerSPa: 1 });

/**
 * Depression left after a time, with the leak open and the source off: isothermal, exact for the ISO 6358 law.
 * A straight line while choked; below that r = p/p_atm follows dr/dt = s·√(1 − ((r − b)/(1 − b))²), which
 * integrates to an arcsine and reaches the barometer in finite time. Handbook 4.
 *
 * @param depression_Pa depression at the start, 0 to the barometer
 * @throws RangeError where the depression cannot be
 */
export function depressionAfter_Pa(depression_Pa: number, time_s: number, leak: Leak): number {
  if (!(depression_Pa >= 0 && depression_Pa <= leak.barometer_Pa)) {
    throw new RangeError(`depression_Pa: ${depression_Pa} is not between 0 and the barometer`);
  }
  const b = CRITICAL_RATIO;
  const rise_perS = chokedRise_PaPerS(leak) / leak.barometer_Pa;
  if (rise_perS === 0) return depression_Pa;
  const start = 1 - depression_Pa / leak.barometer_Pa;
  const choked_s = Math.max(0, (b - start) / rise_perS);
  if (time_s <= choked_s) return depression_Pa - rise_perS * time_s * leak.barometer_Pa;
  const angleStart = Math.asin(Math.min(1, Math.max(0, (start - b) / (1 - b))));
  const angle = Math.min(Math.PI / 2, angleStart + (rise_perS * (time_s - choked_s)) / (1 - b));
  return leak.barometer_Pa * (1 - (b + (1 - b) * Math.sin(angle)));
}
