import { z } from 'zod';
import { amount, identityFields, limit } from '../profile-fields';

const BAR = 1e5;
const CC = 1e-6;
const L_PER_MIN = 1e-3 / 60;

/** A steering pump with its belt, flow control and relief, as a kind. SI throughout. Typical ranges: handbook-models P.3, 8.4. */
export const steeringPumpProfile = z.strictObject({
  kind: z.literal('steering-pump'),
  ...identityFields,
  displacement_m3: amount('Given for each turn', 'fluidVolume', CC, 60 * CC),
  idle_PerS: amount('Turns of the pump at idle', 'rotation', 2, 60),
  control_m3PerS: amount('Flow control', 'flow', 2 * L_PER_MIN, 30 * L_PER_MIN),
  leak_m3PerS: amount('Leak of the pump at 100 bar, fluid at 80 °C', 'flow', 0, 10 * L_PER_MIN),
  relief_Pa: amount('Relief', 'pressure', 30 * BAR, 250 * BAR),
  efficiency: amount('Efficiency', 'percent', 0.3, 1),
  belt_Nm: amount('Torque at which the belt slips', 'torque', 2, 200),
  limits: z
    .strictObject({
      flow_fraction: limit('Flow at 50 bar, either way', 'percent', 0.01, 0.5),
      relief_Pa: limit('Shut-off pressure, either way', 'pressure', BAR, 40 * BAR),
      leak_fraction: limit('Leak of the pump, either way', 'percent', 0.01, 0.95),
    })
    .meta({ title: 'Limits' }),
});

export type SteeringPumpProfile = z.infer<typeof steeringPumpProfile>;
