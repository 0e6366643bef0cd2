import { z } from 'zod';
import { amount, identityFields, limit } from '../profile-fields';

/** A battery, and the capacitor that keeps the brakes alive for some stops once it has gone. SI throughout. Handbook-models 8.9. */
export const capacitorSupplyProfile = z
  .strictObject({
    kind: z.literal('capacitor-supply'),
    ...identityFields,
    battery_V: amount('Battery, with nothing drawn', 'voltage', 6, 60),
    own_Ohm: amount('Resistance of battery and feed', 'resistance', 0.0005, 0.5),
    capacitance_F: amount('Capacitor', 'capacitance', 1e-3, 1000),
    esr_Ohm: amount('Resistance of the capacitor', 'resistance', 0, 0.5),
    bleed_Ohm: amount('What it is discharged through', 'resistance', 0.5, 1e5),
    /** Null where the maker states none: fifteen minutes then. Handbook 2. */
    stated_s: amount('Wait that the maker states', 'duration', 10, 36_000).nullable(),
    least_V: amount('Least volts that the control unit goes on with', 'voltage', 4, 40),
    stop_J: amount('Energy of a stop', 'energy', 1, 1e5),
    stop_A: amount('Current of a stop', 'current', 0, 500),
    standing_W: amount('Standing load', 'power', 0, 200),
    apart_s: amount('From one stop to the next', 'duration', 1, 120),
    limits: z
      .strictObject({
        battery_V: limit('Battery, either way', 'voltage', 0.1, 5),
        capacitance_fraction: limit('Capacitor, either way', 'percent', 0.01, 0.9),
        dip_V: limit('Falls further during a stop than it should, at most', 'voltage', 0.05, 5),
        safe_V: limit('Worked at below', 'voltage', 0.5, 12),
        stops: limit('Stops with the battery off, at least', 'count', 1, 20),
      })
      .meta({ title: 'Limits' }),
  })
  .superRefine((p, ctx) => {
    const issue = (path: (string | number)[], message: string) =>
      ctx.addIssue({ code: 'custom', path, message });
    if (p.least_V + p.stop_A * p.esr_Ohm >= p.battery_V)
      issue(['least_V'], 'A charged capacitor must have more than the control unit needs during a stop.');
    if (p.limits.safe_V.value >= p.least_V)
      issue(['limits', 'safe_V', 'value'], 'It is worked at below what the control unit goes on with.');
    if (!Number.isInteger(p.limits.stops.value))
      issue(['limits', 'stops', 'value'], 'Stops: a whole number.');
  });

export type CapacitorSupplyProfile = z.infer<typeof capacitorSupplyProfile>;
