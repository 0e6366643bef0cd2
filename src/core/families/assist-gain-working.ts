import { z } from 'zod';
import { SEA_LEVEL_PA } from '../air/atmosphere';
import { Plot } from '../plot/plot';
import { vacuumVehicle as vehicle } from './vacuum-vehicle';
import { AT_ONCE, placeOf, readingOf } from '../model/vectors';
import { INHG_PA } from '../quantities/units';
import { axis, steps } from '../plot/axes';
import { defineWorking, field, type Answered } from '../contract/working';

/** As made, without the crack of the check valve, which stands against a foot that presses the booster empty. */
const values = vehicle
  .healthy(vehicle.typical)
  .values.with(placeOf(vehicle.parameters, 'source.crack_Pa'), 0);

const fields = z.strictObject({
  pedal_N: field('Pedal force', 'force', 40, 1000),
  supply_Pa: field('Vacuum at the booster', 'depression', 0, SEA_LEVEL_PA),
});
type Fields = z.infer<typeof fields>;

const pressure_Pa = ({ pedal_N, supply_Pa }: Fields) =>
  readingOf(
    vehicle,
    values,
    { ...AT_ONCE, barometer_Pa: SEA_LEVEL_PA, temperature_K: 293.15, pedal_N, supply_Pa },
    'load.pressure',
  );
const gainAt = (asked: Fields) => pressure_Pa(asked) / pressure_Pa({ ...asked, supply_Pa: 0 });

/** Pressure with assist over that without it, at one pedal force: never the same thing as a boost ratio. */
export const assistGain = defineWorking<Fields>({
  name: 'assist-gain',
  title: 'Assist gain G against pedal force',
  about:
    'Pressure with assist over that without it, at one and the same pedal force, of a booster with typical figures. What the check valve holds back of an unassisted stroke is left out. It is quoted with its force and is no boost ratio B.',
  source: 'The same model that expects, judges and compares',
  input: fields,
  example: { pedal_N: 150, supply_Pa: 19 * INHG_PA },
  compute: (asked): Answered[] => {
    const without = pressure_Pa({ ...asked, supply_Pa: 0 });
    const runout = readingOf(
      vehicle,
      values,
      { ...AT_ONCE, barometer_Pa: SEA_LEVEL_PA, temperature_K: 293.15, ...asked },
      'runoutPedal',
    );
    return [
      { id: 'with_Pa', name: 'With assist', value: pressure_Pa(asked), quantity: 'pressure' },
      { id: 'without_Pa', name: 'Without', value: without, quantity: 'pressure' },
      without > 0
        ? { id: 'gain', name: 'Assist gain G', value: gainAt(asked), quantity: 'ratio' }
        : { id: 'gain', name: 'Assist gain G', text: 'none: without assist nothing is made at this force' },
      { id: 'runout_N', name: 'Runout at the pedal', value: runout, quantity: 'force' },
    ];
  },
  picture: (asked, set) => {
    const x = axis('Pedal force', 'force', set, 50, 600);
    const curve = steps(50, 600).map((pedal_N) => [x.at(pedal_N), gainAt({ ...asked, pedal_N })] as const);
    const plot = new Plot(x, {
      title: 'Assist gain G',
      low: 0,
      high: 1.1 * Math.max(...curve.map(([, g]) => g)),
    });
    plot.line(curve);
    if (asked.pedal_N >= 50 && asked.pedal_N <= 600) plot.point(x.at(asked.pedal_N), gainAt(asked));
    return plot.svg('Assist gain against pedal force: it falls, and beyond runout it falls away');
  },
});
