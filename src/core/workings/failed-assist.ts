import { z } from 'zod';
import { Plot } from '../plot/plot';
import { pressureFor_Pa, unassistedPedal_N } from '../vehicle/brake-force';
import { FAILED_ASSIST, failedAssistLimit_m, stoppingDistance_m } from '../vehicle/stopping';
import { axis, BAR, steps } from '../plot/axes';
import { defineWorking, field } from '../contract/working';

const fields = z.strictObject({
  mass_kg: field('Mass', 'mass', 300, 5000),
  deceleration_mPerS2: field('Deceleration asked for', 'acceleration', 0.5, 9),
  speed_mPerS: field('Speed', 'speed', 5, 60),
  rise_s: field('Rise of the brake', 'duration', 0, 3),
  masterArea_m2: field('Master cylinder area', 'area', 1e-4, 2e-3),
  pedalRatio: field('Pedal ratio', 'ratio', 1, 8),
  spring_N: field('Return spring of the booster', 'force', 0, 600),
  front_NPerBar: field('Front brake force for each bar', 'force', 10, 1000),
  rear_NPerBar: field('Rear brake force for each bar', 'force', 0, 1000),
  split_Pa: field('Pressure at which the rear is held back', 'pressure', BAR, 200 * BAR),
  slope: field('Rear pressure for each front one beyond that', 'ratio', 0.05, 1),
});
type Fields = z.infer<typeof fields>;

const CONTACT_PA = 0.4 * BAR;

const brakesOf = ({ front_NPerBar, rear_NPerBar, split_Pa, slope }: Fields) => ({
  front_NPerPa: front_NPerBar / BAR,
  rear_NPerPa: rear_NPerBar / BAR,
  contact_Pa: CONTACT_PA,
  split_Pa,
  slope,
});
const pedalFor_N = (input: Fields, deceleration_mPerS2: number) =>
  unassistedPedal_N(pressureFor_Pa(brakesOf(input), input.mass_kg * deceleration_mPerS2), input);

/** Pedal force and metres with the assist failed, beside what both main rule families ask of passenger cars. */
export const failedAssist = defineWorking<Fields>({
  name: 'failed-assist',
  title: 'Failed assist',
  about:
    'Pedal force and metres with the assist failed, beside what both main rule families ask of passenger cars: 500 N, 168 m from 100 km/h.',
  source: 'Balance of forces; stopping distance with an even rise',
  input: fields,
  example: {
    mass_kg: 1400,
    deceleration_mPerS2: 2.44,
    speed_mPerS: FAILED_ASSIST.speed_mPerS,
    rise_s: 0.4,
    masterArea_m2: 3.871e-4,
    pedalRatio: 3.6,
    spring_N: 130,
    front_NPerBar: 150,
    rear_NPerBar: 57,
    split_Pa: 30 * BAR,
    slope: 0.4,
  },
  compute: (input) => {
    const { speed_mPerS, deceleration_mPerS2, rise_s } = input;
    const metres = stoppingDistance_m({ speed_mPerS, deceleration_mPerS2, delay_s: 0, rise_s });
    const pressure_Pa = pressureFor_Pa(brakesOf(input), input.mass_kg * deceleration_mPerS2);
    return [
      { id: 'pressure_Pa', name: 'Line pressure', value: pressure_Pa, quantity: 'pressure' },
      {
        id: 'pedal_N',
        name: 'Pedal force',
        value: pedalFor_N(input, deceleration_mPerS2),
        quantity: 'force',
      },
      { id: 'distance_m', name: 'Stopping distance', value: metres, quantity: 'altitude' },
      {
        id: 'limit_m',
        name: 'Asked for at this speed, with 500 N at the pedal',
        value: failedAssistLimit_m(speed_mPerS),
        quantity: 'altitude',
      },
    ];
  },
  picture: (input, set) => {
    const most = Math.max(5, 1.3 * input.deceleration_mPerS2);
    const x = axis('Deceleration', 'acceleration', set, 0, most);
    const y = axis('Pedal force', 'force', set, 0, 1.1 * Math.max(pedalFor_N(input, most), 600));
    const plot = new Plot(x, y);
    plot.line(steps(0, most).map((a) => [x.at(a), y.at(pedalFor_N(input, a))] as const));
    plot.line(
      [0, most].map((a) => [x.at(a), y.at(FAILED_ASSIST.pedal_N)] as const),
      { dashed: true },
    );
    plot.point(x.at(input.deceleration_mPerS2), y.at(pedalFor_N(input, input.deceleration_mPerS2)));
    return plot.svg('Pedal force against deceleration with the assist failed; dashed 500 N');
  },
});
