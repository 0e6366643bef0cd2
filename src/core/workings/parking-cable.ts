import { z } from 'zod';
import { cablePull_N } from '../vehicle/cable';
import { Plot } from '../plot/plot';
import { axis, steps } from '../plot/axes';
import { defineWorking, field } from '../contract/working';

const fields = z.strictObject({
  lever_N: field('Pull of the lever on the equaliser', 'force', 10, 5000),
  friction: field('Friction of the cable', 'ratio', 0.01, 1),
  left_rad: field('Bends of the left cable, in all', 'angle', 0, 4 * Math.PI),
  right_rad: field('Bends of the right cable, in all', 'angle', 0, 4 * Math.PI),
});
type Fields = z.infer<typeof fields>;

/** What the equaliser gives each side: it shares the pull, not the travel. */
const side = ({ lever_N, friction }: Fields, bends_rad: number) =>
  cablePull_N({ pull_N: lever_N / 2, friction, bends_rad });

/** What reaches each rear wheel of the parking brake through its cable. */
export const parkingCable = defineWorking<Fields>({
  name: 'parking-cable',
  title: 'Parking brake: what a cable lets through',
  about:
    'The equaliser shares the pull of the lever, not its travel, so unlike wear shows as unlike travel; what a cable loses in its bends shows as unlike pull.',
  source: 'Rope friction: e^(−μθ), θ all bends added',
  input: fields,
  example: { lever_N: 1200, friction: 0.12, left_rad: Math.PI, right_rad: (3 * Math.PI) / 2 },
  compute: (asked) => {
    const [left, right] = [side(asked, asked.left_rad), side(asked, asked.right_rad)];
    return [
      { id: 'left_N', name: 'At the left wheel', value: left, quantity: 'force' },
      { id: 'right_N', name: 'At the right wheel', value: right, quantity: 'force' },
      {
        id: 'weaker',
        name: 'The weaker, as a part of the stronger',
        value: Math.min(left, right) / Math.max(left, right),
        quantity: 'percent',
      },
    ];
  },
  picture: (asked, set) => {
    const x = axis('Bends, in all', 'angle', set, 0, 2 * Math.PI);
    const y = axis('Pull at the wheel', 'force', set, 0, 0.55 * asked.lever_N);
    const plot = new Plot(x, y);
    plot.line(steps(0, 2 * Math.PI).map((bends) => [x.at(bends), y.at(side(asked, bends))] as const));
    for (const bends of [asked.left_rad, asked.right_rad])
      if (bends <= 2 * Math.PI) plot.point(x.at(bends), y.at(side(asked, bends)));
    return plot.svg('Pull that reaches a wheel against the bends of its cable');
  },
});
