import { z } from 'zod';
import { amount, identityFields, limit } from '../profile-fields';
import { stopFigures } from '../stop-figures';

const CC = 1e-6;

/** Brakes of four wheels, each with a line of its own. SI throughout. Handbook-models 8.9 and loads on fluid lines. */
export const fourWheelsProfile = z.strictObject({
  kind: z.literal('four-wheels'),
  ...identityFields,
  frontTakeUp_m3: amount('A front brake: taken up before it touches', 'fluidVolume', 0, 10 * CC),
  frontGive_m3PerPa: amount('A front brake: give', 'volumePerPressure', 1e-14, 1e-11),
  rearTakeUp_m3: amount('A rear brake: taken up before it touches', 'fluidVolume', 0, 10 * CC),
  rearGive_m3PerPa: amount('A rear brake: give', 'volumePerPressure', 1e-14, 1e-11),
  stop: stopFigures.nullable(),
  limits: z
    .strictObject({ give_fraction: limit('Give, either way', 'percent', 0.01, 0.9) })
    .meta({ title: 'Limits' }),
});

export type FourWheelsProfile = z.infer<typeof fourWheelsProfile>;
