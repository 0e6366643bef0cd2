import { HYDRAULIC_FLUIDS } from './hydraulic-fluid';
import { workingFluid } from './working-fluid';

/** Brake fluid on glycol, as the pumps of boosters move it: leaks are stated at 20 °C. */
const BRAKE_FLUID = workingFluid(HYDRAULIC_FLUIDS.glycol, 293.15);

export const { fluid: GLYCOL, viscosity_PaS: glycol_PaS, stated: STATED, leakOf_m3 } = BRAKE_FLUID;
