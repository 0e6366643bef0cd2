import { slips_Pa } from '../../fluid/fluid-pump';
import type { Port } from '../../contract/family';
import type { Motion } from '../../model/motion';
import type { PumpDrive } from '../pump-drive';
import { givenBy, named, pumpOf } from './member';

/** A belt takes hold again within this part of the pressure at which it slips: a line in which it slips stands still there. */
const SLIPS_WITHIN = 0.005;

/** A steering pump over time: it gives what it gives at the pressure in its line, while something turns it. Handbook-models P.3. */
export const motionOn = (ports: readonly Port[], drive: PumpDrive): Motion => ({
  states: [],
  parts: [{ id: 'pump', name: 'Pump, turning', quantity: 'percent' }],
  commands: [drive.command],
  owns: [],
  with: (vector, { nodes }) => {
    const charge = nodes[0]!;
    const p = named(vector);
    const pump = pumpOf(p);
    const slips = slips_Pa(pump);
    const given = givenBy(p, p.fluid_K, { ...pump, belt_Nm: Infinity });
    const at = Object.fromEntries(ports.map(({ id }, i) => [id, i]));
    return {
      atRest: () => [],
      passes: ({ hands }) => {
        const holds = (slips - charge.effort) / (SLIPS_WITHIN * slips);
        charge.passed = drive.turns(hands) ? Math.min(1, Math.max(0, holds)) * given(charge.effort) : 0;
      },
      parts: (_y, { hands }, out) => {
        out.pump = { at: Number(drive.turns(hands) && charge.passed > 0), of: 1 };
      },
      shown: (_y, _instant, shown) => {
        shown[at.line!] = charge.effort;
        shown[at.flow!] = Math.max(0, charge.passed);
        shown[at.fluid!] = p.fluid_K;
      },
    };
  },
});
