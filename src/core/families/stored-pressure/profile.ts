import { z } from 'zod';
import { amount, fluidField, identityFields, limit } from '../profile-fields';

const BAR = 1e5;
const MM = 1e-3;

/**
 * A car on stored pressure: two circuits with an accumulator and a distribution valve each, and levelling on the rear one. SI
 * throughout. Typical ranges: handbook-models 8.6.
 */
export const storedPressureProfile = z
  .strictObject({
    kind: z.literal('stored-pressure'),
    ...identityFields,
    fluid: fluidField,
    sphere: z.enum(['sealed', 'bolted']).meta({
      title: 'Accumulators',
      labels: { sealed: 'Sealed: replaced', bolted: 'Bolted: may be rebuilt' },
    }),
    shell_m3: amount('Inside of an accumulator', 'volume', 2e-5, 0.01),
    preCharge_Pa: amount('Pre-charge of an accumulator at 20 °C', 'pressure', 2 * BAR, 200 * BAR),
    in_Pa: amount('Cut-in', 'pressure', 20 * BAR, 280 * BAR),
    out_Pa: amount('Cut-out', 'pressure', 20 * BAR, 300 * BAR),
    lamp_Pa: amount('Low-pressure lamp', 'pressure', 5 * BAR, 250 * BAR),
    clearance_m: amount('Radial clearance of a distribution valve', 'clearance', 0.5e-6, 5e-5),
    landDiameter_m: amount('Diameter of its spool', 'length', MM, 50 * MM),
    landLength_m: amount('Length of a land', 'length', MM, 50 * MM),
    pedalRatio: amount('Pedal ratio', 'ratio', 1, 10),
    opens_N: amount('Force at which a distribution valve opens', 'force', 0, 500),
    friction_N: amount('Friction of its spool', 'force', 0, 200),
    frontArea_m2: amount('Front distribution valve, area', 'area', 5e-6, 2e-3),
    rearArea_m2: amount('Rear distribution valve, area', 'area', 5e-6, 2e-3),
    metering_N: z
      .array(amount('Pedal force', 'force', 10, 600))
      .min(2, 'Pedal forces: at least 2 are needed.')
      .max(6, 'Pedal forces: 6 at the most.')
      .refine(
        (list) => list.every((force, i) => i === 0 || force > list[i - 1]!),
        'Pedal forces: write them in rising order.',
      )
      .meta({ title: 'Pedal forces', quantity: 'force' }),
    light_N: amount('Pedal force of a light application', 'force', 5, 200),
    weight_N: amount('Weight on a levelled corner', 'force', 500, 20_000),
    spring_NPerM: amount('Spring of a levelled corner', 'stiffness', 2000, 200_000),
    free_m: amount('Height at which a spring carries nothing', 'length', 0.1, 1.5),
    trim_m: amount('Height that the valve keeps', 'length', 0.05, 1.2),
    ramArea_m2: amount('Area of a ram', 'area', 5e-5, 1e-2),
    ramRatio: amount('Way of a ram for each of the wheel', 'ratio', 0.1, 2),
    bump_Pa: amount('Pressure that a bump makes at a ram', 'pressure', BAR, 100 * BAR),
    lineBore_m: amount('Bore of the line to the rams', 'length', MM, 10 * MM),
    restrictor_m: amount('Bore of the restrictor', 'length', 0.1 * MM, 5 * MM),
    gear_m3PerS: amount('Flow through the restrictor in gear', 'pumpFlow', 1e-7, 1e-4),
    parked_m3PerS: amount('Flow to the rams parked, a door open', 'pumpFlow', 1e-7, 1e-4),
    lift_m: amount('Lift that is timed', 'length', 0.01, 0.2),
    standing_s: amount('Standing decay', 'duration', 60, 86_400),
    watch_s: amount('Stand to the lamp watched', 'duration', 1800, 259_200),
    limits: z
      .strictObject({
        preCharge_fraction: limit('Pre-charge, either way', 'percent', 0.01, 0.5),
        shell_fraction: limit('Inside of an accumulator, either way', 'percent', 0.02, 0.5),
        lampOff_s: limit('Lamp out after, at most', 'duration', 2, 110),
        charge_s: limit('Charge from empty, at most', 'duration', 5, 110),
        switch_Pa: limit('Cut-in and cut-out, either way', 'pressure', BAR, 40 * BAR),
        lamp_Pa: limit('Low-pressure lamp, either way', 'pressure', BAR, 40 * BAR),
        output_fraction: limit('Brakes at a force, either way', 'percent', 0.005, 0.3),
        hysteresis_Pa: limit('Going up against coming down, at most', 'pressure', 0.1 * BAR, 50 * BAR),
        residual_Pa: limit('Left in the brakes, released, at most', 'pressure', 0.05 * BAR, 10 * BAR),
        clearance_fraction: limit('Clearance of a distribution valve, either way', 'percent', 0.01, 0.8),
        applications: limit('Light applications above the lamp, engine off, at least', 'count', 10, 99),
        height_m: limit('Height as trimmed, either way', 'length', MM, 100 * MM),
        spring_fraction: limit('Springs, either way', 'percent', 0.01, 0.5),
        carried_fraction: limit('Carried by the springs, at least', 'percent', 0.3, 1),
        nudge_Pa: limit('Rear brakes over a bump, at most', 'pressure', 0.05 * BAR, 20 * BAR),
        rise_fraction: limit('Lift in gear, either way', 'percent', 0.02, 0.8),
      })
      .meta({ title: 'Limits' }),
  })
  .superRefine((p, ctx) => {
    const issue = (path: string, message: string) => ctx.addIssue({ code: 'custom', path: [path], message });
    const inLimits = (path: string, message: string) =>
      ctx.addIssue({ code: 'custom', path: ['limits', path, 'value'], message });
    if (p.preCharge_Pa >= p.lamp_Pa)
      issue('preCharge_Pa', 'The lamp must light before the fluid is gone: pre-charge below the lamp.');
    if (p.lamp_Pa >= p.in_Pa)
      issue('lamp_Pa', 'The lamp must be below the cut-in, or it lights in every cycle.');
    if (p.in_Pa >= p.out_Pa) issue('in_Pa', 'The cut-in must be below the cut-out.');
    if (p.pedalRatio * p.metering_N[0]! <= p.opens_N + p.friction_N)
      issue('metering_N', 'At the lightest force no brake is applied yet.');
    if (p.pedalRatio * p.light_N <= p.opens_N + p.friction_N)
      issue('light_N', 'At a light application no brake is applied yet.');
    if (
      (p.pedalRatio * Math.max(...p.metering_N) - p.opens_N) / Math.min(p.frontArea_m2, p.rearArea_m2) >=
      p.in_Pa
    )
      issue('metering_N', 'At the heaviest force more is asked for than is stored.');
    if (p.trim_m >= p.free_m)
      issue('trim_m', 'The height that the valve keeps is below where a spring carries nothing.');
    if (p.gear_m3PerS >= p.parked_m3PerS)
      issue('gear_m3PerS', 'In gear it lifts more slowly than parked: less flow through the restrictor.');
    if (p.restrictor_m >= p.lineBore_m)
      issue('restrictor_m', 'The restrictor is narrower than the line, or it restricts nothing.');
    if (p.limits.hysteresis_Pa.value * Math.min(p.frontArea_m2, p.rearArea_m2) < 2 * p.friction_N)
      inLimits('hysteresis_Pa', 'By its friction a healthy one has more hysteresis than this.');
    if (p.limits.applications.value % TENS !== 0)
      inLimits('applications', `Light applications: in ${TENS}s, as they are read.`);
  });

/** Light applications are made so many at a time before the gauges are read. */
export const TENS = 10;

export type StoredPressureProfile = z.infer<typeof storedPressureProfile>;
