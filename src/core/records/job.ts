import { z } from 'zod';
import { FAMILY_KINDS } from '../families/registry';
import { FLUIDS, FLUID_KINDS } from '../fluid/kinds';

const text = (title: string, most: number) =>
  z.string().trim().max(most, `${title}: ${most} characters at the most.`).meta({ title });

/** What is known of a unit or a vehicle when it is taken in. */
export const jobSchema = z.strictObject({
  tag: text('Job tag', 40).min(1, 'Job tag: give the unit a tag.'),
  kind: z.enum(FAMILY_KINDS, 'Kind of unit: choose one.').meta({ title: 'Kind of unit' }),
  profileId: z.uuid('Profile: choose one.').meta({ title: 'Profile' }),
  from: text('From', 200),
  complaint: text('Complaint, in the customer’s words', 20_000),
  fluid: z
    .enum([...FLUID_KINDS, 'unknown'], 'Fluid found: choose one.')
    .meta({ title: 'Fluid found in the unit', labels: { ...FLUIDS, unknown: 'Not known' } }),
  promisedOn: z.iso
    .date('Promised: give day, month and year, or leave it empty.')
    .nullable()
    .meta({ title: 'Promised for' }),
  customer: text('Customer', 200).optional(),
  serial: text('Serial number of the unit, or identity of the vehicle', 80).optional(),
  odometer: text('Odometer', 40).optional(),
  /** Where it is tested; without it, the shop's. */
  altitude_m: z
    .number('Altitude: a number is needed.')
    .min(-450, 'Altitude: no road lies that low.')
    .max(6000, 'Altitude: no road lies that high.')
    .nullable()
    .optional()
    .meta({ title: 'Altitude, where it is not tested in the shop', quantity: 'altitude' }),
});

export type Job = z.infer<typeof jobSchema>;
