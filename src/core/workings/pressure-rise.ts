import { z } from 'zod';
import { defineWorking, field } from '../contract/working';
import { riseTime_s } from '../fluid/by-wire';
import { axis, BAR, steps } from '../plot/axes';
import { Plot } from '../plot/plot';
import { stoppingDistance_m } from '../vehicle/stopping';

/** A difference at which the flow of a valve is named, Pa. */
const NAMED_AT_PA = 100 * BAR;
/** What rises evenly is between 10 and 90 % for so much of its rise. */
const MIDDLE = 0.8;

const fields = z
  .strictObject({
    accumulator_Pa: field('Accumulator', 'pressure', 20 * BAR, 300 * BAR),
    wheel_Pa: field('Pressure asked for at the wheel', 'pressure', 5 * BAR, 250 * BAR),
    give_m3PerPa: field('Give of the wheel’s brake', 'volumePerPressure', 1e-14, 1e-11),
    flow_m3PerS: field('Flow of the apply valve at a difference of 100 bar', 'flow', 1e-6, 1e-3),
    delay_s: field('Until the pressure begins', 'duration', 0, 2),
    speed_mPerS: field('Speed', 'speed', 2, 70),
    deceleration_mPerS2: field('Deceleration that it comes to', 'acceleration', 0.5, 12),
  })
  .refine(({ accumulator_Pa, wheel_Pa }) => accumulator_Pa > wheel_Pa, {
    path: ['accumulator_Pa'],
    message: 'Accumulator: it must stand above what is asked for at the wheel.',
  });
type Fields = z.infer<typeof fields>;

const rise_s = (asked: Fields, accumulator_Pa = asked.accumulator_Pa) =>
  riseTime_s(accumulator_Pa, asked.wheel_Pa, asked.give_m3PerPa, asked.flow_m3PerS / Math.sqrt(NAMED_AT_PA));
const stop_m = (asked: Fields, all_s: number, delay_s = asked.delay_s) =>
  stoppingDistance_m({ ...asked, delay_s, rise_s: all_s });

/** How quickly a wheel has its pressure, and what that is in metres of a stop. */
export const pressureRise = defineWorking<Fields>({
  name: 'pressure-rise',
  title: 'Pressure rise at a wheel, in metres of a stop',
  about:
    'Time in which a wheel comes from 10 to 90 % of its pressure out of the accumulator, and the way that delay and rise add to a stop. The lower the accumulator stands above the wheel, the longer it takes.',
  source: 'Flow through a valve by the root of the difference; s = v·(t_d + t_r/2) + v²/2a − a·t_r²/24',
  input: fields,
  example: {
    accumulator_Pa: 165 * BAR,
    wheel_Pa: 80 * BAR,
    give_m3PerPa: 2e-13,
    flow_m3PerS: 3.8e-5,
    delay_s: 0.05,
    speed_mPerS: 100 / 3.6,
    deceleration_mPerS2: 8,
  },
  compute: (asked) => {
    const middle_s = rise_s(asked);
    const whole_m = stop_m(asked, middle_s / MIDDLE);
    const added_m = whole_m - stop_m(asked, 0, 0);
    return [
      { id: 'rise', name: 'From 10 to 90 %', text: `${Math.round(1000 * middle_s)} ms` },
      { id: 'stop_m', name: 'The whole stop', value: whole_m, quantity: 'altitude' },
      { id: 'added_m', name: 'Of it by delay and rise', value: added_m, quantity: 'altitude' },
    ];
  },
  picture: (asked, set) => {
    const [low, high] = [1.02 * asked.wheel_Pa, Math.max(1.3 * asked.accumulator_Pa, 1.5 * asked.wheel_Pa)];
    const x = axis('Accumulator', 'pressure', set, low, high);
    const y = axis('From 10 to 90 %', 'duration', set, 0, 1.1 * rise_s(asked, low));
    const plot = new Plot(x, y);
    plot.line(steps(low, high).map((pressure) => [x.at(pressure), y.at(rise_s(asked, pressure))] as const));
    plot.point(x.at(asked.accumulator_Pa), y.at(rise_s(asked)));
    return plot.svg('Time in which a wheel has its pressure, against the pressure of the accumulator');
  },
});
