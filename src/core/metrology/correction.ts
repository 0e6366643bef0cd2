import { z } from 'zod';

/**
 * What a calibration laboratory found: the true value at each indicated one. Inside the table the reading is
 * corrected and the table's own uncertainty takes the place of the permissible error. Handbook 5.
 */
export const correctionSchema = z.strictObject({
  points: z
    .array(z.strictObject({ reference_Pa: z.number(), indicated_Pa: z.number() }))
    .min(2, 'Correction table: at least two points are needed.')
    .max(100, 'Correction table: 100 points at the most.')
    .superRefine((points, ctx) => {
      points.forEach((point, i) => {
        const before = points[i - 1];
        if (!before) return;
        const wrong =
          point.reference_Pa <= before.reference_Pa
            ? 'reference'
            : point.indicated_Pa <= before.indicated_Pa
              ? 'indicated'
              : null;
        if (wrong)
          ctx.addIssue({
            code: 'custom',
            path: [i],
            message: `Correction table, row ${i + 1}: the ${wrong} value must be above the one in the row before it.`,
          });
      });
    }),
  /** Expanded uncertainty (k = 2) that the certificate states, Pa. */
  expandedU_Pa: z.number().positive('Uncertainty on the certificate: above zero.'),
  certificate: z.string().trim().max(200),
});
export type Correction = Readonly<z.infer<typeof correctionSchema>>;

/** Value between the rows of a table, or null outside it. Both columns rise. */
function between(
  points: Correction['points'],
  value: number,
  from: 'reference_Pa' | 'indicated_Pa',
  to: 'reference_Pa' | 'indicated_Pa',
): number | null {
  const i = points.findIndex((point) => point[from] >= value);
  const after = points[i];
  if (!after) return null;
  if (after[from] === value) return after[to];
  const before = points[i - 1];
  if (!before) return null;
  const part = (value - before[from]) / (after[from] - before[from]);
  return before[to] + part * (after[to] - before[to]);
}

/**
 * What a gauge measured, from what it showed and what it showed when vented. With a correction table the drift of
 * its zero since the calibration is taken off first, then the table is read; outside the table, or without one, only
 * the vented zero is taken off.
 *
 * @example a table with 100 bar indicated as 101 bar, zero true: 101 bar shown is 100 bar
 */
export function correctedReading_SI(
  { correction }: { readonly correction: Correction | null },
  shown_SI: number,
  zero_SI: number | null,
): number {
  if (!correction) return shown_SI - (zero_SI ?? 0);
  const { points } = correction;
  const zeroThen_SI = between(points, 0, 'reference_Pa', 'indicated_Pa') ?? 0;
  const drift_SI = zero_SI === null ? 0 : zero_SI - zeroThen_SI;
  return between(points, shown_SI - drift_SI, 'indicated_Pa', 'reference_Pa') ?? shown_SI - (zero_SI ?? 0);
}
