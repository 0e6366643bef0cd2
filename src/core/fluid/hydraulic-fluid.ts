/** A fluid by how its viscosity and density go with temperature. Handbook-models P.2. */
export interface HydraulicFluid {
  readonly name: string;
  /** Constants of ASTM D341: lg lg(ν + 0.7) = A − B·lg T, ν in mm²/s, T in K. */
  readonly a: number;
  readonly b: number;
  /** Density at 20 °C, kg/m³, and the part of it that is lost by each kelvin. */
  readonly density20_kgPerM3: number;
  readonly expansion_PerK: number;
}

/** Classes of fluid, each the middle of what is sold as it. Within a class viscosity differs by ±15 %, in the cold by ±40 %. */
export const HYDRAULIC_FLUIDS = {
  glycol: { name: 'Glycol (ISO 4925)', a: 9.9664, b: 4.0054, density20_kgPerM3: 1060, expansion_PerK: 8e-4 },
  mineral: { name: 'Mineral (ISO 7308)', a: 5.9241, b: 2.3318, density20_kgPerM3: 845, expansion_PerK: 7e-4 },
  steering: { name: 'Steering fluid', a: 7.7893, b: 3.0458, density20_kgPerM3: 865, expansion_PerK: 7e-4 },
  vg46: { name: 'Oil VG 46 (ISO 3448)', a: 9.418, b: 3.6844, density20_kgPerM3: 875, expansion_PerK: 7e-4 },
} as const satisfies Record<string, HydraulicFluid>;

/** Parts by which the viscosity within a class differs, warm and in the cold. Handbook-models P.2 names the two; where they hold is judgement. */
const SPREAD = { warm: { part: 0.15, at_K: 293.15 }, cold: { part: 0.4, at_K: 263.15 } } as const;

const AT_K = 293.15;

/** Density, kg/m³. */
export const density_kgPerM3 = (
  { density20_kgPerM3, expansion_PerK }: HydraulicFluid,
  temperature_K: number,
): number => density20_kgPerM3 * (1 - expansion_PerK * (temperature_K - AT_K));

/**
 * Dynamic viscosity, Pa·s: ν by ASTM D341 times the density. Handbook-models P.2.
 *
 * @param temperature_K from −40 to 120 °C, for which the chart is made
 * @example viscosity_PaS(HYDRAULIC_FLUIDS.mineral, 291.15) → 0.0266 Pa·s
 */
export function viscosity_PaS(fluid: HydraulicFluid, temperature_K: number): number {
  const kinematic_mm2PerS = 10 ** (10 ** (fluid.a - fluid.b * Math.log10(temperature_K))) - 0.7;
  return kinematic_mm2PerS * 1e-6 * density_kgPerM3(fluid, temperature_K);
}

/** Part by which the viscosity of a fluid of a class may differ from the middle of it at a temperature, either way. */
export function viscositySpread(temperature_K: number): number {
  const { warm, cold } = SPREAD;
  const colder = (warm.at_K - temperature_K) / (warm.at_K - cold.at_K);
  return warm.part + (cold.part - warm.part) * Math.min(1, Math.max(0, colder));
}

/** A spool in its bore: what leaks along one land. */
export interface Land {
  readonly diameter_m: number;
  readonly length_m: number;
  /** Radial clearance with the spool in the middle. */
  readonly clearance_m: number;
  /** How far it lies out of the middle, as a part of the clearance: 0.5 where nothing is known. */
  readonly eccentricity: number;
}

/**
 * Leakage along a land, m³: q = k·Δp/μ, with k = π·D·c³·(1 + 1.5·ε²)/(12·L). Merritt, Hydraulic Control Systems, 1967.
 *
 * @example 8 mm spool, 8 mm land, clearance 4 µm, ε 0.5 → 2.30e−17 m³
 */
export const landLeak_m3 = ({ diameter_m, length_m, clearance_m, eccentricity }: Land): number =>
  (Math.PI * diameter_m * clearance_m ** 3 * (1 + 1.5 * eccentricity ** 2)) / (12 * length_m);
