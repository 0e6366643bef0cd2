import { z } from 'zod';
import { correctionSchema } from './correction';

/** A calibration as recorded: it replaces the dates and the correction table, and stays in the instrument's history. */
export const calibrationSchema = z
  .strictObject({
    on: z.iso.date('Calibrated on: give day, month and year.'),
    due: z.iso.date('Next calibration: give day, month and year, or leave it empty.').nullable(),
    certificate: z.string().trim().max(200),
    found: z.string().trim().max(2_000),
    correction: correctionSchema.nullable(),
  })
  .refine(({ on, due }) => due === null || due > on, {
    path: ['due'],
    message: 'The next calibration must be after this one.',
  });
export type Calibration = z.infer<typeof calibrationSchema>;

/** Calibration state on a day (ISO date): a verdict that leans on an overdue gauge says so. */
export function calibrationState(
  gauge: { readonly calibrationDue: string | null },
  today: string,
): 'in date' | 'overdue' | 'no date' {
  if (!gauge.calibrationDue) return 'no date';
  return gauge.calibrationDue < today ? 'overdue' : 'in date';
}
