import { viscosity_PaS, type HydraulicFluid } from './hydraulic-fluid';

/** Fluids are known from −40 to 120 °C. */
const KNOWN_K = { least: 233, most: 393 } as const;

/** Pressure across a leak as it is stated, Pa. */
const ACROSS_PA = 1e7;

/** A fluid that units work on: how thick it is, and what a leak is that is stated as a technician measures it. */
export interface WorkingFluid {
  readonly fluid: HydraulicFluid;
  /** Viscosity at a temperature, Pa·s; beyond where it is known, of the nearest one. */
  readonly viscosity_PaS: (fluid_K: number) => number;
  /** The fluid that leaks are stated with, and the pressure across them. */
  readonly stated: { readonly viscosity_PaS: number; readonly across_Pa: number };
  /** The leak coefficient k of a leak as it is stated, m³: k·p/μ is the flow. Handbook-models P.2. */
  readonly leakOf_m3: (stated_m3PerS: number) => number;
}

/** @param stated_K temperature at which its leaks are stated, 100 bar across them */
export function workingFluid(fluid: HydraulicFluid, stated_K: number): WorkingFluid {
  const viscosity = (fluid_K: number) =>
    viscosity_PaS(fluid, Math.min(KNOWN_K.most, Math.max(KNOWN_K.least, fluid_K)));
  const stated = { viscosity_PaS: viscosity(stated_K), across_Pa: ACROSS_PA };
  return {
    fluid,
    viscosity_PaS: viscosity,
    stated,
    leakOf_m3: (stated_m3PerS) => (stated_m3PerS * stated.viscosity_PaS) / stated.across_Pa,
  };
}
