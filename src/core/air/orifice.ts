import { AIR_GAS_CONSTANT, REFERENCE_DENSITY_KG_M3, REFERENCE_TEMPERATURE_K } from './leak';

/**
 * Discharge coefficient of a sharp orifice in choked flow, where it was not measured. At small pressure differences it
 * is about 0.65: a sonic conductance speaks of choked flow. Handbook 4.
 */
export const DISCHARGE_CHOKED = 0.84;
const HEAT_RATIO = 1.4;
/** √γ·(2/(γ + 1))^((γ + 1)/(2(γ − 1))): ideal choked flow of air is 0.6847·A·p/√(R·T). */
const CHOKED = Math.sqrt(HEAT_RATIO) * (2 / (HEAT_RATIO + 1)) ** ((HEAT_RATIO + 1) / (2 * (HEAT_RATIO - 1)));
/** Effective area of a choked flow for a conductance of 1, Pa·s/m. */
const AREA_PER_CONDUCTANCE =
  (REFERENCE_DENSITY_KG_M3 * Math.sqrt(REFERENCE_TEMPERATURE_K * AIR_GAS_CONSTANT)) / CHOKED;

/**
 * Diameter of the sharp orifice that passes as much air, choked, as a sonic conductance: C·p·ρ₀·√(T₀/T) =
 * c_d·A·0.6847·p/√(R·T), in which p and T drop out.
 *
 * @param conductance_m3PerSPa C, zero or more
 * @example C 1e-9 m³/(s·Pa): A = 1e-9·1.185·√(293.15·288)/(0.84·0.6847) = 5.99e-7 m², d = 0.87 mm
 */
export function orificeDiameter_m(conductance_m3PerSPa: number, discharge = DISCHARGE_CHOKED): number {
  const area_m2 = (conductance_m3PerSPa * AREA_PER_CONDUCTANCE) / discharge;
  return Math.sqrt((4 * area_m2) / Math.PI);
}

/** Sonic conductance of a sharp orifice, m³/(s·Pa): the same the other way round. */
export const orificeConductance_m3PerSPa = (diameter_m: number, discharge = DISCHARGE_CHOKED): number =>
  ((Math.PI / 4) * diameter_m ** 2 * discharge) / AREA_PER_CONDUCTANCE;
