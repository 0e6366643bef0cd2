import { z } from 'zod';
import { amount, identityFields, limit } from '../profile-fields';

const CC = 1e-6;

/** A pump that the engine drives, with an outlet for each of two circuits, as a kind. SI throughout. Typical ranges: handbook-models 8.6. */
export const enginePumpProfile = z.strictObject({
  kind: z.literal('engine-pump'),
  ...identityFields,
  front_m3: amount(
    'Given to the front circuit for each turn of the engine',
    'fluidVolume',
    0.02 * CC,
    10 * CC,
  ),
  rear_m3: amount('Given to the rear circuit for each turn of the engine', 'fluidVolume', 0.02 * CC, 10 * CC),
  idle_PerS: amount('Engine at idle', 'rotation', 5, 40),
  limits: z
    .strictObject({
      idle_fraction: limit('Idle, either way', 'percent', 0.01, 0.3),
      flow_fraction: limit('What it gives, either way', 'percent', 0.01, 0.5),
    })
    .meta({ title: 'Limits' }),
});

export type EnginePumpProfile = z.infer<typeof enginePumpProfile>;
