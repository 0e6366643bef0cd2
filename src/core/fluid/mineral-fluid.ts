import { HYDRAULIC_FLUIDS } from './hydraulic-fluid';
import { workingFluid } from './working-fluid';

/** Mineral fluid (ISO 7308), which full-power brakes and levelling work on: leaks are stated at 20 °C. */
const MINERAL_FLUID = workingFluid(HYDRAULIC_FLUIDS.mineral, 293.15);

export const { fluid: MINERAL, viscosity_PaS: mineral_PaS, leakOf_m3: mineralLeakOf_m3 } = MINERAL_FLUID;
