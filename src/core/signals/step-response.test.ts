/** @jest-environment node */
import { gaussian, seeded } from '../numeric/chance';
import { between } from '../scenarios/trial';
import { stepResponse, type StepResponse } from './step-response';
import { stampsIn } from './stamps';
import type { Trace } from './trace';

interface Stamp {
  readonly rate_Hz: number;
  /** Nothing comes for so long; then a swing of this frequency and damping. */
  readonly delay_s: number;
  readonly omega_PerS: number;
  readonly damping: number;
  readonly noise: number;
  readonly seed?: number;
  readonly foot_s?: number;
}

/**
 * What comes of a step through a second order, ω and ζ: y = 1 − e^(−ζωt)·(cos ω_d t + ζ/√(1 − ζ²)·sin ω_d t), ω_d = ω√(1 − ζ²). It goes
 * beyond by e^(−πζ/√(1 − ζ²)).
 */
const course = (t: number, { omega_PerS, damping }: Pick<Stamp, 'omega_PerS' | 'damping'>): number => {
  if (t <= 0) return 0;
  const root = Math.sqrt(1 - damping ** 2);
  const turn = omega_PerS * root * t;
  return 1 - Math.exp(-damping * omega_PerS * t) * (Math.cos(turn) + (damping / root) * Math.sin(turn));
};
/** When it first comes to a part of its end, by halving. */
function reaches(part: number, of: Stamp): number {
  let [low, high] = [0, 0];
  while (course(high, of) < part) high += 0.1 / of.omega_PerS;
  for (let i = 0; i < 60; i += 1) {
    const middle = (low + high) / 2;
    if (course(middle, of) < part) low = middle;
    else high = middle;
  }
  return low;
}
const FOOT_AT_S = 0.25;
const LEVEL_PA = 6e6;
function logged(stamp: Stamp): Trace {
  const { rate_Hz, delay_s, noise, seed = 1, foot_s = 0.012 } = stamp;
  const random = seeded(seed);
  const count = Math.round(1.6 * rate_Hz);
  const shift = random() / rate_Hz;
  const time_s = Float64Array.from({ length: count }, (_, i) => i / rate_Hz + shift);
  const foot = (t: number) => Math.min(1, Math.max(0, (t - FOOT_AT_S) / foot_s + 0.5));
  return {
    time_s,
    channels: [
      {
        name: 'foot',
        port: 'pedal',
        quantity: 'force',
        values: time_s.map((t) => 200 * foot(t) + 0.4 * gaussian(random)),
      },
      {
        name: 'pressure',
        port: 'output',
        quantity: 'pressure',
        values: time_s.map(
          (t) => LEVEL_PA * (course(t - FOOT_AT_S - delay_s, stamp) + noise * gaussian(random)),
        ),
      },
    ],
  };
}
const respond = (trace: Trace): StepResponse =>
  stepResponse(trace, trace.channels[0]!, trace.channels[1]!, { from: 0, to: trace.time_s.length });
const valueOf = (of: StepResponse[keyof StepResponse]) => (of.told ? of.value : NaN);

test('delay, rise, time and overshoot of a swing of 40 /s at 0.5: e^(−π·0.5/√0.75) = 16.3 % beyond', () => {
  const stamp: Stamp = { rate_Hz: 1000, delay_s: 0.03, omega_PerS: 40, damping: 0.5, noise: 0.002 };
  const found = respond(logged(stamp));
  const [low_s, high_s] = [reaches(0.1, stamp), reaches(0.9, stamp)];
  expect(valueOf(found.delay)).toBeCloseTo(0.03 + low_s, 3);
  expect(valueOf(found.rise)).toBeCloseTo(high_s - low_s, 3);
  expect(valueOf(found.time)).toBeCloseTo(0.03 + high_s, 3);
  expect(valueOf(found.overshoot)).toBeCloseTo(0.163, 2);
});

test('the limits hold the truth in 92 to 99 of a hundred stamps', () => {
  const SEEDS = 1000;
  const within = { delay: 0, rise: 0, time: 0, overshoot: 0 };
  const random = seeded(20_261_129);
  for (let seed = 1; seed <= SEEDS; seed += 1) {
    const stamp: Stamp = {
      rate_Hz: between(random, 200, 2000),
      delay_s: between(random, 0.01, 0.06),
      omega_PerS: between(random, 15, 60),
      damping: between(random, 0.4, 0.9),
      noise: between(random, 0.001, 0.01),
      foot_s: between(random, 0.004, 0.02),
      seed,
    };
    const found = respond(logged(stamp));
    const [low_s, high_s] = [reaches(0.1, stamp), reaches(0.9, stamp)];
    const beyond = Math.exp((-Math.PI * stamp.damping) / Math.sqrt(1 - stamp.damping ** 2));
    const truth = {
      delay: stamp.delay_s + low_s,
      rise: high_s - low_s,
      time: stamp.delay_s + high_s,
      overshoot: beyond,
    };
    for (const name of ['delay', 'rise', 'time', 'overshoot'] as const) {
      const of = found[name];
      if (!of.told) throw new Error(`${name}: ${of.why.text}`);
      if (Math.abs(of.value - truth[name]) <= 2 * of.u) within[name] += 1;
    }
  }
  for (const held of Object.values(within)) {
    expect(held / SEEDS).toBeGreaterThan(0.92);
    expect(held / SEEDS).toBeLessThan(0.99);
  }
});

test('readings that dropped out, and spikes that stand alone, leave it as it is', () => {
  const stamp: Stamp = { rate_Hz: 1000, delay_s: 0.03, omega_PerS: 40, damping: 0.5, noise: 0.002 };
  const whole = logged(stamp);
  const spoilt = {
    ...whole,
    channels: whole.channels.map((channel) => ({
      ...channel,
      values: channel.values.map((value, i) =>
        i % 37 === 5 ? NaN : i % 222 === 150 ? 3 * value + 900 : value,
      ),
    })),
  };
  const [sound, found] = [respond(whole), respond(spoilt)];
  for (const name of ['delay', 'rise', 'time', 'overshoot'] as const)
    expect(Math.abs(valueOf(found[name]) - valueOf(sound[name]))).toBeLessThan(0.004);
});

test('one that never goes beyond is said to; too few readings, a stamp let go and noise alone tell nothing', () => {
  const smooth: Stamp = { rate_Hz: 1000, delay_s: 0.02, omega_PerS: 40, damping: 0.99, noise: 0.003 };
  expect(valueOf(respond(logged(smooth)).overshoot)).toBe(0);
  const why = ({ time }: StepResponse) => (time.told ? null : time.why.text);
  expect(why(respond(logged({ ...smooth, rate_Hz: 100 })))).toMatch(/^Too few readings in a second/);
  expect(why(respond(logged({ ...smooth, noise: 50 })))).toMatch(/stands out of the noise/);
});

test('of a log with four wheels each answers for itself', () => {
  const stamp: Stamp = { rate_Hz: 500, delay_s: 0.02, omega_PerS: 40, damping: 0.7, noise: 0.002 };
  const [fast, slow] = [logged(stamp), logged({ ...stamp, omega_PerS: 20 })];
  const wheel = (of: Trace, port: string) => ({ ...of.channels[1]!, name: port, port });
  const trace = {
    ...fast,
    channels: [
      fast.channels[0]!,
      wheel(fast, 'front-left'),
      wheel(fast, 'front-right'),
      wheel(fast, 'rear-left'),
      wheel(slow, 'rear-right'),
    ],
  };
  const [stretch] = stampsIn(trace);
  const time = (port: string) => {
    const found = stretch!.results.find(({ id }) => id === `stamp-${port}`)!.estimate;
    return found.told ? found.value : NaN;
  };
  expect(time('front-left')).toBeCloseTo(0.02 + reaches(0.9, stamp), 2);
  expect(time('rear-right')).toBeCloseTo(0.02 + reaches(0.9, { ...stamp, omega_PerS: 20 }), 2);
  expect(stretch!.results.filter(({ name }) => /rear right/.test(name))).toHaveLength(4);
});
