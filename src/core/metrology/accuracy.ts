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

const percent = z.number().positive().max(50);

export const accuracySchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('percent-of-span'), percent }),
  z.strictObject({ kind: z.literal('percent-of-reading'), percent }),
  z.strictObject({ kind: z.literal('en-837-1'), class: z.enum(EN_CLASSES) }),
  z.strictObject({ kind: z.literal('asme-b40.100'), grade: z.enum(ASME_GRADES) }),
  /** A sensor of the vehicle itself: its error is a parameter of the model, and no gauge's. Design 2. */
  z.strictObject({ kind: z.literal('own-sensor') }),
]);

export type Accuracy = Readonly<z.infer<typeof accuracySchema>>;

/** A scale and how well it is known. Fields that end in `_Pa` hold SI of what it reads. */
export interface Scale {
  readonly accuracy: Accuracy;
  readonly fullScale_Pa: number;
  readonly lowEnd_Pa?: number | null | undefined;
}

/** Where the scale begins, SI: below zero for a compound gauge. */
export const lowEnd_SI = ({ lowEnd_Pa }: Pick<Scale, 'lowEnd_Pa'>): number => lowEnd_Pa ?? 0;

/** From one end of the scale to the other, SI: what a class or grade is a percentage of. */
export const span_SI = (gauge: Pick<Scale, 'lowEnd_Pa' | 'fullScale_Pa'>): number =>
  gauge.fullScale_Pa - lowEnd_SI(gauge);

/**
 * Maximum permissible error of a gauge at a reading, SI. EN 837-1 classes and ASME B40.100 grades are percent of
 * span, from the lower end of a compound gauge; ASME grades A, B and C are wider in the outer quarters. A vehicle's own
 * sensor has none: the model says how far it may be out. Handbook 5.
 */
export function permissibleError_SI(gauge: Scale, reading_SI: number): number {
  const { accuracy } = gauge;
  const span = span_SI(gauge);
  switch (accuracy.kind) {
    case 'percent-of-reading':
      return (accuracy.percent / 100) * Math.abs(reading_SI);
    case 'percent-of-span':
      return (accuracy.percent / 100) * span;
    case 'own-sensor':
      return 0;
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

/** Percentages offered where an accuracy is no class and no grade. */
const PERCENTS = [0.05, 0.1, 0.2, 0.25, 0.5, 1, 1.5, 2, 2.5, 3, 5];

/** Whether it is a sensor of the vehicle: it proves nothing to be empty, and no other gauge is compared with it. */
export const isOwnSensor = ({ accuracy }: Pick<Scale, 'accuracy'>): boolean => accuracy.kind === 'own-sensor';

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
    case 'own-sensor':
      return 'The vehicle’s own sensor';
    case 'en-837-1':
      return `EN 837-1 class ${accuracy.class}`;
    case 'asme-b40.100':
      return `ASME B40.100 grade ${accuracy.grade}`;
  }
}
