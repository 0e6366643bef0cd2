import { z } from 'zod';
import { powerFields } from '../power-booster';
import { amount, fluidField, identityFields, limit } from '../profile-fields';

const MM = 1e-3;

/**
 * A booster in which a motor pushes beside the rod, with the pair of tracks that it is steered by. SI throughout. Typical ranges:
 * handbook-models 8.8.
 */
export const electromechanicalProfile = z
  .strictObject({
    kind: z.literal('electromechanical'),
    ...identityFields,
    fluid: fluidField,
    pedalRatio: amount('Pedal ratio', 'ratio', 1, 10),
    spring_N: amount('Return spring', 'force', 0, 1000),
    friction_N: amount('Friction of gear and seals', 'force', 0, 500),
    crack_N: amount('Input at which it begins to help', 'force', 0, 500),
    jump_N: amount('Output that comes at once then', 'force', 0, 2000),
    gain: amount('Output for each newton beyond', 'ratio', 1.5, 15),
    perAmpere_N: amount('Force for each ampere in the motor', 'force', 5, 500),
    limit_N: amount('Most assist', 'force', 200, 20_000),
    winding_Ohm: amount('Winding of the motor', 'resistance', 0.005, 5),
    idle_W: amount('Control unit by itself', 'power', 0, 200),
    limit_A: amount('Most current in the motor', 'current', 5, 500),
    cutOff_V: amount('Switches off at', 'voltage', 4, 40),
    delay_s: amount('Until it begins to push', 'duration', 0, 0.5),
    stall_N: amount('Force at which the motor stands, at its usual voltage', 'force', 500, 30_000),
    free_mPerS: amount('Speed with nothing to push, at its usual voltage', 'rodSpeed', 0.02, 2),
    usual_V: amount('Its usual voltage', 'voltage', 6, 60),
    mass_kg: amount('Mass of rod and gear', 'mass', 0.1, 20),
    full_m: amount('Full way of its sensor', 'travel', 5 * MM, 0.1),
    sensor_V: amount('Supply of its sensor', 'voltage', 3, 15),
    assist_N: powerFields.assist_N,
    limits: z
      .strictObject({
        output_fraction: limit('Output at a force, either way', 'percent', 0.005, 0.3),
        friction_fraction: limit('Friction of gear and seals, either way', 'percent', 0.01, 0.9),
        current_fraction: limit('Current at a force, either way', 'percent', 0.01, 0.5),
        step_s: limit('Pressure there after a stamp, at most', 'duration', 0.02, 2),
        returns_s: limit('Back at rest, at most', 'duration', 0.02, 3),
        rest_m: limit('Sensor at rest, either way', 'travel', 0.05 * MM, 3 * MM),
        sum_V: limit('Sum of the tracks against their supply', 'voltage', 0.02, 0.5),
      })
      .meta({ title: 'Limits' }),
  })
  .superRefine((p, ctx) => {
    if (p.jump_N < p.crack_N - p.spring_N)
      ctx.addIssue({
        code: 'custom',
        path: ['jump_N'],
        message: 'What comes at once must be at least what the foot alone makes there.',
      });
    if (p.stall_N <= p.limit_N)
      ctx.addIssue({
        code: 'custom',
        path: ['stall_N'],
        message: 'The motor must be able to come to its most assist: it stands at more than that.',
      });
    if (p.pedalRatio * p.assist_N[0]! <= p.crack_N)
      ctx.addIssue({
        code: 'custom',
        path: ['assist_N'],
        message: 'At the lightest force it does not help yet.',
      });
  });

export type ElectromechanicalProfile = z.infer<typeof electromechanicalProfile>;
