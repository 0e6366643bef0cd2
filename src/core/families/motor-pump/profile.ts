import { z } from 'zod';
import { amount, identityFields, limit } from '../profile-fields';

const CC = 1e-6;

/** A pump with a direct-current motor and its feed, as a kind. SI throughout. Typical ranges: handbook-models P.4, 8.5. */
export const motorPumpProfile = z.strictObject({
  kind: z.literal('motor-pump'),
  ...identityFields,
  displacement_m3: amount('Given for each turn', 'fluidVolume', 0.01 * CC, 5 * CC),
  leak_m3PerS: amount('Leak of the pump at 100 bar, fluid at 20 °C', 'leakRate', 0, 5e-6),
  efficiency: amount('Efficiency', 'percent', 0.3, 1),
  friction_Nm: amount('Torque of friction', 'torque', 0, 2),
  constant_NmPerA: amount('Torque for each ampere', 'ratio', 0.002, 0.5),
  motor_Ohm: amount('Resistance of the motor', 'resistance', 0.005, 5),
  wiring_Ohm: amount('Resistance of its feed', 'resistance', 0, 1),
  supply_V: amount('Battery while it runs', 'voltage', 6, 60),
  limits: z
    .strictObject({
      supply_V: limit('Battery while it runs, either way', 'voltage', 0.1, 5),
      friction_fraction: limit('Friction of the motor, either way', 'percent', 0.01, 0.9),
      leak_fraction: limit('Leak of the pump, either way', 'percent', 0.01, 0.9),
      drop_V: limit('Lost in the feed while it runs, at most', 'voltage', 0.05, 3),
    })
    .meta({ title: 'Limits' }),
});

export type MotorPumpProfile = z.infer<typeof motorPumpProfile>;
