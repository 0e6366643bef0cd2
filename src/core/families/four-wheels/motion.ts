import { brakeGive_m3PerPa } from '../../fluid/closed-line';
import type { Port } from '../../contract/family';
import { inputAt, type Motion } from '../../model/motion';
import { WHEELS } from '../wheel-lines';
import { lineOf, named } from './member';

/** The brakes over time: how much each line gives, and what a gauge on it shows. */
export const motionOn = (ports: readonly Port[]): Motion => ({
  states: [],
  commands: [],
  owns: [],
  with: (vector, { nodes, inputs }) => {
    const p = named(vector);
    const barometer_Pa = inputAt({ inputs }, 'barometer_Pa');
    const places = WHEELS.map(({ port }) => ports.findIndex(({ id }) => id === port));
    WHEELS.forEach((_, i) => {
      const line = lineOf(p, i);
      nodes[i]!.give = (pressure_Pa) => brakeGive_m3PerPa(line, pressure_Pa, barometer_Pa);
    });
    return {
      atRest: () => [],
      shown: (_y, _at, shown) => {
        places.forEach((place, i) => {
          shown[place] = nodes[i]!.effort;
        });
      },
    };
  },
});
