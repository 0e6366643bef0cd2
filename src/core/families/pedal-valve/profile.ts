import { z } from 'zod';
import { viscosity_PaS, HYDRAULIC_FLUIDS } from '../../fluid/hydraulic-fluid';
import { amount, fluidField, identityFields, limit } from '../profile-fields';

const BAR = 1e5;
const MM = 1e-3;

/**
 * What is known of a kind of dual pedal valve and its two accumulators: a pedal that lets stored pressure into two brake circuits.
 * SI throughout. Typical ranges: handbook-models 8.7.
 */
export const pedalValveProfile = z
  .strictObject({
    kind: z.literal('pedal-valve'),
    ...identityFields,
    fluid: fluidField,
    area_m2: amount('Area of a spool', 'area', 2e-5, 2e-3),
    spring_NPerM: amount('Metering spring', 'stiffness', 1e4, 1e6),
    starts_m: amount('Travel at which the spools begin to move', 'travel', 0, 10 * MM),
    preload_N: amount('Return spring preload', 'force', 0, 500),
    friction_N: amount('Friction of a spool', 'force', 0, 300),
    lag_N: amount('Force by which circuit 2 is behind circuit 1', 'force', 0, 300),
    stop_m: amount('Travel at the pedal stop', 'travel', 2 * MM, 50 * MM),
    drilling_m: amount('Feedback drilling, diameter', 'length', 0.05 * MM, 3 * MM),
    drillingLength_m: amount('Feedback drilling, length', 'length', MM, 50 * MM),
    openFlow_m3PerS: amount('Flow at one millimetre of opening', 'pumpFlow', 1e-7, 1e-2),
    lineLoss_Pa: amount('Lost in a brake line at 1 L/min', 'pressure', 0, 20 * BAR),
    orifice_m: amount(
      'Narrowest opening into a brake circuit, as a sharp orifice',
      'length',
      0.1 * MM,
      10 * MM,
    ),
    give_m3PerPa: amount('Give of a brake circuit', 'volumePerPressure', 1e-14, 1e-10),
    slack_m3: amount('Fluid that a circuit takes up before its brakes touch', 'fluidVolume', 0, 5e-4),
    clearance_m: amount('Radial clearance of a spool', 'clearance', 0.5e-6, 5e-5),
    landDiameter_m: amount('Diameter of a spool', 'length', MM, 100 * MM),
    landLength_m: amount('Length of a land', 'length', MM, 100 * MM),
    shell_m3: amount('Inside of an accumulator', 'volume', 2e-5, 0.02),
    preCharge_Pa: amount('Pre-charge of an accumulator at 20 °C', 'pressure', 2 * BAR, 200 * BAR),
    charge_Pa: amount('Charged to', 'pressure', 10 * BAR, 300 * BAR),
    lamp_Pa: amount('Low-pressure lamp', 'pressure', 5 * BAR, 250 * BAR),
    sweep_m: z
      .array(amount('Travel of a sweep', 'travel', MM, 50 * MM))
      .min(3, 'Travels of the sweep: at least 3 are needed.')
      .max(12, 'Travels of the sweep: 12 at the most.')
      .refine(
        (list) => list.every((x, i) => i === 0 || x > list[i - 1]!),
        'Travels of the sweep: write them in rising order.',
      )
      .meta({ title: 'Travels of the sweep', quantity: 'travel' }),
    cross_s: amount('Cross leak watched', 'duration', 5, 600),
    standing_s: amount('Standing decay', 'duration', 30, 86_400),
    limits: z
      .strictObject({
        output_fraction: limit('Output at a travel, either way', 'percent', 0.005, 0.3),
        hysteresis_Pa: limit('Going up against coming down, at most', 'pressure', 0.1 * BAR, 50 * BAR),
        match_Pa: limit('Circuit 1 against circuit 2, at most', 'pressure', 0.1 * BAR, 50 * BAR),
        residual_Pa: limit('Left in a circuit, pedal released, at most', 'pressure', 0.05 * BAR, 10 * BAR),
        maximum_fraction: limit('Output at the stop, either way', 'percent', 0.005, 0.3),
        peak_Pa: limit('Beyond what is settled, at once pressed, at most', 'pressure', 0.5 * BAR, 50 * BAR),
        apply_s: limit('Apply time, at most', 'duration', 0.05, 10),
        preCharge_fraction: limit('Pre-charge, either way', 'percent', 0.01, 0.5),
        charge_Pa: limit('Charge, either way', 'pressure', BAR, 50 * BAR),
        cross_Pa: limit('Come across while watched, at most', 'pressure', 0.1 * BAR, 50 * BAR),
        clearance_fraction: limit('Clearance of a spool, either way', 'percent', 0.01, 0.8),
        applications: limit('Full applications above the lamp, pump stopped, at least', 'count', 1, 60),
      })
      .meta({ title: 'Limits' }),
  })
  .superRefine((p, ctx) => {
    const issue = (path: string, message: string) => ctx.addIssue({ code: 'custom', path: [path], message });
    if (p.preCharge_Pa >= p.lamp_Pa)
      issue('preCharge_Pa', 'The lamp must light before the fluid is gone: pre-charge below the lamp.');
    if (p.lamp_Pa >= p.charge_Pa) issue('lamp_Pa', 'The lamp must light below the pressure charged to.');
    if (p.sweep_m.some((travel) => travel > p.stop_m))
      issue('sweep_m', 'A travel of the sweep is beyond the pedal stop.');
    if (p.sweep_m[0]! <= p.starts_m + (p.preload_N + p.friction_N) / p.spring_NPerM)
      issue('sweep_m', 'At the first travel of the sweep nothing comes yet.');
    if (p.friction_N > p.preload_N)
      issue('friction_N', 'Friction above the preload: such a spool would not come back.');
    if (maximum_Pa(p) >= p.charge_Pa)
      issue('stop_m', 'At the stop it would let through more than is stored: charge higher or stop sooner.');
    if (p.limits.hysteresis_Pa.value * p.area_m2 < 2 * p.friction_N)
      ctx.addIssue({
        code: 'custom',
        path: ['limits', 'hysteresis_Pa', 'value'],
        message: 'By its friction a healthy one has more hysteresis than this.',
      });
    if (p.limits.match_Pa.value * p.area_m2 < p.lag_N)
      ctx.addIssue({
        code: 'custom',
        path: ['limits', 'match_Pa', 'value'],
        message: 'By its make circuit 2 is further behind than this.',
      });
    if (!Number.isInteger(p.limits.applications.value))
      ctx.addIssue({
        code: 'custom',
        path: ['limits', 'applications', 'value'],
        message: 'Applications: a whole number.',
      });
  });

export type PedalValveProfile = z.infer<typeof pedalValveProfile>;

/** Output at the stop going up, Pa. Handbook-models 8.7. */
export const maximum_Pa = ({
  spring_NPerM,
  stop_m,
  starts_m,
  preload_N,
  friction_N,
  area_m2,
}: Pick<
  PedalValveProfile,
  'spring_NPerM' | 'stop_m' | 'starts_m' | 'preload_N' | 'friction_N' | 'area_m2'
>): number => (spring_NPerM * (stop_m - starts_m) - preload_N - friction_N) / area_m2;

/** Oil that pedal valves of working machines run on. */
export const OIL = HYDRAULIC_FLUIDS.vg46;

/** Viscosity of it at which a leak between the circuits is stated: at 40 °C, Pa·s; and the pressure across it, Pa. */
export const STATED = { viscosity_PaS: viscosity_PaS(OIL, 313.15), across_Pa: 100 * BAR } as const;
