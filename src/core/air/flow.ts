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
export const LINEAR_FROM = 0.999;

/** Choked flow for each pascal upstream: C·ρ₀·R·√(T₀·T), m³/s. */
export const chokedPerPa_m3PerS = (conductance_m3PerSPa: number, temperature_K: number): number =>
  conductance_m3PerSPa *
  REFERENCE_DENSITY_KG_M3 *
  AIR_GAS_CONSTANT *
  Math.sqrt(REFERENCE_TEMPERATURE_K * temperature_K);

/**
 * Air through a valve or hose of sonic conductance C from p₁ to p₂, as p·V per second at the room's temperature:
 * q_m·R·T, Pa·m³/s. ISO 6358, handbook 4.
 *
 * @param conductance_m3PerSPa C, zero or more
 * @param upstream_Pa absolute; at zero nothing flows, nor below it, where less stands than a valve takes to open
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
  // Not so between two perfect vacuums either, where there is no ratio.
  if (!(ratio < 1) || upstream_Pa <= 0 || conductance_m3PerSPa === 0) return 0;
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

/**
 * Absolute pressure downstream of an opening through which so much air flows out of a pressure. With b = 0.5,
 * (q/CK)² = 4·p₂·(p₁ − p₂), so p₂ = p₁/2·(1 + √(1 − (q/(CK·p₁))²)).
 *
 * @returns the highest that there can be: choked, anything below half the pressure upstream would do as well
 */
export function downstream_Pa(
  conductance_m3PerSPa: number,
  flow_PaM3PerS: number,
  upstream_Pa: number,
  temperature_K: number,
): number {
  const choked = chokedPerPa_m3PerS(conductance_m3PerSPa, temperature_K) * upstream_Pa;
  const part = Math.min(1, flow_PaM3PerS / choked);
  const straight = flowShare(LINEAR_FROM);
  if (part < straight) return upstream_Pa * (1 - (part / straight) * (1 - LINEAR_FROM));
  return (upstream_Pa / 2) * (1 + Math.sqrt(1 - part * part));
}

/**
 * Air that a valve lets in: as far open as the difference that is lacking asks for, and as what passes on through a leak
 * behind it takes away.
 *
 * @param open_PaM3PerS flow with the valve wide open; out of the space where that stands above the room
 * @param lacking difference short of the one called for, as a part of the one at which the valve is wide open
 * @param onward_PaM3PerS air that goes on out of the space
 */
export function meteredFlow_PaM3PerS(
  open_PaM3PerS: number,
  lacking: number,
  onward_PaM3PerS: number,
): number {
  if (open_PaM3PerS <= 0) return lacking > 0 ? open_PaM3PerS * Math.min(1, lacking) : 0;
  return open_PaM3PerS * Math.min(1, Math.max(0, lacking + onward_PaM3PerS / open_PaM3PerS));
}
