import { z } from 'zod';
import { SEA_LEVEL_PA } from '../air/atmosphere';
import { pushingArea_m2 } from '../air/diaphragm';
import { Plot } from '../plot/plot';
import { vacuumVehicle as vehicle } from './vacuum-vehicle';
import { AT_ONCE, placeOf, readingOf } from '../model/vectors';
import { INHG_PA } from '../quantities/units';
import { axis, BAR, steps } from '../plot/axes';
import { defineWorking, field } from '../contract/working';

const { values } = vehicle.healthy(vehicle.typical);
const masterArea_m2 = values[placeOf(vehicle.parameters, 'load.masterArea_m2')]!;

const fields = z
  .strictObject({
    with_Pa: field('Pressure with assist', 'pressure', 0, 200 * BAR),
    without_Pa: field('Pressure without, at the same force', 'pressure', 0, 200 * BAR),
    vacuum_Pa: field('Vacuum at the booster, while held', 'depression', 5e3, SEA_LEVEL_PA),
    bore_m: field('Master cylinder bore', 'length', 0.012, 0.05),
    pedal_N: field('Pedal force of both', 'force', 20, 1000),
  })
  .refine((f) => f.without_Pa < f.with_Pa, {
    path: ['without_Pa'],
    message: 'Pressure without: with assist there must be more.',
  });
type Fields = z.infer<typeof fields>;

const area_m2 = ({ with_Pa, without_Pa, vacuum_Pa, bore_m }: Fields) =>
  pushingArea_m2({ with_Pa, without_Pa, vacuum_Pa, masterArea_m2: (Math.PI * bore_m ** 2) / 4 });

/** What two readings of a typical booster at a force would give for its area. */
function apparent_m2(pedal_N: number, vacuum_Pa: number): number {
  const read = (supply_Pa: number, id = 'load.pressure') =>
    readingOf(
      vehicle,
      values,
      { ...AT_ONCE, barometer_Pa: SEA_LEVEL_PA, temperature_K: 293.15, pedal_N, supply_Pa },
      id,
    );
  return pushingArea_m2({ with_Pa: read(vacuum_Pa), without_Pa: read(0), vacuum_Pa, masterArea_m2 });
}

/** The diaphragm's area from two pressures at one pedal force: true beyond runout only, below it no more than a lower bound. */
export const effectiveAreaWorking = defineWorking<Fields>({
  name: 'effective-area',
  title: 'Effective area from two pressures',
  about:
    'Spring and friction are in both pressures and cancel. Only beyond runout does all of the vacuum work: below it the figure is a lower bound, so press harder until it grows no more.',
  source: 'Balance of forces on diaphragm and master cylinder',
  input: fields,
  example: {
    with_Pa: 78.3 * BAR,
    without_Pa: 24.5 * BAR,
    vacuum_Pa: 19 * INHG_PA,
    bore_m: 0.0222,
    pedal_N: 300,
  },
  compute: (asked) => [
    { id: 'area_m2', name: 'Effective area, at least', value: area_m2(asked), quantity: 'area' },
    {
      id: 'assist_N',
      name: 'Assist that it makes',
      value: area_m2(asked) * asked.vacuum_Pa,
      quantity: 'force',
    },
  ],
  picture: (asked, set) => {
    const x = axis('Pedal force', 'force', set, 50, 600);
    const curve = steps(50, 600).map((pedal_N) => [pedal_N, apparent_m2(pedal_N, asked.vacuum_Pa)] as const);
    const most_m2 = 1.2 * Math.max(area_m2(asked), ...curve.map(([, found]) => found));
    const y = axis('Area found', 'area', set, 0, most_m2);
    const plot = new Plot(x, y);
    plot.line(curve.map(([pedal_N, found]) => [x.at(pedal_N), y.at(found)] as const));
    plot.point(x.at(Math.min(600, Math.max(50, asked.pedal_N))), y.at(area_m2(asked)));
    return plot.svg(
      'Area found from two pressures of a typical booster against pedal force: level beyond runout',
    );
  },
});
