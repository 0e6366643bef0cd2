/** @jest-environment node */
import { gaussian, seeded } from '../numeric/chance';
import { swing } from './swing';
import { wholeOf, type Trace } from './trace';

const BAR = 1e5;

/** A second-order system that was brought to a level at once: 1 − e^(−ζω₀t)·(cos ω_d t + ζ/√(1 − ζ²)·sin ω_d t). */
function settling(ratio: number, natural_Hz: number, noise_bar: number, seconds = 6, seed = 5): Trace {
  const random = seeded(seed);
  const turns = 2 * Math.PI * natural_Hz;
  const damped = turns * Math.sqrt(1 - ratio ** 2);
  const time_s = Float64Array.from({ length: seconds * 200 }, (_, i) => i / 200);
  const values = time_s.map((t) => {
    const wave = Math.cos(damped * t) + (ratio / Math.sqrt(1 - ratio ** 2)) * Math.sin(damped * t);
    return (40 - 40 * Math.exp(-ratio * turns * t) * wave + noise_bar * gaussian(random)) * BAR;
  });
  return { time_s, channels: [{ name: 'p', port: 'output', quantity: 'pressure', values }] };
}
const found = (trace: Trace) => swing(trace, trace.channels[0]!, wholeOf(trace));

test.each([
  [0.095, 1.8],
  [0.05, 3],
  [0.02, 2.2],
])(
  'ζ %d at %d Hz: damping within 5 %, frequency within 1 %, the first swing e^(−πζ/√(1 − ζ²)) of the level',
  (ratio, hz) => {
    const { frequency, damping, amplitude } = found(settling(ratio, hz, 0.1));
    const damped = hz * Math.sqrt(1 - ratio ** 2);
    expect(frequency.told && Math.abs(frequency.value / damped - 1)).toBeLessThan(0.01);
    expect(damping.told && Math.abs(damping.value / ratio - 1)).toBeLessThan(0.05);
    const first = 40 * BAR * Math.exp((-Math.PI * ratio) / Math.sqrt(1 - ratio ** 2));
    expect(amplitude.told && Math.abs(amplitude.value / first - 1)).toBeLessThan(0.03);
  },
);

test('what hunts on has no damping: within its own doubt', () => {
  const random = seeded(3);
  const time_s = Float64Array.from({ length: 1600 }, (_, i) => i / 200);
  const values = time_s.map((t) => (40 + 3 * Math.sin(2 * Math.PI * 1.8 * t) + 0.1 * gaussian(random)) * BAR);
  const trace: Trace = { time_s, channels: [{ name: 'p', port: 'output', quantity: 'pressure', values }] };
  const { frequency, damping } = found(trace);
  expect(frequency.told && frequency.value).toBeCloseTo(1.8, 1);
  expect(damping.told && Math.abs(damping.value)).toBeLessThan(0.005);
});

test('a sound valve settles: nothing swings, and that is said', () => {
  const { damping } = found(settling(0.7, 3, 0.1));
  expect(damping.told ? null : damping.why.text).toMatch(/settles/);
});

test('the stated limits of frequency and damping hold the truth', () => {
  const random = seeded(77);
  let [held, all] = [0, 0];
  for (let seed = 1; seed <= 60; seed += 1) {
    const [ratio, hz] = [0.02 + 0.1 * random(), 1 + 3 * random()];
    const { frequency, damping } = found(settling(ratio, hz, 0.05 + 0.3 * random(), 6, seed));
    for (const [of, truth] of [
      [frequency, hz * Math.sqrt(1 - ratio ** 2)],
      [damping, ratio],
    ] as const)
      if (of.told) {
        all += 1;
        if (Math.abs(of.value - truth) <= 1.96 * of.u) held += 1;
      }
  }
  expect(all).toBeGreaterThan(100);
  // Of 120 at 95 %, 104 or fewer come once in a thousand.
  expect(held / all).toBeGreaterThan(0.87);
});
