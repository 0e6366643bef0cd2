import { z } from 'zod';
import { amount, fluidField, identityFields, limit } from '../profile-fields';
import { stopFigures } from '../stop-figures';

const BAR = 1e5;

/**
 * What a brake unit drives: master cylinder, lines, proportioning, wheel brakes. SI; nothing physical is assumed where it is
 * left out. Handbook-models 10 and “Loads on fluid lines”.
 */
export const wheelBrakesProfile = z.strictObject({
  kind: z.literal('wheel-brakes'),
  ...identityFields,
  fluid: fluidField,
  masterBore_m: amount('Master cylinder bore', 'length', 0.012, 0.05),
  freeTravel_m: amount('Free travel of the pushrod', 'travel', 0, 0.01),
  takeUp_m3: amount('Volume that takes up the clearances', 'volume', 0, 2e-5),
  stiffness_m3PerPa: amount('Give of calipers, hoses and fluid', 'volumePerPressure', 1e-14, 1e-11),
  valves: z.enum(['one', 'two']).meta({
    title: 'Valves that hold the rear back',
    labels: { one: 'One for both sides', two: 'One for each side' },
  }),
  split_Pa: amount('Pressure at which the rear is held back', 'pressure', BAR, 200 * BAR),
  slope: amount('Rear pressure for each front one beyond that', 'ratio', 0.05, 1),
  sink_s: amount('Pedal held for the sink', 'duration', 5, 600),
  stop: stopFigures.nullable(),
  limits: z
    .strictObject({
      stiffness_fraction: limit('Give, either way', 'percent', 0.01, 0.9),
      rear_Pa: limit('Rear pressure at a front one, either way', 'pressure', 0.1 * BAR, 20 * BAR),
      rear_fraction: limit('The same, as a part of the front one', 'percent', 0.005, 0.5),
      split_fraction: limit('Split pressure, either way', 'percent', 0.01, 0.9),
      slope: limit('Slope beyond the split, either way', 'ratio', 0.01, 0.5),
      sink_m: limit('Pedal sink in a minute, assist off, at most', 'travel', 1e-4, 0.05),
    })
    .meta({ title: 'Limits' }),
});

export type WheelBrakesProfile = z.infer<typeof wheelBrakesProfile>;
