import { z } from 'zod';
import { defineWorking, field } from '../contract/working';
import { holdingPower_W, motorLimit_A, runResistance_Ohm, terminals_V } from '../electric/feed';
import { axis, steps } from '../plot/axes';
import { Plot } from '../plot/plot';

const fields = z
  .strictObject({
    battery_V: field('Battery, with nothing drawn', 'voltage', 6, 60),
    rest_Ohm: field('Battery, connections and earth together', 'resistance', 0, 1),
    length_m: field('Run of the feed, one way', 'length', 0.1, 30),
    wire_m2: field('Copper of the feed', 'wireSection', 0.2e-6, 200e-6),
    winding_Ohm: field('Winding of the motor', 'resistance', 0.005, 5),
    idle_W: field('Control unit by itself', 'power', 0, 200),
    current_A: field('Current held in the motor', 'current', 0, 500),
    limit_A: field('Most current in the motor', 'current', 1, 500),
    cutOff_V: field('Switches off at', 'voltage', 3, 60),
  })
  .refine(({ cutOff_V, battery_V }) => cutOff_V >= battery_V / 2, {
    path: ['cutOff_V'],
    message: 'Switches off at: it must be at least half of what the battery stands at.',
  })
  .refine(({ current_A, limit_A }) => current_A <= limit_A, {
    path: ['current_A'],
    message: 'Current held in the motor: it cannot be above the most current in the motor.',
  });
type Fields = z.infer<typeof fields>;

const feed_Ohm = ({ rest_Ohm, length_m, wire_m2 }: Fields) => rest_Ohm + runResistance_Ohm(length_m, wire_m2);
const most_A = (asked: Fields) => motorLimit_A(asked, asked, asked.battery_V, feed_Ohm(asked));

/** What is lost in a feed on the way to a motor that is held, and how much of the motor that leaves. */
export const feedDrop = defineWorking<Fields>({
  name: 'feed-drop',
  title: 'Volt drop of a motor’s feed',
  about:
    'What is lost on the way to a motor that holds a force, and the most that it can hold. Resistance takes away the most of it, never the gain before.',
  source: 'Load of constant power behind a resistance; copper by IEC 60028, there and back',
  input: fields,
  example: {
    battery_V: 12.6,
    rest_Ohm: 0.012,
    length_m: 2.8,
    wire_m2: 12e-6,
    winding_Ohm: 0.09,
    idle_W: 8,
    current_A: 50,
    limit_A: 60,
    cutOff_V: 9.5,
  },
  compute: (asked) => {
    const { battery_V, current_A } = asked;
    const power_W = holdingPower_W(asked, current_A);
    const at_V = terminals_V(battery_V, feed_Ohm(asked), power_W);
    const most = {
      id: 'most_A',
      name: 'Most that it can hold',
      value: most_A(asked),
      quantity: 'current',
    } as const;
    const feed = {
      id: 'feed_Ohm',
      name: 'Whole feed',
      value: feed_Ohm(asked),
      quantity: 'resistance',
    } as const;
    if (at_V === null || at_V < asked.cutOff_V)
      return [
        feed,
        {
          id: 'holds',
          name: 'Held',
          text: 'It switches off: the feed leaves it too little at this current.',
        },
        most,
      ];
    return [
      feed,
      { id: 'terminals_V', name: 'At the motor’s control unit', value: at_V, quantity: 'voltage' },
      { id: 'drop_V', name: 'Lost on the way', value: battery_V - at_V, quantity: 'voltage' },
      { id: 'feed_A', name: 'Current in the feed', value: power_W / at_V, quantity: 'current' },
      most,
    ];
  },
  picture: (asked, set) => {
    const upTo_A = Math.min(asked.limit_A, most_A(asked));
    const volts = (current_A: number) =>
      terminals_V(asked.battery_V, feed_Ohm(asked), holdingPower_W(asked, current_A)) ?? asked.cutOff_V;
    const x = axis('Current in the motor', 'current', set, 0, 1.05 * asked.limit_A);
    const y = axis('At its control unit', 'voltage', set, 0.9 * asked.cutOff_V, 1.02 * asked.battery_V);
    const plot = new Plot(x, y);
    plot.line(
      [0, asked.limit_A].map((current_A) => [x.at(current_A), y.at(asked.cutOff_V)] as const),
      { dashed: true },
    );
    plot.line(steps(0, upTo_A).map((current_A) => [x.at(current_A), y.at(volts(current_A))] as const));
    if (asked.current_A <= upTo_A) plot.point(x.at(asked.current_A), y.at(volts(asked.current_A)));
    return plot.svg('Volts at a motor’s control unit against the current held, and where it switches off');
  },
});
