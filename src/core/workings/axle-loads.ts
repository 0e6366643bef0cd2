import { z } from 'zod';
import { Plot } from '../plot/plot';
import { axleLoads_N, locksFirst } from '../vehicle/axle-loads';
import { axleForces_N } from '../vehicle/brake-force';
import { axis, BAR, steps } from '../plot/axes';
import { defineWorking, field, type Answered } from '../contract/working';

const fields = z.strictObject({
  mass_kg: field('Mass', 'mass', 300, 5000),
  wheelbase_m: field('Wheelbase', 'length', 1, 6),
  behindFront_m: field('Centre of mass behind the front axle', 'length', 0.2, 5),
  height_m: field('Height of the centre of mass', 'length', 0.1, 2.5),
  grip: field('Grip of the tyres', 'ratio', 0.05, 1.3),
  front_NPerBar: field('Front brake force for each bar', 'force', 10, 1000),
  rear_NPerBar: field('Rear brake force for each bar', 'force', 1, 1000),
  split_Pa: field('Pressure at which the rear is held back', 'pressure', BAR, 300 * BAR),
  slope: field('Rear pressure for each front one beyond that', 'ratio', 0.05, 1),
});
type Fields = z.infer<typeof fields>;

const MOST_PA = 250 * BAR;
const brakesOf = ({ front_NPerBar, rear_NPerBar, split_Pa, slope }: Fields) => ({
  front_NPerPa: front_NPerBar / BAR,
  rear_NPerPa: rear_NPerBar / BAR,
  contact_Pa: 0.4 * BAR,
  split_Pa,
  slope,
});

/** Which axle locks first, and what each carries as it does. */
export const axleLoads = defineWorking<Fields>({
  name: 'axle-loads',
  title: 'Axle loads and locking',
  about:
    'Which axle locks first on a road of this grip, at what pressure and deceleration, and what each axle carries then.',
  source: 'Balance of moments; grip for each axle by itself',
  input: fields,
  example: {
    mass_kg: 1400,
    wheelbase_m: 2.6,
    behindFront_m: 1.1,
    height_m: 0.55,
    grip: 0.9,
    front_NPerBar: 150,
    rear_NPerBar: 57,
    split_Pa: 30 * BAR,
    slope: 0.4,
  },
  compute: (input): Answered[] => {
    const locks = locksFirst(input, brakesOf(input), input.grip, MOST_PA);
    if (!locks) return [{ id: 'axle', name: 'Locks first', text: 'neither, up to 250 bar' }];
    const loads = axleLoads_N(input, locks.deceleration_mPerS2);
    return [
      { id: 'axle', name: 'Locks first', text: locks.axle },
      { id: 'pressure_Pa', name: 'At a line pressure of', value: locks.pressure_Pa, quantity: 'pressure' },
      {
        id: 'deceleration_mPerS2',
        name: 'At a deceleration of',
        value: locks.deceleration_mPerS2,
        quantity: 'acceleration',
      },
      { id: 'front_N', name: 'Front axle carries', value: loads.front_N, quantity: 'force' },
      { id: 'rear_N', name: 'Rear axle carries', value: loads.rear_N, quantity: 'force' },
    ];
  },
  picture: (input, set) => {
    const locks = locksFirst(input, brakesOf(input), input.grip, MOST_PA);
    const most = 1.3 * (locks?.pressure_Pa ?? 100 * BAR);
    const used = (pressure_Pa: number) => {
      const { front_N, rear_N } = axleForces_N(brakesOf(input), pressure_Pa);
      const loads = axleLoads_N(input, (front_N + rear_N) / input.mass_kg);
      return [front_N / loads.front_N, rear_N / Math.max(1, loads.rear_N)] as const;
    };
    const x = axis('Line pressure', 'pressure', set, 0, most);
    const high = 1.2 * Math.max(input.grip, ...used(most).map((one) => Math.min(one, 1.5)));
    const plot = new Plot(x, { title: 'Grip used', low: 0, high });
    const curve = (axle: 0 | 1) =>
      steps(0, most).map((p) => [x.at(p), Math.min(high, used(p)[axle])] as const);
    plot.line(curve(0));
    plot.line(curve(1), { dashed: true });
    plot.line([
      [x.at(0), input.grip],
      [x.at(most), input.grip],
    ]);
    return plot.svg(
      'Grip used against line pressure: drawn out the front axle, dashed the rear; the level is what the road gives',
    );
  },
});
