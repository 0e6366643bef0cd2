import { z } from 'zod';
import { defineWorking, field } from '../contract/working';
import { fallback_Pa } from '../fluid/by-wire';
import { circle_m2 } from '../numeric/circle';
import { axis, BAR, steps } from '../plot/axes';
import { Plot } from '../plot/plot';

const fields = z.strictObject({
  pedal_N: field('Pedal force', 'force', 10, 2000),
  pedalRatio: field('Pedal ratio', 'ratio', 1, 10),
  spring_N: field('Springs against the rod', 'force', 0, 2000),
  bore_m: field('Bore of the master cylinder', 'travel', 0.01, 0.05),
  stroke_m: field('Its stroke', 'travel', 5e-3, 0.1),
  takeUp_m3: field('Clearances of the wheels that are joined', 'fluidVolume', 0, 50e-6),
  give_m3PerPa: field('Their give', 'volumePerPressure', 1e-14, 1e-11),
});
type Fields = z.infer<typeof fields>;

const reach = (asked: Fields, bore_m = asked.bore_m) =>
  fallback_Pa({ ...asked, master_m2: circle_m2(bore_m) }, asked.pedal_N);

/** What a foot reaches with no power, and whether it runs out of force or of stroke first. */
export const fallbackReach = defineWorking<Fields>({
  name: 'fallback-reach',
  title: 'Power gone: what the foot reaches, by force or by stroke',
  about:
    'Pressure at the wheels that stay joined to the pedal once the power has gone. A small bore makes more of a force and may run out of stroke: both are worked out, the less counts.',
  source: 'Handbook-models 8.9: min((i·F − F_s)/A, (A·stroke − V₀)/c)',
  input: fields,
  example: {
    pedal_N: 500,
    pedalRatio: 4,
    spring_N: 150,
    bore_m: 0.02,
    stroke_m: 0.03,
    takeUp_m3: 2e-6,
    give_m3PerPa: 8e-13,
  },
  compute: (asked) => {
    const { byForce_Pa, byStroke_Pa, at_Pa } = reach(asked);
    return [
      { id: 'at_Pa', name: 'Reached', value: at_Pa, quantity: 'pressure' },
      {
        id: 'ends',
        name: 'It ends with',
        text: byForce_Pa <= byStroke_Pa ? 'the force' : 'the stroke: the pedal goes to its stop',
      },
      { id: 'byForce_Pa', name: 'By force alone', value: byForce_Pa, quantity: 'pressure' },
      { id: 'byStroke_Pa', name: 'By stroke alone', value: byStroke_Pa, quantity: 'pressure' },
    ];
  },
  picture: (asked, set) => {
    const [low, high] = [0.5 * asked.bore_m, 2 * asked.bore_m];
    const bores = steps(low, high, 120);
    const most = Math.max(BAR, ...bores.map((bore_m) => reach(asked, bore_m).at_Pa));
    const x = axis('Bore', 'travel', set, low, high);
    const y = axis('Reached', 'pressure', set, 0, 1.2 * most);
    const plot = new Plot(x, y);
    plot.line(bores.map((bore_m) => [x.at(bore_m), y.at(reach(asked, bore_m).at_Pa)] as const));
    plot.point(x.at(asked.bore_m), y.at(reach(asked).at_Pa));
    return plot.svg('Pressure that a foot reaches with no power, against the bore of the master cylinder');
  },
});
