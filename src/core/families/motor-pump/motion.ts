import { glycol_PaS } from '../../fluid/brake-fluid';
import { motorPumpFlow_m3PerS } from '../../fluid/fluid-pump';
import type { Port } from '../../contract/family';
import { inputAt, type Instant, type Motion } from '../../model/motion';
import { POWER_COMMAND, type PumpHands } from '../bench-hands';
import { feedOf, named, pumpOf } from './member';

/** A motor pump over time: it gives what it gives at the pressure there, while it is fed and the unit's switch asks for it. */
export const motionOn = (ports: readonly Port[]): Motion => ({
  states: [],
  parts: [{ id: 'pump', name: 'Pump, turning', quantity: 'percent' }],
  commands: [POWER_COMMAND],
  owns: [],
  with: (vector, place) => {
    const charge = place.nodes[0]!;
    const p = named(vector);
    const pump = pumpOf(p);
    // Fluid that has stood in the room.
    const fluid_K = inputAt(place, 'temperature_K');
    const viscosity_PaS = glycol_PaS(fluid_K);
    const at = Object.fromEntries(ports.map(({ id }, i) => [id, i]));
    const runs = (instant: Instant) => charge.asks && (instant as Instant<PumpHands>).hands.power;
    return {
      atRest: () => [],
      passes: (instant) => {
        charge.passed = runs(instant)
          ? motorPumpFlow_m3PerS(pump, p.supply_V, viscosity_PaS, charge.effort)
          : 0;
      },
      parts: (_y, instant, out) => {
        out.pump = { at: Number(runs(instant)), of: 1 };
      },
      shown: (_y, instant, shown) => {
        const { current_A, drop_V } = feedOf(p, pump, charge.effort);
        const running = runs(instant);
        shown[at.battery!] = p.supply_V;
        shown[at.fluid!] = fluid_K;
        shown[at.current!] = running ? current_A : 0;
        shown[at.drop!] = running ? drop_V : 0;
      },
    };
  },
});
