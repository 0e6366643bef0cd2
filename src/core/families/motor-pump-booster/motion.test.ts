/** @jest-environment node */
import { withFault } from '../../contract/family';
import type { Hands } from '../../model/motion';
import { Running } from '../../model/running';
import { placeOf, readingOf } from '../../model/vectors';
import { motorPumpBench, type MotorPumpBenchProfile } from '../motor-pump-bench';

const BAR = 1e5;
const family = motorPumpBench;
const profile = family.typical as MotorPumpBenchProfile;
const healthy = family.healthy(profile).values;
const ROOM = { barometer_Pa: 101_325, temperature_K: 293.15 };
const PORT = Object.fromEntries(family.ports.map(({ id }, i) => [id, i]));
const EVERY_S = 0.02;

/** A booster on the bench: what its gauges show while something is done, and when its pump starts and stops. */
function onBench(parameters = healthy) {
  const bench = new Running(family.motion!, parameters, { ...ROOM, supply_Pa: 0 }, family.ports.length);
  let shown: number[] = [];
  let running = false;
  const turns: { readonly t_s: number; readonly on: boolean; readonly bar: number }[] = [];
  const after = (change: Hands, seconds: number, each: () => void = () => {}) => {
    bench.set(change);
    const solved = bench.advance(seconds, EVERY_S, (t_s, now) => {
      shown = [...now];
      const on = now[PORT.current!]! > 0;
      if (on !== running) turns.push({ t_s, on, bar: now[PORT.supply!]! / BAR });
      running = on;
      each();
    });
    expect(solved.ok).toBe(true);
  };
  const at = (port: string) => shown[PORT[port]!]!;
  return { after, at, bar: (port: string) => at(port) / BAR, turns };
}

const full = family.full(profile);
const steady = (reading: string, known: Record<string, number> = {}, parameters = healthy) =>
  readingOf(family, parameters, { ...ROOM, ...full, ...known }, reading);

describe('charged from empty', () => {
  const one = onBench();
  const first: number[] = [];
  test('the gauge jumps to the pre-charge', () => {
    one.after({ power: true }, 1, () => first.push(one.bar('supply')));
    // The first 0.2 cc fill the connection: 0.03 s at 7.6 cc/s.
    expect(first.find((bar) => bar > 60)! / 65).toBeCloseTo(1, 1);
  });
  test('it stops after the time, and at the pressure, that the closed form has', () => {
    one.after({}, 40);
    const stopped = one.turns.find(({ on }) => !on)!;
    expect(Math.abs(stopped.t_s / steady('chargeTime') - 1)).toBeLessThan(0.02);
    expect(Math.abs(stopped.bar / (steady('cutOut') / BAR) - 1)).toBeLessThan(0.01);
  });
  test('and cooling alone starts it once more and no oftener: tight as it is', () => {
    one.after({}, 600);
    const starts = one.turns.filter(({ on }) => on);
    expect(starts).toHaveLength(2);
    // The gas was at 350 K and has lost most of that: handbook-models P.1, “80 s later 120.1”, and here it starts at 125.
    expect(starts[1]!.t_s).toBeGreaterThan(60);
    expect(starts[1]!.t_s).toBeLessThan(130);
    expect(starts[1]!.bar).toBeCloseTo(125, 0);
  });
});

test('pressed until it starts, it fills in the time of the closed form, stops where that has it, and stays off as long', () => {
  // Eleven times the leak: an off-time of minutes.
  const leaking = withFault(family, healthy, ['internal-leak', 0.45]);
  const one = onBench(leaking);
  one.after({ power: true }, 150);
  const running = () => one.at('current') > 0;
  while (!running()) {
    one.after({ pedal_N: 40, press_NPerS: 100 }, 0.5);
    if (!running()) one.after({ pedal_N: 0, press_NPerS: 2000 }, 0.5);
  }
  one.after({ pedal_N: 0, press_NPerS: 2000 }, 300);
  const [start, stop, next] = one.turns.slice(one.turns.findLastIndex(({ on, t_s }) => on && t_s < 250));
  expect(Math.abs((stop!.t_s - start!.t_s) / steady('onTime', {}, leaking) - 1)).toBeLessThan(0.1);
  expect(Math.abs(stop!.bar / (steady('cutOutAgain', {}, leaking) / BAR) - 1)).toBeLessThan(0.01);
  expect(Math.abs((next!.t_s - stop!.t_s) / steady('offTime', {}, leaking) - 1)).toBeLessThan(0.1);
});

test('pressed, it makes what the closed form has, and lets it go again', () => {
  const one = onBench();
  one.after({ power: true }, 200);
  for (const force_N of profile.unit.assist_N) {
    one.after({ pedal_N: force_N }, 4);
    const known = { pedal_N: force_N, supply_Pa: one.at('supply') };
    expect(Math.abs(one.at('output') / steady('load.pressure', known) - 1)).toBeLessThan(0.01);
  }
  one.after({ pedal_N: 0, press_NPerS: 2000 }, 2);
  expect(one.bar('output')).toBeLessThan(0.5);
});

test('with the pump off every application takes what the closed form has, and at last the foot is alone', () => {
  const one = onBench();
  one.after({ power: true }, 200);
  one.after({ power: false }, 60);
  const stored = one.at('supply');
  const heavy_N = Math.max(...profile.unit.assist_N);
  for (const applications of [1, 2, 3, 4, 5, 6]) {
    one.after({ pedal_N: heavy_N, press_NPerS: 2000 }, 3);
    const expected = steady('kept', { supply_Pa: stored, applications });
    // What is left of the fall is within 4 % of it.
    expect(Math.abs(one.at('supply') - expected)).toBeLessThan(0.06 * (stored - expected));
    one.after({ pedal_N: 0 }, 7);
  }
  for (let n = 0; n < 40; n += 1) {
    one.after({ pedal_N: heavy_N }, 2);
    one.after({ pedal_N: 0 }, 1);
  }
  one.after({ pedal_N: heavy_N }, 3);
  expect(one.bar('supply')).toBe(0);
  const alone = steady('load.pressure', { pedal_N: heavy_N, supply_Pa: 0 });
  expect(Math.abs(one.at('output') / alone - 1)).toBeLessThan(0.01);
});

test('bridged it goes on to the relief and no further', () => {
  const one = onBench();
  one.after({ power: true }, 200);
  const from = one.at('supply');
  one.after({ bridged: true }, 5);
  expect(Math.abs(one.at('supply') / steady('bridged', { supply_Pa: from }) - 1)).toBeLessThan(0.01);
});

test('where the fluid runs out on the way, what has come of it stays while the pedal is held', () => {
  const one = onBench(healthy.with(placeOf(family.parameters, 'leak_m3PerS'), 0));
  one.after({ power: true }, 200);
  one.after({ power: false }, 5);
  const heavy_N = Math.max(...profile.unit.assist_N);
  const alone_Pa = steady('load.pressure', { pedal_N: heavy_N, supply_Pa: 0 });
  const pressed = () => {
    let most_Pa = 0;
    one.after(
      { pedal_N: heavy_N, press_NPerS: 2000 },
      3,
      () => (most_Pa = Math.max(most_Pa, one.at('output'))),
    );
    const held_Pa = one.at('output');
    one.after({ pedal_N: 0 }, 2);
    return { most_Pa, held_Pa };
  };
  // A lighter press first leaves less than a whole one in the end.
  one.after({ pedal_N: heavy_N / 2, press_NPerS: 2000 }, 3);
  one.after({ pedal_N: 0 }, 2);
  const whole_Pa = pressed().held_Pa;
  let last = pressed();
  for (let n = 0; n < 80 && last.held_Pa > 0.9 * whole_Pa; n += 1) last = pressed();
  // It has more than the foot alone makes, and less than the one before by far.
  expect(last.most_Pa).toBeGreaterThan(1.2 * alone_Pa);
  expect(last.most_Pa).toBeLessThan(0.9 * whole_Pa);
  expect(last.held_Pa / last.most_Pa).toBeGreaterThan(0.999);
});
