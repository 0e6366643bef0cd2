import { z } from 'zod';
import { amount, identityFields, limit } from '../profile-fields';

/** A battery with the feed and the earth of a motor, as a kind. SI throughout. Typical ranges: handbook-models 8.8. */
export const batterySupplyProfile = z.strictObject({
  kind: z.literal('battery-supply'),
  ...identityFields,
  battery_V: amount('Battery, with nothing drawn', 'voltage', 6, 60),
  own_Ohm: amount('Resistance of the battery', 'resistance', 0, 0.5),
  feed_Ohm: amount('Resistance of the feed', 'resistance', 0, 0.5),
  earth_Ohm: amount('Resistance of the earth', 'resistance', 0, 0.5),
  hold_N: amount('Pedal force under which feed and earth are read', 'force', 50, 600),
  limits: z
    .strictObject({
      battery_V: limit('Battery, either way', 'voltage', 0.1, 5),
      feed_V: limit('Lost in the feed under hold, at most', 'voltage', 0.02, 3),
      earth_V: limit('Lost in the earth under hold, at most', 'voltage', 0.02, 3),
    })
    .meta({ title: 'Limits' }),
});

export type BatterySupplyProfile = z.infer<typeof batterySupplyProfile>;
