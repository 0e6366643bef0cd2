import { HYDRAULIC_FLUIDS, viscosity_PaS } from './hydraulic-fluid';

const BAR = 1e5;

/** Brake fluid on glycol, as the pumps of boosters move it. */
export const GLYCOL = HYDRAULIC_FLUIDS.glycol;

/** Fluid is known from −40 to 120 °C. */
const FLUID_K = { least: 233, most: 393 } as const;

/** Viscosity of brake fluid at a temperature, Pa·s; beyond where it is known, of the nearest one. */
export const glycol_PaS = (fluid_K: number): number =>
  viscosity_PaS(GLYCOL, Math.min(FLUID_K.most, Math.max(FLUID_K.least, fluid_K)));

/** Fluid at 20 °C with 100 bar across: what leaks are stated at. */
export const STATED = { viscosity_PaS: glycol_PaS(293.15), across_Pa: 100 * BAR } as const;

/** The leak coefficient k of a leak as it is stated, m³: k·p/μ is the flow. */
export const leakOf_m3 = (stated_m3PerS: number): number =>
  (stated_m3PerS * STATED.viscosity_PaS) / STATED.across_Pa;
