import { z } from 'zod';
import { defineWorking, field } from '../contract/working';
import { holdingPower_W, motorLimit_A, terminals_V } from '../electric/feed';
import { heldBy_A, motorOutput_N, motorRunout_N, unpowered_Pa } from '../electric/motor-booster';
import { axis, steps } from '../plot/axes';
import { Plot } from '../plot/plot';

const fields = z
  .strictObject({
    input_N: field('Force at the booster’s rod', 'force', 0, 5000),
    spring_N: field('Return spring', 'force', 0, 1000),
    friction_N: field('Friction of gear and seals', 'force', 0, 500),
    crack_N: field('Begins to help at', 'force', 0, 500),
    jump_N: field('Output that comes at once then', 'force', 0, 2000),
    gain: field('Output for each newton beyond', 'ratio', 1.1, 15),
    perAmpere_N: field('Force for each ampere in the motor', 'force', 1, 500),
    limit_N: field('Most assist', 'force', 100, 20_000),
    master_m2: field('Area of the master cylinder', 'area', 5e-5, 5e-3),
    battery_V: field('Battery, with nothing drawn', 'voltage', 6, 60),
    feed_Ohm: field('Battery, feed and earth together', 'resistance', 0, 1),
    winding_Ohm: field('Winding of the motor', 'resistance', 0.005, 5),
    idle_W: field('Control unit by itself', 'power', 0, 200),
    limit_A: field('Most current in the motor', 'current', 1, 500),
    cutOff_V: field('Switches off at', 'voltage', 3, 60),
  })
  .refine(({ cutOff_V, battery_V }) => cutOff_V >= battery_V / 2, {
    path: ['cutOff_V'],
    message: 'Switches off at: it must be at least half of what the battery stands at.',
  });
type Fields = z.infer<typeof fields>;

const most_A = (asked: Fields) => motorLimit_A(asked, asked, asked.battery_V, asked.feed_Ohm);

/** What a booster with a motor makes of a force, the current that holds it, and what is left with no power. */
export const motorBooster = defineWorking<Fields>({
  name: 'motor-booster',
  title: 'Electromechanical booster: current against force',
  about:
    'What it makes of a force at its rod, and the current that holds that. The motor’s current goes with the force, that of the feed with its square. Dashed: with the power off.',
  source: 'Handbook-models 8.8: a motor beside the rod, its map, and a feed with resistance',
  input: fields,
  example: {
    input_N: 600,
    spring_N: 80,
    friction_N: 60,
    crack_N: 30,
    jump_N: 120,
    gain: 5,
    perAmpere_N: 60,
    limit_N: 3600,
    master_m2: 3.88e-4,
    battery_V: 12.6,
    feed_Ohm: 0.02,
    winding_Ohm: 0.09,
    idle_W: 8,
    limit_A: 60,
    cutOff_V: 9.5,
  },
  compute: (asked) => {
    const output_N = motorOutput_N(asked, asked.input_N, most_A(asked));
    const current_A = heldBy_A(asked, asked.input_N, output_N);
    const power_W = holdingPower_W(asked, current_A);
    const at_V = terminals_V(asked.battery_V, asked.feed_Ohm, power_W);
    return [
      { id: 'output_N', name: 'Force on the master', value: output_N, quantity: 'force' },
      { id: 'output_Pa', name: 'Pressure', value: output_N / asked.master_m2, quantity: 'pressure' },
      { id: 'current_A', name: 'Held by, in the motor', value: current_A, quantity: 'current' },
      ...(at_V === null
        ? []
        : ([{ id: 'feed_A', name: 'In the feed', value: power_W / at_V, quantity: 'current' }] as const)),
      {
        id: 'runout_N',
        name: 'No more assist above',
        value: motorRunout_N(asked, most_A(asked)),
        quantity: 'force',
      },
      {
        id: 'unpowered_Pa',
        name: 'The same force with the power off',
        value: unpowered_Pa(asked, asked, asked.input_N),
        quantity: 'pressure',
      },
    ];
  },
  picture: (asked, set) => {
    const upTo_N = Math.max(1.2 * asked.input_N, 1.4 * motorRunout_N(asked, most_A(asked)));
    const powered = (input_N: number) => motorOutput_N(asked, input_N, most_A(asked)) / asked.master_m2;
    const x = axis('Force at the rod', 'force', set, 0, upTo_N);
    const y = axis('Pressure', 'pressure', set, 0, 1.1 * powered(upTo_N));
    const plot = new Plot(x, y);
    plot.line(
      steps(0, upTo_N).map((input_N) => [x.at(input_N), y.at(unpowered_Pa(asked, asked, input_N))] as const),
      { dashed: true },
    );
    plot.line(steps(0, upTo_N, 200).map((input_N) => [x.at(input_N), y.at(powered(input_N))] as const));
    plot.point(x.at(asked.input_N), y.at(powered(asked.input_N)));
    return plot.svg('Pressure against the force at the rod, with the motor and, dashed, with the power off');
  },
});
