import { z } from 'zod';
import { SEA_LEVEL_PA, standardPressure_Pa } from '../air/atmosphere';
import { REFERENCE_TEMPERATURE_K } from '../air/leak';
import { pullDown_s, reached_Pa } from '../air/pull-down';
import { Plot } from '../plot/plot';
import { rootOfFalling } from '../numeric/root';
import { INHG_PA } from '../quantities/units';
import { axis, steps } from '../plot/axes';
import { defineWorking, field, type Answered } from '../contract/working';

const fields = z.strictObject({
  volume_m3: field('Volume that is emptied', 'volume', 1e-4, 0.1),
  suction_m3PerS: field('Suction of the pump', 'flow', 5e-5, 0.1),
  floorShare: field('Part of the barometer that it leaves', 'ratio', 0.01, 0.6),
  leak_m3PerSPa: field('Leak', 'conductance', 0, 1e-7),
  depression_Pa: field('Vacuum to be reached', 'depression', 1e3, SEA_LEVEL_PA),
  altitude_m: field('Altitude', 'altitude', -500, 11_000),
});
type Fields = z.infer<typeof fields>;

const HIGHEST_M = 11_000;
const LOWEST_M = -500;
const CLOSE_M = 1;

const pumpAt = (asked: Fields, altitude_m: number) => ({
  ...asked,
  barometer_Pa: standardPressure_Pa(altitude_m),
  temperature_K: REFERENCE_TEMPERATURE_K,
});
/** The deepest vacuum that the pump makes at an altitude. */
const deepest_Pa = (asked: Fields, altitude_m: number): number => {
  const pump = pumpAt(asked, altitude_m);
  return pump.barometer_Pa - reached_Pa(pump);
};

function highest(asked: Fields): Answered {
  const [id, name] = ['reaches_m', 'Reaches it up to'] as const;
  const beyond = (altitude_m: number) => deepest_Pa(asked, altitude_m) - asked.depression_Pa;
  if (beyond(LOWEST_M) < 0)
    return { id, name, text: 'nowhere: with this leak it does not reach that vacuum' };
  if (beyond(HIGHEST_M) > 0) return { id, name, text: 'anywhere' };
  const value = rootOfFalling(beyond, LOWEST_M, HIGHEST_M, CLOSE_M);
  return { id, name, value, quantity: 'altitude' };
}

/** How long a vacuum pump takes to a vacuum, and how high above the sea it still reaches it. */
export const pullDown = defineWorking<Fields>({
  name: 'pull-down',
  title: 'Pull-down and altitude reach of a pump',
  about:
    'How long a vacuum pump takes to a vacuum against a leak, and how high above the sea it still gets there.',
  source: 'Isothermal, the leak choked, ISO 6358; standard atmosphere, ISO 2533',
  input: fields,
  example: {
    volume_m3: 4e-3,
    suction_m3PerS: 5e-4,
    floorShare: 0.15,
    leak_m3PerSPa: 0,
    depression_Pa: 22 * INHG_PA,
    altitude_m: 0,
  },
  compute: (asked) => {
    const time = pullDown_s(asked.depression_Pa, pumpAt(asked, asked.altitude_m));
    return [
      Number.isFinite(time)
        ? { id: 'time_s', name: 'Takes', value: time, quantity: 'duration' }
        : { id: 'time_s', name: 'Takes', text: 'for ever: a pump with a switch never stops here' },
      {
        id: 'deepest_Pa',
        name: 'Deepest vacuum here',
        value: deepest_Pa(asked, asked.altitude_m),
        quantity: 'depression',
      },
      highest(asked),
    ];
  },
  picture: (asked, set) => {
    const most = Math.max(3000, 1.2 * asked.altitude_m);
    const low = Math.min(0, asked.altitude_m);
    const x = axis('Altitude', 'altitude', set, low, most);
    const y = axis('Deepest vacuum', 'depression', set, 0, SEA_LEVEL_PA);
    const plot = new Plot(x, y);
    plot.line(steps(low, most).map((h) => [x.at(h), y.at(Math.max(0, deepest_Pa(asked, h)))] as const));
    plot.line([low, most].map((h) => [x.at(h), y.at(asked.depression_Pa)] as const));
    plot.point(x.at(asked.altitude_m), y.at(Math.max(0, deepest_Pa(asked, asked.altitude_m))));
    return plot.svg('Deepest vacuum that the pump makes, against altitude, and the vacuum to be reached');
  },
});
