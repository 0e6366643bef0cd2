import { z } from 'zod';
import { SEA_LEVEL_PA, standardPressure_Pa } from '../air/atmosphere';
import { seaLevelEquivalent_Pa, SUPPLY_KINDS, supplyHere_Pa } from '../air/supply';
import { INHG_PA } from '../quantities/units';
import { Plot } from '../plot/plot';
import { axis, steps } from '../plot/axes';
import { defineWorking, field } from '../contract/working';

const altitudeFields = z.strictObject({
  altitude_m: field('Altitude', 'altitude', -500, 11_000),
  supply_Pa: field('Supply at sea level', 'depression', 0, SEA_LEVEL_PA),
  kind: z
    .enum(SUPPLY_KINDS)
    .meta({ title: 'Vacuum comes from', labels: { pump: 'a vacuum pump', manifold: 'an engine manifold' } }),
});
const SEA_LEVEL_WORTH = 'Read there, that is worth at sea level';
type AltitudeFields = z.infer<typeof altitudeFields>;

/** The standard barometer at an altitude, and what a supply of the same health makes there. */
export const altitude = defineWorking<AltitudeFields>({
  name: 'altitude',
  title: 'Altitude',
  about: 'The standard barometer at an altitude, and what a supply of the same health makes there.',
  source: 'Standard atmosphere, ISO 2533',
  input: altitudeFields,
  example: { altitude_m: 1600, supply_Pa: 18 * INHG_PA, kind: 'manifold' },
  compute: ({ altitude_m, supply_Pa, kind }) => {
    const barometer_Pa = standardPressure_Pa(altitude_m);
    const here_Pa = supplyHere_Pa(supply_Pa, kind, barometer_Pa);
    const equivalent = seaLevelEquivalent_Pa(here_Pa, kind, barometer_Pa);
    return [
      { id: 'barometer_Pa', name: 'Standard barometer there', value: barometer_Pa, quantity: 'barometer' },
      { id: 'supply_Pa', name: 'The same supply there', value: here_Pa, quantity: 'depression' },
      equivalent === null
        ? { id: 'seaLevel_Pa', name: SEA_LEVEL_WORTH, text: 'nothing: such a supply makes no vacuum there' }
        : { id: 'seaLevel_Pa', name: SEA_LEVEL_WORTH, value: equivalent, quantity: 'depression' },
    ];
  },
  picture: ({ altitude_m, supply_Pa, kind }, set) => {
    const most = Math.max(4000, 1.2 * altitude_m);
    const low = Math.min(0, altitude_m);
    const x = axis('Altitude', 'altitude', set, low, most);
    const y = axis('Supply', 'depression', set, 0, 1.1 * Math.max(supply_Pa, INHG_PA));
    const at = (h: number) => supplyHere_Pa(supply_Pa, kind, standardPressure_Pa(h));
    const plot = new Plot(x, y);
    plot.line(steps(low, most).map((h) => [x.at(h), y.at(at(h))] as const));
    plot.point(x.at(altitude_m), y.at(at(altitude_m)));
    return plot.svg('What a supply of the same health makes, against altitude');
  },
});
