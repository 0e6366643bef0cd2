import { z } from 'zod';
import { amount, identityFields, limit } from '../profile-fields';
import { stopFigures } from '../stop-figures';

const CC = 1e-6;

/**
 * Brakes that stored pressure is let into, front and rear, and the small master that gives the pedal its feel. SI throughout.
 * Handbook 8.6; handbook-models, loads on fluid lines.
 */
export const lineBrakesProfile = z.strictObject({
  kind: z.literal('line-brakes'),
  ...identityFields,
  frontTakeUp_m3: amount('Front brakes: taken up before they touch', 'fluidVolume', 0, 20 * CC),
  frontGive_m3PerPa: amount('Front brakes: give', 'volumePerPressure', 1e-14, 1e-11),
  rearTakeUp_m3: amount('Rear brakes: taken up before they touch', 'fluidVolume', 0, 20 * CC),
  rearGive_m3PerPa: amount('Rear brakes: give', 'volumePerPressure', 1e-14, 1e-11),
  feelBore_m: amount('Small master, bore', 'length', 0.005, 0.04),
  freeTravel_m: amount('Small master, free travel of its rod', 'travel', 0, 0.01),
  feelGive_m3PerPa: amount('Give of what the small master fills', 'volumePerPressure', 1e-14, 1e-11),
  travel_N: amount('Pedal force at which its travel is read', 'force', 20, 600),
  stop: stopFigures.nullable(),
  limits: z
    .strictObject({
      give_fraction: limit('Give, either way', 'percent', 0.01, 0.9),
    })
    .meta({ title: 'Limits' }),
});

export type LineBrakesProfile = z.infer<typeof lineBrakesProfile>;
