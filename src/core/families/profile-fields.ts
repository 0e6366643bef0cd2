import { z } from 'zod';
import { FLUIDS, FLUID_KINDS } from '../fluid/kinds';
import type { Quantity } from '../quantities/units';

const BAR = 1e5;

/** A dimension or a test point, SI, with its name, its quantity and what is possible. */
export const amount = (title: string, quantity: Quantity, low: number, high: number) =>
  z
    .number(`${title}: a number is needed.`)
    .min(low, `${title} is too small.`)
    .max(high, `${title} is too large.`)
    .meta({ title, quantity });

/** A limit with its source: who says so. */
export const limit = (title: string, quantity: Quantity, low: number, high: number) =>
  z
    .strictObject({
      value: amount(title, quantity, low, high),
      source: z
        .string()
        .trim()
        .min(1, `${title}: say where the limit comes from.`)
        .max(300)
        .meta({ title: 'Source' }),
    })
    .meta({ title });

/** Limits that all come from one source. */
export const limitFrom = (source: string) => (value: number) => ({ value, source });

/** What every profile has: its name, its maker, the fluid of the unit. */
export const identityFields = {
  name: z.string().trim().min(1, 'Give the profile a name.').max(120).meta({ title: 'Name' }),
  maker: z.string().trim().max(120).meta({ title: 'Maker' }),
};
export const fluidField = z.enum(FLUID_KINDS).meta({ title: 'Fluid', labels: FLUIDS });

/** Test pressures, written in rising order. */
export const pressures = (title: string, least: number) =>
  z
    .array(amount(title, 'pressure', 0.5 * BAR, 250 * BAR))
    .min(least, `${title}: at least ${least} are needed.`)
    .max(12, `${title}: 12 at the most.`)
    .refine(
      (list) => list.every((p, i) => i === 0 || p > list[i - 1]!),
      `${title}: write them in rising order.`,
    )
    .meta({ title, quantity: 'pressure' });

export { circle_m2 } from '../numeric/circle';
