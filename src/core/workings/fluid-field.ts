import { z } from 'zod';
import { HYDRAULIC_FLUIDS } from '../fluid/hydraulic-fluid';

const FLUIDS = Object.keys(HYDRAULIC_FLUIDS) as [keyof typeof HYDRAULIC_FLUIDS];

/** The class of a fluid, to be chosen. */
export const fluidField = z.enum(FLUIDS).meta({
  title: 'Fluid',
  labels: Object.fromEntries(FLUIDS.map((id) => [id, HYDRAULIC_FLUIDS[id].name])),
});
