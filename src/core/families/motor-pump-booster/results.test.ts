/** @jest-environment node */
import { Vessel } from '../../fluid/accumulator';
import { filledTo } from '../../fluid/charging';
import { flowThatFilled } from '../../fluid/filling-flow';
import { benchOf } from '../../scenarios/bench';

const BAR = 1e5;
const ROOM = { barometer_Pa: 101_325, temperature_K: 293.15 };
const { bench, truthWith, faultyTruth } = benchOf('motor-pump-booster');
const noise = { noise_steps: 0.3 };

test('a flow is told back from the time in which it fills a vessel, between those of gas that cools at once and never', () => {
  const of = { shell_m3: 0.3e-3, preCharge_Pa: 65 * BAR };
  const vessel = new Vessel({ ...of, settling_s: 20 }, ROOM);
  const { time_s } = filledTo(vessel, vessel.empty, 160 * BAR, () => 7e-6);
  const { usual_m3PerS, spread_m3PerS } = flowThatFilled(of, ROOM, 160 * BAR, time_s)!;
  expect(usual_m3PerS / 7e-6).toBeCloseTo(1, 3);
  // Cold gas takes the most fluid, gas that keeps its heat the least: the ends lie between them.
  const slowly = vessel.fluid_m3(vessel.settledAt(160 * BAR)) / time_s;
  const fast = vessel.fluid_m3(vessel.fastTo(vessel.empty, 160 * BAR)) / time_s;
  expect(spread_m3PerS).toBeGreaterThan(0);
  expect(spread_m3PerS).toBeLessThan(slowly - fast);
  expect(flowThatFilled(of, ROOM, 60 * BAR, time_s)).toBeNull();
});

describe('flow of the pump by the charge', () => {
  // Handbook-models P.4: 7.57 cc/s at 65 bar and 6.18 at 150; what leaks meanwhile is some 0.01.
  test('of a sound pump: between what it makes at the beginning and at the end, with the doubt of gas that cools', () => {
    const { value, u, verdict, about } = bench(truthWith(noise)).byId('pump-flow');
    expect(value! * 1e6).toBeGreaterThan(6);
    expect(value! * 1e6).toBeLessThan(7.57);
    expect(u! / value!).toBeGreaterThan(0.005);
    expect(u! / value!).toBeLessThan(0.06);
    expect([verdict, about]).toEqual(['noted', 'supply']);
  });
  test('of a worn one it is less by more than the doubt; where gas is lost it is the same', () => {
    const flow = (fault: string, severity: number) =>
      bench(faultyTruth(fault, severity, noise)).byId('pump-flow');
    const sound = bench(truthWith(noise)).byId('pump-flow');
    const worn = flow('vanes-worn', 0.4);
    expect(worn.value!).toBeLessThan(sound.value! - 3 * Math.hypot(worn.u!, sound.u!));
    const spent = flow('gas-loss', 0.2);
    expect(Math.abs(spent.value! / sound.value! - 1)).toBeLessThan(0.12);
  });
});

test('a flow is told so closely that what it hangs on shows in differences of a ten-thousandth', () => {
  const of = { shell_m3: 0.3e-3, preCharge_Pa: 65 * BAR };
  const flow = (time_s: number) => flowThatFilled(of, ROOM, 160 * BAR, time_s)!.usual_m3PerS;
  for (const time_s of [12, 17.3, 21.9, 26.4, 33.1]) {
    const slope = (flow(time_s * 1.0001) - flow(time_s * 0.9999)) / (2e-4 * time_s);
    // q·t is the fluid, which grows a little with the time in which the gas cools: d(ln q)/d(ln t) between −1 and −0.7.
    const part = (slope * time_s) / flow(time_s);
    expect(part).toBeGreaterThan(-1);
    expect(part).toBeLessThan(-0.7);
    // And it moves evenly: no step of the search stands in it.
    const again = (flow(time_s * 1.0003) - flow(time_s * 1.0001)) / (2e-4 * time_s);
    expect(again / slope).toBeCloseTo(1, 2);
  }
});
