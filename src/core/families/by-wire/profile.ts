import { z } from 'zod';
import { tableRefused, type SensorTable } from '../../electric/sensor-table';
import { amount, fluidField, identityFields, limit } from '../profile-fields';

const BAR = 1e5;
const MM = 1e-3;

const column = (title: string, quantity: 'pressure' | 'voltage', low: number, high: number) =>
  z
    .array(amount(title, quantity, low, high))
    .min(2, `${title}: two rows at least.`)
    .max(12, `${title}: 12 rows at the most.`)
    .meta({ title, quantity });

/** Which wheels the pedal works by itself once the power has gone. */
export const JOINS = { front: 'The front wheels', all: 'All four wheels' } as const;

/**
 * A decoupled brake: simulator, sensors, accumulator with its pump, valves of four wheels, regeneration, and what is left with no
 * power. SI throughout. Typical ranges: handbook-models 8.9.
 */
export const byWireProfile = z
  .strictObject({
    kind: z.literal('by-wire'),
    ...identityFields,
    fluid: fluidField,
    pedalRatio: amount('Pedal ratio', 'ratio', 1, 10),
    spring_N: amount('Spring of the pedal rod', 'force', 0, 500),
    master_m2: amount('Master cylinder, area', 'area', 5e-5, 2e-3),
    stroke_m: amount('Master cylinder, full stroke', 'travel', 5 * MM, 0.1),
    piston_m2: amount('Piston of the simulator, area', 'area', 5e-5, 2e-3),
    preload_N: amount('Simulator, preload', 'force', 0, 200),
    first_NPerM: amount('Simulator, first spring', 'stiffness', 500, 1e5),
    second_NPerM: amount('Simulator, second spring', 'stiffness', 500, 1e6),
    second_m: amount('Simulator, way at which the second begins', 'travel', 0, 0.05),
    perBar_mPerS2: amount('Deceleration asked for, for each bar', 'acceleration', 0.001, 5),
    perMm_mPerS2: amount('Deceleration asked for, for each millimetre of stroke', 'acceleration', 0.001, 5),
    free_m: amount('Stroke that asks for nothing', 'travel', 0, 0.02),
    from_Pa: amount('Pressure counts from', 'pressure', 0, 100 * BAR),
    alone_Pa: amount('Pressure counts alone from', 'pressure', BAR, 200 * BAR),
    mass_kg: amount('Mass of the vehicle', 'mass', 300, 60_000),
    tyre_m: amount('Radius of the tyre', 'length', 0.15, 0.8),
    frontShare: amount('Part of the torque that the front axle takes', 'percent', 0.3, 0.95),
    driven: z
      .enum(['front', 'rear'])
      .meta({ title: 'Driven axle', labels: { front: 'Front', rear: 'Rear' } }),
    front_NmPerBar: amount('Front axle, torque for each bar', 'torque', 1, 1000),
    rear_NmPerBar: amount('Rear axle, torque for each bar', 'torque', 1, 1000),
    contact_Pa: amount('Pressure that presses nothing yet', 'pressure', 0, 5 * BAR),
    most_Nm: amount('Regeneration, most torque', 'torque', 10, 10_000),
    power_W: amount('Regeneration, most power', 'power', 1000, 1e6),
    fadesTo_mPerS: amount('Regeneration ends below', 'speed', 0, 10),
    fadesFrom_mPerS: amount('Regeneration fades below', 'speed', 0.5, 20),
    shell_m3: amount('Inside of the accumulator', 'volume', 2e-5, 5e-3),
    preCharge_Pa: amount('Pre-charge at 20 °C', 'pressure', 5 * BAR, 150 * BAR),
    in_Pa: amount('Pump started at', 'pressure', 20 * BAR, 250 * BAR),
    out_Pa: amount('Pump stopped at', 'pressure', 30 * BAR, 300 * BAR),
    pump_m3PerS: amount('Pump', 'pumpFlow', 1e-7, 1e-4),
    margin_Pa: amount('Accumulator above every wheel', 'pressure', 0, 40 * BAR),
    zero_A: amount('Valve opens at, with nothing across it', 'current', 0.1, 10),
    perBar_A: amount('Less current for each bar across it', 'current', 1e-4, 0.1),
    most_A: amount('Most current of a valve', 'current', 0.1, 20),
    loop_m3PerSPa: amount('Valve, flow for a pascal off its target', 'conductance', 1e-16, 1e-9),
    joins: z.enum(['front', 'all']).meta({ title: 'Without power the pedal works', labels: JOINS }),
    cutOff_V: amount('Switches off at', 'voltage', 4, 40),
    idle_W: amount('Control unit by itself', 'power', 0.1, 200),
    full_m: amount('Full way of its sensor', 'travel', 5 * MM, 0.1),
    sensor_V: amount('Supply of its sensors', 'voltage', 3, 15),
    table_Pa: column('Sensor table: pressure', 'pressure', 0, 400 * BAR),
    table_V: column('Sensor table: volts', 'voltage', 0, 15),
    band_V: column('Sensor table: band, either way', 'voltage', 1e-3, 1),
    noise_V: amount('Swing of a sensor at rest', 'voltage', 1e-3, 0.5),
    targets_N: z
      .array(amount('Pedal forces at which the wheels are read', 'force', 5, 600))
      .length(2, 'Two pedal forces: a lighter and a heavier one.')
      .meta({ title: 'Pedal forces at which the wheels are read', quantity: 'force' }),
    fallback_N: amount('Pedal force without power', 'force', 50, 800),
    blend_N: amount('Pedal force of the stop that is shared', 'force', 5, 300),
    blend_mPerS: amount('Read as it passes', 'speed', 2, 40),
    limits: z
      .strictObject({
        travel_m: limit('Pedal travel at a force, either way', 'travel', 0.5 * MM, 30 * MM),
        sink_m: limit('Pedal sinks, held, at most', 'travel', 0.2 * MM, 20 * MM),
        masters_Pa: limit('Master sensors apart, at most', 'pressure', 0.2 * BAR, 10 * BAR),
        target_Pa: limit('A wheel off its target, either way', 'pressure', 0.2 * BAR, 10 * BAR),
        released_Pa: limit('Left in a wheel, released, at most', 'pressure', 0.2 * BAR, 5 * BAR),
        current_A: limit('Opening current, either way', 'current', 5e-3, 0.5),
        preCharge_fraction: limit('Pre-charge, either way', 'percent', 0.01, 0.5),
        charge_s: limit('Charge from empty, at most', 'duration', 2, 300),
        switch_Pa: limit('Pump stopped at, either way', 'pressure', BAR, 40 * BAR),
        stand_Pa: limit('Accumulator loses while it stands, at most', 'pressure', BAR, 60 * BAR),
        rest_m: limit('Sensor at rest, either way', 'travel', 0.05 * MM, 3 * MM),
        sum_V: limit('Sum of the tracks against their supply', 'voltage', 0.02, 0.5),
        noise_V: limit('Swing of a sensor at rest, at most', 'voltage', 2e-3, 1),
        granted_fraction: limit('Granted of what is asked for, at least', 'percent', 0.3, 1),
        fallback_fraction: limit('Pressure without power, either way', 'percent', 0.01, 0.5),
      })
      .meta({ title: 'Limits' }),
  })
  .superRefine((p, ctx) => {
    const issue = (path: string, message: string) => ctx.addIssue({ code: 'custom', path: [path], message });
    if (p.preCharge_Pa >= p.in_Pa)
      issue(
        'preCharge_Pa',
        'The pump must start before the fluid is gone: pre-charge below where it starts.',
      );
    if (p.in_Pa >= p.out_Pa) issue('in_Pa', 'The pump must start below where it stops.');
    if (p.from_Pa >= p.alone_Pa) issue('from_Pa', 'Pressure counts before it counts alone.');
    if (p.fadesTo_mPerS >= p.fadesFrom_mPerS)
      issue('fadesTo_mPerS', 'Regeneration ends below the speed from which it fades.');
    if (p.targets_N[0]! >= p.targets_N[1]!) issue('targets_N', 'Write the lighter force first.');
    if (p.zero_A - (p.perBar_A * p.out_Pa) / BAR <= 0)
      issue('perBar_A', 'A valve must not open by itself with the accumulator full across it.');
    if (p.zero_A > p.most_A) issue('most_A', 'The most current must open a valve with nothing across it.');
    if (p.table_Pa.length !== p.table_V.length || p.table_Pa.length !== p.band_V.length)
      issue('table_V', 'The table has as many volts and bands as pressures.');
    else {
      const refused = tableRefused(tableOf(p));
      if (refused) issue('table_V', refused);
    }
  });

export type ByWireProfile = z.infer<typeof byWireProfile>;

/** The table of its sensors of pressure. */
export const tableOf = ({
  sensor_V,
  table_Pa,
  table_V,
  band_V,
}: Pick<ByWireProfile, 'sensor_V' | 'table_Pa' | 'table_V' | 'band_V'>): SensorTable => ({
  supply_V: sensor_V,
  rows: table_Pa.map((pressure_Pa, i) => [pressure_Pa, table_V[i]!, band_V[i]!]),
});
