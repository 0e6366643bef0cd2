import type { Port } from '../../contract/family';
import type { Command, Instant, Motion } from '../../model/motion';
import { POWER_COMMAND, type PumpHands } from '../bench-hands';
import { named } from './member';

/** A capacitor is charged through its control unit within this time, s; and discharged by a resistor put across it. */
const CHARGES_S = 4;
const EMPTIED_S = 2;

// A type and no interface: only so is it one of `Hands`.
type SupplyHands = PumpHands & {
  /** Battery off, and as long as it takes waited. */
  readonly waited: boolean;
};

const WAITED_COMMAND: Command = {
  kind: 'switch',
  id: 'waited',
  name: 'Store: waited until it is empty',
  usual: false,
};

/** Below this no control unit lives, V: no capacitor is drawn on. */
const LEAST_V = 0.1;

/** A battery with its capacitor over time: what stands in that goes on feeding once the battery is off, until it is used up. */
export const motionOn = (ports: readonly Port[]): Motion => ({
  states: [{ id: 'store_V', name: 'Capacitor', quantity: 'voltage', scale: 0.01 }],
  parts: [{ id: 'store', name: 'Capacitor', quantity: 'voltage' }],
  commands: [{ ...POWER_COMMAND, name: 'Battery connected' }, WAITED_COMMAND],
  owns: ['feed'],
  with: (vector, { from, nodes }) => {
    const feed = nodes[0]!;
    const p = named(vector);
    const at = Object.fromEntries(ports.map(({ id }, i) => [id, i]));
    const handsOf = (instant: Instant) => (instant as Instant<SupplyHands>).hands;
    return {
      atRest: () => [0],
      efforts: (y, instant) => {
        feed.effort = handsOf(instant).power ? p.battery_V - p.own_Ohm * feed.passed : Math.max(0, y[from]!);
      },
      rates: (y, dy, instant) => {
        const { power, waited } = handsOf(instant);
        const store_V = y[from]!;
        const drawn_A = store_V > LEAST_V ? feed.passed : 0;
        dy[from] = power
          ? (p.battery_V - store_V) / CHARGES_S
          : waited
            ? -store_V / EMPTIED_S
            : -(drawn_A + store_V / p.bleed_Ohm) / p.capacitance_F;
      },
      parts: (y, _instant, out) => {
        out.store = { at: Math.max(0, y[from]!), of: p.battery_V };
      },
      shown: (y, _instant, shown) => {
        shown[at.battery!] = p.battery_V;
        shown[at.store!] = Math.max(0, y[from]!);
      },
      tells: (y, _instant, out) => {
        if (feed.effort > p.least_V)
          Object.assign(out, { supply: feed.effort, capacitor: Math.max(0, y[from]!) });
      },
    };
  },
});
