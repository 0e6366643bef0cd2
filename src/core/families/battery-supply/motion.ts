import type { Port } from '../../contract/family';
import type { Instant, Motion } from '../../model/motion';
import { POWER_COMMAND, type PumpHands } from '../bench-hands';
import { allOf_Ohm, named } from './member';

/** A feed answers a change of current within this time, s: no verdict rests on it, and the steady end does not know it. */
const FEED_S = 0.002;

/** Current at the far end of a drawing. */
const FAR_A = 60;

/** A battery with feed and earth over time: its current follows what the control unit takes. */
export const motionOn = (ports: readonly Port[]): Motion => ({
  states: [{ id: 'feed_A', name: 'Current in the feed', quantity: 'current', scale: 0.1 }],
  parts: [{ id: 'feed', name: 'Current in the feed', quantity: 'current' }],
  commands: [{ ...POWER_COMMAND, name: 'Power to the booster' }],
  owns: ['feed'],
  with: (vector, { from, nodes }) => {
    const feed = nodes[0]!;
    const p = named(vector);
    const all_Ohm = allOf_Ohm(p);
    const at = Object.fromEntries(ports.map(({ id }, i) => [id, i]));
    return {
      atRest: () => [0],
      efforts: (y, instant) => {
        feed.effort = (instant as Instant<PumpHands>).hands.power ? p.battery_V - all_Ohm * y[from]! : 0;
      },
      rates: (y, dy) => {
        dy[from] = (feed.passed - y[from]!) / FEED_S;
      },
      parts: (y, _instant, out) => {
        out.feed = { at: Math.max(0, y[from]!), of: FAR_A };
      },
      shown: (y, _instant, shown) => {
        const current_A = y[from]!;
        shown[at.battery!] = p.battery_V - current_A * p.own_Ohm;
        shown[at.drop!] = current_A * p.feed_Ohm;
        shown[at.earth!] = current_A * p.earth_Ohm;
        shown[at.plug!] = feed.effort;
        shown[at.current!] = current_A;
      },
    };
  },
});
