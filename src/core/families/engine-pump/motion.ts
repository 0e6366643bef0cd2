import type { Port } from '../../contract/family';
import { inputAt, type Instant, type Motion } from '../../model/motion';
import type { PumpDrive } from '../pump-drive';
import { named } from './member';

/** The pump over time: it gives each circuit what it gives while it is turned and the valve block there lets it in. */
export const motionOn = (ports: readonly Port[], { command, turns }: PumpDrive): Motion => ({
  states: [],
  parts: [{ id: 'pump', name: 'Pump, turning', quantity: 'percent' }],
  commands: [command],
  owns: [],
  with: (vector, { nodes, inputs }) => {
    const p = named(vector);
    const given_m3PerS = [p.front_m3 * p.idle_PerS, p.rear_m3 * p.idle_PerS];
    const fluid_K = inputAt({ inputs }, 'temperature_K');
    const at = Object.fromEntries(ports.map(({ id }, i) => [id, i]));
    const runs = ({ hands }: Instant) => turns(hands);
    return {
      atRest: () => [],
      passes: (instant) => {
        const running = runs(instant);
        nodes.forEach((node, i) => (node.passed = running && node.asks ? given_m3PerS[i]! : 0));
      },
      parts: (_y, instant, out) => {
        out.pump = { at: Number(runs(instant)), of: 1 };
      },
      shown: (_y, instant, shown) => {
        shown[at.speed!] = runs(instant) ? p.idle_PerS : 0;
        // Fluid that has stood in the room.
        shown[at.fluid!] = fluid_K;
      },
    };
  },
});
