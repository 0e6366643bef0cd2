import { z } from 'zod';
import { FLUIDS } from '../../fluid/kinds';
import { powerFields } from '../power-booster';
import { amount, identityFields, limit } from '../profile-fields';

const BAR = 1e5;

/** What glycol pumps move. */
const GLYCOLS = ['dot3', 'dot4', 'dot5.1'] as const;

/**
 * A booster that works on brake fluid stored under pressure: its accumulator, its pressure switch, its relief, and the spool that
 * meters onto a power piston beside the rod. SI throughout. Typical ranges: handbook-models 8.4, 8.5.
 */
export const motorPumpBoosterProfile = z
  .strictObject({
    kind: z.literal('motor-pump-booster'),
    ...identityFields,
    fluid: z.enum(GLYCOLS).meta({ title: 'Fluid', labels: FLUIDS }),
    ...powerFields,
    shell_m3: amount('Inside of the accumulator', 'volume', 5e-5, 5e-3),
    preCharge_Pa: amount('Pre-charge at 20 °C', 'pressure', 5 * BAR, 150 * BAR),
    in_Pa: amount('Switched on at', 'pressure', 20 * BAR, 250 * BAR),
    out_Pa: amount('Switched off at', 'pressure', 30 * BAR, 300 * BAR),
    delay_s: amount('The switch is late by', 'duration', 0, 0.5),
    lamp_Pa: amount('Low-pressure lamp', 'pressure', 10 * BAR, 200 * BAR),
    relief_Pa: amount('Relief', 'pressure', 50 * BAR, 400 * BAR),
    leak_m3PerS: amount('Leak at 100 bar, fluid at 20 °C', 'leakRate', 1e-10, 1e-6),
    watch_s: amount('Off-time watched', 'duration', 300, 7200),
    limits: z
      .strictObject({
        output_fraction: limit('Output at a force, either way', 'percent', 0.005, 0.3),
        preCharge_fraction: limit('Pre-charge, either way', 'percent', 0.01, 0.5),
        charge_s: limit('Charge from empty, at most', 'duration', 2, 300),
        switch_Pa: limit('Switched on and off at, either way', 'pressure', BAR, 40 * BAR),
        leak_fraction: limit('Leak, either way', 'percent', 0.01, 0.95),
        off_s: limit('Off-time once settled, at least', 'duration', 30, 3600),
        relief_Pa: limit('Relief, either way', 'pressure', BAR, 60 * BAR),
        lamp_Pa: limit('Low-pressure lamp, either way', 'pressure', BAR, 40 * BAR),
        applications: limit('Full applications above the lamp, pump off, at least', 'count', 1, 60),
      })
      .meta({ title: 'Limits' }),
  })
  .superRefine((p, ctx) => {
    const issue = (path: string, message: string) => ctx.addIssue({ code: 'custom', path: [path], message });
    if (p.preCharge_Pa >= p.lamp_Pa)
      issue('preCharge_Pa', 'The lamp must light before the fluid is gone: pre-charge below the lamp.');
    if (p.lamp_Pa >= p.in_Pa)
      issue('lamp_Pa', 'The pump must start before the lamp lights: lamp below where it is switched on.');
    if (p.in_Pa >= p.out_Pa) issue('in_Pa', 'It must be switched on below where it is switched off.');
    if (p.out_Pa >= p.relief_Pa)
      issue('relief_Pa', 'The relief must open above where the pump is switched off.');
    if (p.limits.off_s.value > p.watch_s)
      issue('watch_s', 'It is watched for less time than it must stay off.');
    if (p.pedalRatio * p.assist_N[0]! <= p.opens_N)
      issue('assist_N', 'At the lightest force the spool is not open yet.');
    if (!Number.isInteger(p.limits.applications.value))
      ctx.addIssue({
        code: 'custom',
        path: ['limits', 'applications', 'value'],
        message: 'Applications: a whole number.',
      });
  });

export type MotorPumpBoosterProfile = z.infer<typeof motorPumpBoosterProfile>;
