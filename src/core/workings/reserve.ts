import { z } from 'zod';
import { SEA_LEVEL_PA } from '../air/atmosphere';
import { depressionAtStroke_Pa, reserveSeries_Pa } from '../air/reserve';
import { INHG_PA } from '../quantities/units';
import { Plot } from '../plot/plot';
import { axis } from '../plot/axes';
import { defineWorking, field } from '../contract/working';

const reserveFields = z
  .strictObject({
    supply_Pa: field('Depression as the source stops', 'depression', INHG_PA, SEA_LEVEL_PA),
    front_m3: field('Front volume at rest', 'volume', 1e-4, 0.1),
    rear_m3: field('Rear volume at rest', 'volume', 0, 0.1),
    area_m2: field('Effective area', 'area', 1e-3, 0.3),
    stroke_m: field('Stroke', 'length', 0.001, 0.2),
    tank_m3: field('Tank', 'volume', 0, 0.1),
    barometer_Pa: field('Barometer', 'barometer', 30_000, 110_000),
  })
  .refine(({ supply_Pa, barometer_Pa }) => supply_Pa <= barometer_Pa, {
    path: ['supply_Pa'],
    message: 'Depression as the source stops: no vacuum is deeper than the barometer.',
  });
type ReserveFields = z.infer<typeof reserveFields>;

const strokes = ({ supply_Pa, barometer_Pa, ...unit }: ReserveFields) =>
  reserveSeries_Pa(supply_Pa, unit, barometer_Pa);

/** How much vacuum is left after each full application once the source has stopped. */
export const reserve = defineWorking<ReserveFields>({
  name: 'reserve',
  title: 'Reserve',
  about: 'How much vacuum is left after each full application once the source has stopped.',
  source: 'Boyle and Mariotte, stroke after stroke',
  input: reserveFields,
  example: {
    supply_Pa: 20 * INHG_PA,
    front_m3: 4e-3,
    rear_m3: 0.3e-3,
    area_m2: 0.04,
    stroke_m: 0.015,
    tank_m3: 0,
    barometer_Pa: SEA_LEVEL_PA,
  },
  compute: (input) => [
    ...strokes(input).map((value, i) => ({
      id: `after${i + 1}_Pa`,
      name: `After application ${i + 1}`,
      value,
      quantity: 'depression' as const,
    })),
    {
      id: 'held_Pa',
      name: 'Behind the first, while it stands',
      value: depressionAtStroke_Pa(input.supply_Pa, input, input.barometer_Pa),
      quantity: 'depression',
    },
  ],
  picture: (input, set) => {
    const all = [input.supply_Pa, ...strokes(input)];
    const y = axis('Depression left', 'depression', set, 0, 1.1 * input.supply_Pa);
    const plot = new Plot({ title: 'Applications', low: 0, high: Math.max(4, all.length - 1) }, y);
    plot.line(all.map((value, i) => [i, y.at(value)] as const));
    all.forEach((value, i) => plot.point(i, y.at(value)));
    return plot.svg('Depression left after each application');
  },
});
