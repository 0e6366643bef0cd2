/** @jest-environment node */
import type { Hands } from '../../model/motion';
import { Running } from '../../model/running';
import { placeOf, readingOf } from '../../model/vectors';
import { FAMILIES } from '../registry';
import { typical } from './typical';

const BAR = 1e5;
const family = FAMILIES['pedal-valve'];
const healthy = family.healthy(typical).values;
const put = (id: string, value: number) => [...healthy].with(placeOf(family.parameters, id), value);
const ROOM = { barometer_Pa: 101_325, temperature_K: 293.15 };
const PORT = Object.fromEntries(family.ports.map(({ id }, i) => [id, i]));
const SLOW = { press_mPerS: 1e-3 };

/** A valve on the bench, and what its gauges show while something is done, bar. */
function onBench(parameters = healthy) {
  const bench = new Running(family.motion!, parameters, { ...ROOM, supply_Pa: 0 }, family.ports.length);
  let shown: number[] = [];
  const after = (change: Hands, seconds: number, each: () => void = () => {}) => {
    bench.set(change);
    const solved = bench.advance(seconds, 0.02, (_t, now) => {
      shown = [...now];
      each();
    });
    expect(solved.ok).toBe(true);
  };
  const bar = (port: string) => shown[PORT[port]!]! / BAR;
  return { after, bar };
}

/** The same, charged and settled. */
function charged(parameters = healthy) {
  const one = onBench(parameters);
  one.after({ pump: true }, 180);
  return one;
}

/** The closed form of a reading, bar. */
const steady = (reading: string, known: Record<string, number>, parameters = healthy) =>
  readingOf(
    family,
    parameters,
    {
      ...family.full(typical),
      ...ROOM,
      elapsed_s: 0,
      applications: 0,
      ...known,
    },
    reading,
  ) / BAR;

test('charged from empty the gauge jumps to the pre-charge, each circuit to its own, and comes to what the pack holds', () => {
  const one = onBench(put('preCharge2_Pa', 30 * BAR));
  const first: number[] = [];
  const second: number[] = [];
  one.after({ pump: true }, 1, () => {
    first.push(one.bar('supply'));
    second.push(one.bar('supply-2'));
  });
  // The first 0.2 cc fill the connection: 0.02 s at 10 cc/s.
  expect(first.find((value) => value > 60)! / 85).toBeCloseTo(1, 2);
  expect(second.find((value) => value > 20)! / 30).toBeCloseTo(1, 1);
  one.after({}, 180);
  expect(one.bar('supply')).toBeCloseTo(150, 0);
});

test('pressed slowly and let down slowly it stands where the closed form has it, within 0.1 bar', () => {
  const one = charged();
  for (const [mm, reading] of [
    [4, 'output'],
    [8, 'output'],
    [10, 'output'],
    [8, 'releasing'],
  ] as const) {
    one.after({ treadle_m: mm * 1e-3, ...SLOW }, 8);
    const at = { travel_m: mm * 1e-3, supply_Pa: one.bar('supply') * BAR };
    expect(Math.abs(one.bar('output') - steady(reading, at))).toBeLessThan(0.1);
  }
  expect(one.bar('output') - one.bar('output-2')).toBeCloseTo(25 / 2.01e-4 / BAR, 1);
  one.after({ treadle_m: 0, press_mPerS: 0.01 }, 5);
  expect(one.bar('output')).toBeLessThan(0.05);
});

test('spools that stick hold pressure as the pedal is let go; a choked return does while the pack runs', () => {
  const sticking = charged(put('friction_N', 150));
  sticking.after({ treadle_m: 8e-3 }, 5);
  sticking.after({ treadle_m: 0 }, 5);
  expect(sticking.bar('output')).toBeCloseTo((150 - 35) / 2.01e-4 / BAR, 1);
  const choked = charged(put('return_Pa', 2 * BAR));
  choked.after({ treadle_m: 8e-3 }, 5);
  choked.after({ treadle_m: 0 }, 5);
  expect(choked.bar('output')).toBeCloseTo(2, 1);
});

test('applications with the pack stopped: each leaves what the closed form counts on, within 1.5 %', () => {
  const one = charged();
  one.after({ pump: false }, 1);
  const supply_Pa = one.bar('supply') * BAR;
  for (let n = 1; n <= 7; n += 1) {
    one.after({ treadle_m: 12e-3, press_mPerS: 0.2 }, 3);
    const part = one.bar('supply') / steady('kept', { supply_Pa, applications: n });
    expect(Math.abs(part - 1)).toBeLessThan(0.015);
    one.after({ treadle_m: 0 }, 7);
  }
});

test('left standing it loses by its lands what the closed form has, within 3 % of the loss', () => {
  const one = charged();
  // The gas has to have settled: what still cools looks like a leak.
  one.after({}, 600);
  one.after({ pump: false }, 60);
  const before = one.bar('supply');
  one.after({}, 600);
  const closed = before - steady('left', { supply_Pa: before * BAR, elapsed_s: 600 });
  expect(Math.abs((before - one.bar('supply')) / closed - 1)).toBeLessThan(0.03);
});

test('circuit 2 shut off and plugged: what crosses over fills it as the closed form has it', () => {
  const leaking = put('crossLeak_m3PerS', 10e-6 / 60);
  const one = charged(leaking);
  one.after({ second: 'plugged' }, 1);
  one.after({ treadle_m: 6e-3, press_mPerS: 0.1 }, 30);
  const closed = steady('crossed', { travel_m: 6e-3, elapsed_s: 30 }, leaking);
  expect(one.bar('output-2') / closed).toBeCloseTo(1, 1);
  const tight = charged();
  tight.after({ second: 'plugged' }, 1);
  tight.after({ treadle_m: 6e-3 }, 30);
  expect(tight.bar('output-2')).toBe(0);
});

test.each([0.8, 0.4, 0.32, 0.25])(
  'pressed at once, a drilling of %d mm: it goes as far beyond as the closed form has it, within 2 %%',
  (mm) => {
    const parameters = put('drilling_m', mm * 1e-3);
    const one = charged(parameters);
    let most = 0;
    one.after({ treadle_m: 6e-3, press_mPerS: 0.1 }, 3, () => (most = Math.max(most, one.bar('output'))));
    expect(Math.abs(most / steady('peak', { travel_m: 6e-3 }, parameters) - 1)).toBeLessThan(0.02);
  },
);
