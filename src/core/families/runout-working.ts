import { z } from 'zod';
import { SEA_LEVEL_PA } from '../air/atmosphere';
import { remoteVacuum as remote } from './remote-vacuum/index';
import { AT_ONCE, inputVector, placeOf } from '../model/vectors';
import { INHG_PA } from '../quantities/units';
import { Plot } from '../plot/plot';
import { axis, BAR, steps } from '../plot/axes';
import { defineWorking, field } from '../contract/working';

const remoteBody = remote.typical as Record<string, unknown>;
const remoteFields = z.strictObject({
  effectiveDiameter_m: field('Effective diaphragm diameter', 'length', 0.05, 0.6),
  slaveBore_m: field('Slave bore', 'length', 0.008, 0.06),
  rodDiameter_m: field('Push rod diameter', 'length', 0.001, 0.03),
  spring_N: field('Spring force', 'force', 0, 2000),
  boostRatio: field('Boost ratio B', 'ratio', 1.05, 10),
  crack_Pa: field('Crack', 'pressure', 0, 20 * BAR),
  input_Pa: field('Input', 'pressure', 0, 200 * BAR),
  supply_Pa: field('Supply', 'depression', 0, 101_325),
});
type RemoteFields = z.infer<typeof remoteFields>;

/** Readings of a healthy unit of these dimensions, by the family's own twin. */
function remoteReadings({ input_Pa, supply_Pa, ...size }: RemoteFields) {
  const { values } = remote.healthy({ ...remoteBody, ...size, jumpIn_Pa: null });
  const known = { input_Pa, supply_Pa, barometer_Pa: SEA_LEVEL_PA, temperature_K: 293.15, ...AT_ONCE };
  const readings = remote.steady(values, inputVector(remote.inputs, known));
  return (id: string) => readings[placeOf(remote.readings, id)]!;
}

/** Where a remote vacuum unit runs out of assist on the supply it is given, and what it puts out at an input. */
export const runout = defineWorking<RemoteFields>({
  name: 'runout-against-supply',
  title: 'Runout against supply',
  about:
    'Where a remote vacuum unit runs out of assist on the supply it is given, and what it puts out at an input.',
  source: 'Balance of forces on diaphragm and slave piston',
  input: remoteFields,
  example: {
    effectiveDiameter_m: 0.23,
    slaveBore_m: 0.0206,
    rodDiameter_m: 0.006,
    spring_N: 110,
    boostRatio: 3.6,
    crack_Pa: 3 * BAR,
    input_Pa: 28 * BAR,
    supply_Pa: 15 * INHG_PA,
  },
  compute: (input) => {
    const read = remoteReadings(input);
    return [
      { id: 'output_Pa', name: 'Output at the input', value: read('output'), quantity: 'pressure' },
      { id: 'runoutInput_Pa', name: 'Runout input', value: read('runoutInput'), quantity: 'pressure' },
      { id: 'runoutOutput_Pa', name: 'Runout output', value: read('runoutOutput'), quantity: 'pressure' },
    ];
  },
  picture: (input, set) => {
    const most = Math.max(
      1.6 * remoteReadings({ ...input, supply_Pa: 24 * INHG_PA })('runoutInput'),
      1.1 * input.input_Pa,
    );
    const curve = steps(0, most).map(
      (x) => [x, remoteReadings({ ...input, input_Pa: x })('output')] as const,
    );
    const x = axis('Input', 'pressure', set, 0, most);
    const y = axis('Output', 'pressure', set, 0, 1.1 * Math.max(...curve.map(([, out]) => out), BAR));
    const plot = new Plot(x, y);
    plot.line(curve.map(([a, b]) => [x.at(a), y.at(b)]));
    const read = remoteReadings(input);
    plot.mark(x.at(read('runoutInput')), 'runout');
    plot.point(x.at(input.input_Pa), y.at(read('output')));
    return plot.svg('Output against input on this supply');
  },
});
