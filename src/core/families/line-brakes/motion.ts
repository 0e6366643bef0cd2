import { brakeGive_m3PerPa } from '../../fluid/closed-line';
import type { Port } from '../../contract/family';
import { inputAt, type Motion } from '../../model/motion';
import { FEEL, feelWay_m, FRONT, lineOf, named, REAR } from './member';

/** The brakes over time: how much each line gives; the small master stands where the foot has it. */
export const motionOn = (ports: readonly Port[]): Motion => ({
  states: [],
  commands: [],
  owns: [],
  with: (vector, { nodes, inputs }) => {
    const p = named(vector);
    const barometer_Pa = inputAt({ inputs }, 'barometer_Pa');
    const travel = ports.findIndex(({ id }) => id === 'travel');
    for (const terminal of [FRONT, REAR]) {
      const line = lineOf(p, terminal!);
      nodes[terminal!]!.give = (pressure_Pa) => brakeGive_m3PerPa(line, pressure_Pa, barometer_Pa);
    }
    return {
      atRest: () => [],
      shown: (_y, _at, shown) => {
        shown[travel] = p.pedalRatio * feelWay_m(p, nodes[FEEL]!.effort, barometer_Pa);
      },
    };
  },
});
