import {
  AIR_GAS_CONSTANT,
  CRITICAL_RATIO,
  flowShare,
  REFERENCE_DENSITY_KG_M3,
  REFERENCE_TEMPERATURE_K,
} from './leak';

/**
 * Pressure ratio above which the flow is taken as proportional to the difference: the law's own slope is without bound
 * at equal pressures. The two meet here; above it, less than 100 Pa from the room, the law is undercut.
 */
const LINEAR_FROM = 0.999;

/** Choked flow for each pascal upstream: C·ρ₀·R·√(T₀·T), m³/s. */
const chokedPerPa_m3PerS = (conductance_m3PerSPa: number, temperature_K: number): number =>
  conductance_m3PerSPa *
  REFERENCE_DENSITY_KG_M3 *
  AIR_GAS_CONSTANT *
  Math.sqrt(REFERENCE_TEMPERATURE_K * temperature_K);

/**
 * Air through a valve or hose of sonic conductance C from p₁ to p₂, as p·V per second at the room's temperature:
 * q_m·R·T, Pa·m³/s. ISO 6358, handbook 4.
 *
 * @param conductance_m3PerSPa C, zero or more
 * @param upstream_Pa absolute, above zero
 * @param downstream_Pa absolute; at or above p₁ nothing flows
 * @param critical critical pressure ratio b of this opening
 * @example C 1e-8, 100 kPa into vacuum at 293.15 K: 1e-8 · 1e5 · 1.185 · 288 · 293.15 = 100.0 Pa·m³/s
 */
export function airFlow_PaM3PerS(
  conductance_m3PerSPa: number,
  upstream_Pa: number,
  downstream_Pa: number,
  temperature_K: number,
  critical = CRITICAL_RATIO,
): number {
  const ratio = downstream_Pa / upstream_Pa;
  if (ratio >= 1) return 0;
  const choked = upstream_Pa * chokedPerPa_m3PerS(conductance_m3PerSPa, temperature_K);
  return ratio > LINEAR_FROM
    ? (choked * flowShare(LINEAR_FROM, critical) * (1 - ratio)) / (1 - LINEAR_FROM)
    : choked * flowShare(ratio, critical);
}

/** Air both ways: positive from the first to the second. */
export const airExchange_PaM3PerS = (
  conductance_m3PerSPa: number,
  first_Pa: number,
  second_Pa: number,
  temperature_K: number,
): number =>
  first_Pa >= second_Pa
    ? airFlow_PaM3PerS(conductance_m3PerSPa, first_Pa, second_Pa, temperature_K)
    : -airFlow_PaM3PerS(conductance_m3PerSPa, second_Pa, first_Pa, temperature_K);

/**
 * Absolute pressure upstream of an opening through which so much air flows into a pressure: `airFlow_PaM3PerS` the other
 * way round. Not choked, with b = 0.5, (q/CK)² = p₁² − (2p₂ − p₁)², so p₁ = p₂ + (q/CK)²/(4p₂).
 *
 * @param flow_PaM3PerS zero or more
 * @param downstream_Pa absolute, above zero
 */
export function upstream_Pa(
  conductance_m3PerSPa: number,
  flow_PaM3PerS: number,
  downstream_Pa: number,
  temperature_K: number,
): number {
  const choked_Pa = flow_PaM3PerS / chokedPerPa_m3PerS(conductance_m3PerSPa, temperature_K);
  const linear_Pa = downstream_Pa + (choked_Pa * (1 - LINEAR_FROM)) / flowShare(LINEAR_FROM);
  if (downstream_Pa > LINEAR_FROM * linear_Pa) return linear_Pa;
  const bent_Pa = downstream_Pa + choked_Pa ** 2 / (4 * downstream_Pa);
  return downstream_Pa >= CRITICAL_RATIO * bent_Pa ? bent_Pa : choked_Pa;
}
