import { HYDRAULIC_FLUIDS } from './hydraulic-fluid';
import { workingFluid } from './working-fluid';

/** As warm as it is at a hot idle, K. Handbook-models P.3. */
export const HOT_K = 353.15;

/** Fluid that boosters which the steering pump feeds work on: leaks are stated hot. */
const STEERING_FLUID = workingFluid(HYDRAULIC_FLUIDS.steering, HOT_K);

export const { fluid: STEERING, viscosity_PaS: steering_PaS, leakOf_m3: hotLeakOf_m3 } = STEERING_FLUID;
