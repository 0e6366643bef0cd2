import { HYDRAULIC_FLUIDS, viscosity_PaS } from './hydraulic-fluid';

const BAR = 1e5;

/** Fluid that boosters which the steering pump feeds work on. */
export const STEERING = HYDRAULIC_FLUIDS.steering;

/** Fluid is known from −40 to 120 °C. */
const FLUID_K = { least: 233, most: 393 } as const;

/** As warm as it is at a hot idle, K. Handbook-models P.3. */
export const HOT_K = 353.15;

/** Viscosity of it at a temperature, Pa·s; beyond where it is known, of the nearest one. */
export const steering_PaS = (fluid_K: number): number =>
  viscosity_PaS(STEERING, Math.min(FLUID_K.most, Math.max(FLUID_K.least, fluid_K)));

/** Hot fluid with 100 bar across: what leaks of a steering system are stated at. */
export const STATED_HOT = { viscosity_PaS: steering_PaS(HOT_K), across_Pa: 100 * BAR } as const;

/** The leak coefficient k of a leak as it is stated, m³: k·p/μ is the flow. */
export const hotLeakOf_m3 = (stated_m3PerS: number): number =>
  (stated_m3PerS * STATED_HOT.viscosity_PaS) / STATED_HOT.across_Pa;
