import { z } from 'zod';

const EN_CLASSES = ['0.1', '0.25', '0.6', '1', '1.6', '2.5', '4'] as const;
const ASME_GRADES = ['4A', '3A', '2A', '1A', 'A', 'B', 'C', 'D'] as const;

/** ASME B40.100: percent of span in the first quarter, the middle half and the last quarter. */
const ASME_PERCENT: Record<(typeof ASME_GRADES)[number], readonly [number, number, number]> = {
  '4A': [0.1, 0.1, 0.1],
  '3A': [0.25, 0.25, 0.25],
  '2A': [0.5, 0.5, 0.5],
  '1A': [1, 1, 1],
  A: [2, 1, 2],
  B: [3, 2, 3],
  C: [4, 3, 4],
  D: [5, 5, 5],
};

/** A pointer can stand a little past the last mark. */
const OVER_SCALE = 1.05;

const percent = z.number().positive().max(50);

export const accuracySchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('percent-of-span'), percent }),
  z.strictObject({ kind: z.literal('percent-of-reading'), percent }),
  z.strictObject({ kind: z.literal('en-837-1'), class: z.enum(EN_CLASSES) }),
  z.strictObject({ kind: z.literal('asme-b40.100'), grade: z.enum(ASME_GRADES) }),
]);

/** What an instrument can read. */
export const INSTRUMENT_QUANTITIES = [
  'pressure',
  'depression',
  'force',
  'duration',
  'voltage',
  'current',
  'resistance',
  'flow',
  'rotation',
  'speed',
  'angle',
  'travel',
] as const;

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

const day = z.iso.date('give day, month and year, or leave it empty').nullable();

/**
 * Fields of an instrument, for its record and for its form. Full scale and step are typed in bar or inHg like any
 * reading. Fields that end in `_Pa`, here and in the correction table, hold SI of what the instrument reads: N for a
 * force, s for a time. They keep the name because signed records and job files hold it.
 */
export const instrumentFields = {
  tag: z.string().trim().min(1, 'Give the instrument a tag.').max(40).meta({ title: 'Tag' }),
  name: z.string().trim().max(200).meta({ title: 'Description' }),
  quantity: z.enum(INSTRUMENT_QUANTITIES, 'Reads: choose one.').meta({ title: 'Reads' }),
  fullScale_Pa: z
    .number()
    .positive('Full scale must be above zero.')
    .meta({ title: 'Full scale', quantity: 'pressure' }),
  /** Where the scale of a compound gauge begins, below zero; none for one that begins at zero. */
  lowEnd_Pa: z
    .number()
    .max(0, 'Lower end of the scale: zero or below.')
    .nullish()
    .meta({ title: 'Lower end of a compound scale, below zero', quantity: 'pressure' }),
  accuracy: accuracySchema.meta({ title: 'Accuracy' }),
  step_Pa: z
    .number()
    .positive('The smallest readable step must be above zero.')
    .meta({ title: 'Smallest readable step', quantity: 'pressure' }),
  usualPort: z.string().max(40).nullable().meta({ title: 'Stands on' }),
  tiedTo: z.string().max(40).nullable().meta({ title: 'Low range, tied to high range' }),
  calibratedOn: day.meta({ title: 'Last calibration' }),
  calibrationDue: day.meta({ title: 'Next calibration' }),
};

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

/** A gauge or transducer on the shelf. Handbook 5. */
export const instrumentSchema = z
  .strictObject({ ...instrumentFields, correction: correctionSchema.nullable() })
  .refine((gauge) => gauge.step_Pa < gauge.fullScale_Pa, {
    path: ['step_Pa'],
    message: 'The smallest step must be smaller than the full scale.',
  })
  .refine((gauge) => gauge.tiedTo === null || gauge.tiedTo !== gauge.tag, {
    path: ['tiedTo'],
    message: 'A gauge cannot be tied to itself.',
  })
  .refine(
    ({ correction, fullScale_Pa }) =>
      !correction || correction.points.every(({ indicated_Pa }) => indicated_Pa <= OVER_SCALE * fullScale_Pa),
    { path: ['correction'], message: 'Correction table: an indicated value is beyond the full scale.' },
  );

export type Instrument = z.infer<typeof instrumentSchema>;
export type Accuracy = Instrument['accuracy'];

/** Where the scale begins, SI: below zero for a compound gauge. */
export const lowEnd_SI = ({ lowEnd_Pa }: Pick<Instrument, 'lowEnd_Pa'>): number => lowEnd_Pa ?? 0;

/** From one end of the scale to the other, SI: what a class or grade is a percentage of. */
export const span_SI = (gauge: Pick<Instrument, 'lowEnd_Pa' | 'fullScale_Pa'>): number =>
  gauge.fullScale_Pa - lowEnd_SI(gauge);

/**
 * Maximum permissible error of a gauge at a reading, SI. EN 837-1 classes and ASME B40.100 grades are percent of
 * span, from the lower end of a compound gauge; ASME grades A, B and C are wider in the outer quarters. Handbook 5.
 */
export function permissibleError_SI(gauge: Instrument, reading_SI: number): number {
  const { accuracy } = gauge;
  const span = span_SI(gauge);
  switch (accuracy.kind) {
    case 'percent-of-reading':
      return (accuracy.percent / 100) * Math.abs(reading_SI);
    case 'percent-of-span':
      return (accuracy.percent / 100) * span;
    case 'en-837-1':
      return (Number(accuracy.class) / 100) * span;
    case 'asme-b40.100': {
      const [first, middle, last] = ASME_PERCENT[accuracy.grade];
      const part = (reading_SI - lowEnd_SI(gauge)) / span;
      const percentHere = part < 0.25 ? first : part <= 0.75 ? middle : last;
      return (percentHere / 100) * span;
    }
  }
}

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
  { correction }: Instrument,
  shown_SI: number,
  zero_SI: number | null,
): number {
  if (!correction) return shown_SI - (zero_SI ?? 0);
  const { points } = correction;
  const zeroThen_SI = between(points, 0, 'reference_Pa', 'indicated_Pa') ?? 0;
  const drift_SI = zero_SI === null ? 0 : zero_SI - zeroThen_SI;
  return between(points, shown_SI - drift_SI, 'indicated_Pa', 'reference_Pa') ?? shown_SI - (zero_SI ?? 0);
}

/**
 * Standard uncertainty of the gauge's one unknown error at a true value, SI: half the certificate's expanded
 * uncertainty inside its correction table, else the permissible error over √3. Handbook 5.
 */
export function gaugeUncertainty_SI(gauge: Instrument, value_SI: number): number {
  const points = gauge.correction?.points;
  if (points && value_SI >= points[0]!.reference_Pa && value_SI <= points.at(-1)!.reference_Pa)
    return gauge.correction!.expandedU_Pa / 2;
  return permissibleError_SI(gauge, value_SI) / Math.sqrt(3);
}

/** Percentages offered where an accuracy is no class and no grade. */
const PERCENTS = [0.05, 0.1, 0.2, 0.25, 0.5, 1, 1.5, 2, 2.5, 3, 5];

/** Every accuracy that can be chosen for an instrument. */
export const ACCURACY_CHOICES: readonly Accuracy[] = [
  ...EN_CLASSES.map((cls) => ({ kind: 'en-837-1' as const, class: cls })),
  ...ASME_GRADES.map((grade) => ({ kind: 'asme-b40.100' as const, grade })),
  ...PERCENTS.map((value) => ({ kind: 'percent-of-span' as const, percent: value })),
  ...PERCENTS.map((value) => ({ kind: 'percent-of-reading' as const, percent: value })),
];

/** The accuracy that a label names; null where it is none of the choices. */
export const accuracyFrom = (label: string): Accuracy | null =>
  ACCURACY_CHOICES.find((accuracy) => accuracyLabel(accuracy) === label) ?? null;

/** The accuracy as it stands on the gauge's face. */
export function accuracyLabel(accuracy: Accuracy): string {
  switch (accuracy.kind) {
    case 'percent-of-reading':
      return `±${accuracy.percent} % of reading`;
    case 'percent-of-span':
      return `±${accuracy.percent} % of span`;
    case 'en-837-1':
      return `EN 837-1 class ${accuracy.class}`;
    case 'asme-b40.100':
      return `ASME B40.100 grade ${accuracy.grade}`;
  }
}

/** Calibration state on a day (ISO date): a verdict that leans on an overdue gauge says so. */
export function calibrationState(gauge: Instrument, today: string): 'in date' | 'overdue' | 'no date' {
  if (!gauge.calibrationDue) return 'no date';
  return gauge.calibrationDue < today ? 'overdue' : 'in date';
}

/**
 * The gauge to read on a port for an expected value: of a tied pair the low range until its full scale, then the
 * high one.
 *
 * @returns null where no gauge on the port reaches that far
 */
export function gaugeFor(gauges: readonly Instrument[], expected_Pa: number): Instrument | null {
  const reaching = gauges.filter((gauge) => gauge.fullScale_Pa >= expected_Pa);
  return reaching.sort((a, b) => a.fullScale_Pa - b.fullScale_Pa)[0] ?? null;
}
