import { z } from 'zod';
import { powerFields } from '../power-booster';
import { amount, identityFields, limit } from '../profile-fields';

const BAR = 1e5;
const CC = 1e-6;
const MM = 1e-3;

/** Fluids that steering systems are filled with. They mix with no brake fluid. */
const FLUIDS = { steering: 'Power-steering fluid', mineral: 'Mineral hydraulic oil' } as const;

/**
 * A booster that the steering pump feeds: a spool that meters its pressure onto a power piston beside the rod, and a small accumulator
 * for the reserve. SI throughout. Typical ranges: handbook-models 8.4.
 */
export const hydraulicBoosterProfile = z
  .strictObject({
    kind: z.literal('hydraulic-booster'),
    ...identityFields,
    steeringFluid: z
      .enum(Object.keys(FLUIDS) as [keyof typeof FLUIDS, ...(keyof typeof FLUIDS)[]])
      .meta({ title: 'Fluid of the steering', labels: FLUIDS }),
    ...powerFields,
    gap_m: amount('Gap of the spool', 'travel', 0.1 * MM, 5 * MM),
    shell_m3: amount('Inside of the accumulator', 'volume', 5 * CC, 500 * CC),
    preCharge_Pa: amount('Pre-charge at 20 °C', 'pressure', 5 * BAR, 100 * BAR),
    full_Pa: amount('Accumulator, full', 'pressure', 10 * BAR, 200 * BAR),
    leak_m3PerS: amount('Leak of the accumulator at 100 bar, fluid at 80 °C', 'leakRate', 0, 1e-6),
    exhaust_m: amount('Exhaust of the chamber, diameter', 'length', 0.5 * MM, 10 * MM),
    return_m: amount('Return line at its narrowest, diameter', 'length', 1 * MM, 15 * MM),
    reserve_N: amount('Pedal force of a reserve application', 'force', 20, 600),
    stand_s: amount('Accumulator watched', 'duration', 600, 7200),
    limits: z
      .strictObject({
        output_fraction: limit('Output at a force, either way', 'percent', 0.005, 0.3),
        preCharge_fraction: limit('Pre-charge, either way', 'percent', 0.01, 0.5),
        full_fraction: limit('Full charge, either way', 'percent', 0.01, 0.5),
        drop_m: limit('Pedal falls as the pump starts, either way', 'travel', MM, 30 * MM),
        back_m: limit('Pedal pushes back then, either way', 'travel', 0.5 * MM, 20 * MM),
        hysteresis_N: limit('Pedal force until the pressure falls, at most', 'force', 1, 200),
        release_s: limit('Release, at most', 'duration', 0.05, 5),
        residual_Pa: limit('Pressure at rest, pump running, at most', 'pressure', 0.05 * BAR, 20 * BAR),
        stated_Pa: limit('Pressure that an application of the reserve must make', 'pressure', BAR, 120 * BAR),
        applications: limit('Applications of the reserve, at least', 'count', 1, 20),
      })
      .meta({ title: 'Limits' }),
  })
  .superRefine((p, ctx) => {
    const issue = (path: string, message: string) => ctx.addIssue({ code: 'custom', path: [path], message });
    if (p.preCharge_Pa >= p.full_Pa)
      issue('preCharge_Pa', 'A vessel whose gas stands above its full charge takes up no fluid.');
    if (p.pedalRatio * p.assist_N[0]! <= p.opens_N)
      issue('assist_N', 'At the lightest force the spool is not open yet.');
    if (!Number.isInteger(p.limits.applications.value))
      ctx.addIssue({
        code: 'custom',
        path: ['limits', 'applications', 'value'],
        message: 'Applications: a whole number.',
      });
  });

export type HydraulicBoosterProfile = z.infer<typeof hydraulicBoosterProfile>;
