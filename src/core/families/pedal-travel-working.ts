import { z } from 'zod';
import { SEA_LEVEL_PA } from '../air/atmosphere';
import { Plot } from '../plot/plot';
import { member as brakes } from './wheel-brakes/index';
import { toVector } from '../model/vectors';
import { axis, BAR, steps } from '../plot/axes';
import { defineWorking, field, type Answered } from '../contract/working';

const fields = z.strictObject({
  pressure_Pa: field('Line pressure', 'pressure', 0, 200 * BAR),
  pedalRatio: field('Pedal ratio', 'ratio', 1, 8),
  freeTravel_m: field('Free travel of the pushrod', 'travel', 0, 0.02),
  masterArea_m2: field('Master cylinder area', 'area', 1e-4, 2e-3),
  takeUp_m3: field('Volume that takes up the clearances', 'volume', 0, 2e-5),
  stiffness_m3PerPa: field('Give of calipers, hoses and fluid', 'volumePerPressure', 1e-14, 1e-11),
  air_m3: field('Air in the lines', 'volume', 0, 5e-5),
});
type Fields = z.infer<typeof fields>;

/** The brakes as asked for, as the load of the vehicle twin: nothing holds its rear back here. */
const travel_m = (input: Fields, pressure_Pa: number, air_m3 = input.air_m3): number => {
  const parameters = toVector(brakes.parameters, {
    ...input,
    air_m3,
    bypass_m3PerSPa: 0,
    split_Pa: 0,
    slope: 1,
    rearOpen: 1,
  });
  const standing = brakes.with(parameters, [SEA_LEVEL_PA, 0]);
  return input.pedalRatio * standing.through(0, pressure_Pa * input.masterArea_m2, []);
};

/** How far the pedal goes for a pressure, and what air in the lines adds. */
export const pedalTravel = defineWorking<Fields>({
  name: 'pedal-travel',
  title: 'Pedal travel and air',
  about: 'How far the pedal goes for a line pressure, and what air in the lines adds to it.',
  source: 'V(p) = V₀ + V_air·(1 − p_atm/(p_atm + p)) + c·p',
  input: fields,
  example: {
    pressure_Pa: 60 * BAR,
    pedalRatio: 4.3,
    freeTravel_m: 1.2e-3,
    masterArea_m2: 4.52e-4,
    takeUp_m3: 2.5e-6,
    stiffness_m3PerPa: 7.5e-13,
    air_m3: 4e-6,
  },
  compute: (input): Answered[] => [
    { id: 'travel_m', name: 'Pedal travel', value: travel_m(input, input.pressure_Pa), quantity: 'travel' },
    {
      id: 'airless_m',
      name: 'Without the air',
      value: travel_m(input, input.pressure_Pa, 0),
      quantity: 'travel',
    },
  ],
  picture: (input, set) => {
    const most = Math.max(10 * BAR, 1.3 * input.pressure_Pa);
    const x = axis('Line pressure', 'pressure', set, 0, most);
    const y = axis('Pedal travel', 'travel', set, 0, 1.1 * travel_m(input, most));
    const plot = new Plot(x, y);
    plot.line(
      steps(0, most).map((p) => [x.at(p), y.at(travel_m(input, p, 0))] as const),
      { dashed: true },
    );
    plot.line(steps(0, most).map((p) => [x.at(p), y.at(travel_m(input, p))] as const));
    plot.point(x.at(input.pressure_Pa), y.at(travel_m(input, input.pressure_Pa)));
    return plot.svg('Pedal travel against line pressure: dashed without air');
  },
});
