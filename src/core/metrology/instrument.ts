import { z } from 'zod';
import { accuracySchema, permissibleError_SI } from './accuracy';
import { FLUID_KINDS } from '../fluid/kinds';
import { correctionSchema } from './correction';

/** A pointer can stand a little past the last mark. */
const OVER_SCALE = 1.05;

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
  'temperature',
  'torque',
] as const;
export type InstrumentQuantity = (typeof INSTRUMENT_QUANTITIES)[number];

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
  /** What stands in the gauge and its hose still, once they were wetted. */
  fluid: z.enum(FLUID_KINDS).nullish().meta({ title: 'Fluid in the gauge and its hose' }),
  calibratedOn: day.meta({ title: 'Last calibration' }),
  calibrationDue: day.meta({ title: 'Next calibration' }),
};

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
