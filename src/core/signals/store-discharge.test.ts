/** @jest-environment node */
import { gaussian, seeded } from '../numeric/chance';
import { between } from '../scenarios/trial';
import { analyse } from './analyse';
import { storeDischarge } from './store-discharge';
import type { Trace } from './trace';

interface Made {
  readonly start_V: number;
  readonly constant_s: number;
  readonly long_s: number;
  readonly noise_V: number;
  readonly seed: number;
  readonly rate_Hz?: number;
}

/** U₀·e^(−t/RC) as a meter logs it. */
function logged({ start_V, constant_s, long_s, noise_V, seed, rate_Hz = 2 }: Made): Trace {
  const random = seeded(seed);
  const time_s = Float64Array.from({ length: Math.round(long_s * rate_Hz) }, (_, i) => i / rate_Hz);
  const values = time_s.map((t) => start_V * Math.exp(-t / constant_s) + noise_V * gaussian(random));
  return { time_s, channels: [{ name: 'store', port: 'store', quantity: 'voltage', values }] };
}
const found = (trace: Trace) =>
  storeDischarge(trace, trace.channels[0]!, { from: 0, to: trace.time_s.length });

test('20 F through 40 Ω from 13.5 V: 800 s, and 5 V after 800·ln 2.7 = 795 s', () => {
  const { constant, safe, left } = found(
    logged({ start_V: 13.5, constant_s: 800, long_s: 300, noise_V: 0.005, seed: 3 }),
  );
  expect(constant).toMatchObject({ told: true, value: expect.closeTo(800, -1) as number });
  expect(safe).toMatchObject({ told: true, value: expect.closeTo(794.6, -1) as number });
  expect(left).toMatchObject({
    told: true,
    value: expect.closeTo(13.5 * Math.exp(-299.5 / 800), 2) as number,
  });
});

test('the limits hold the truth in 92 to 99 of a hundred logs', () => {
  const SEEDS = 1000;
  const random = seeded(20_261_130);
  const within = { constant: 0, safe: 0, left: 0 };
  const told = { constant: 0, safe: 0, left: 0 };
  for (let seed = 1; seed <= SEEDS; seed += 1) {
    const made: Made = {
      start_V: between(random, 8, 15),
      constant_s: between(random, 20, 1500),
      long_s: between(random, 30, 300),
      noise_V: between(random, 0.003, 0.03),
      seed,
    };
    const trace = logged(made);
    const all = found(trace);
    const truth = {
      constant: made.constant_s,
      safe: made.constant_s * Math.log(made.start_V / 5),
      left: made.start_V * Math.exp(-trace.time_s.at(-1)! / made.constant_s),
    };
    for (const name of ['constant', 'safe', 'left'] as const) {
      const of = all[name];
      if (!of.told) continue;
      told[name] += 1;
      if (Math.abs(of.value - truth[name]) <= 2 * of.u) within[name] += 1;
    }
  }
  // What is left is told of each; what is to come of most.
  expect(told.left).toBe(SEEDS);
  expect(Math.min(told.constant, told.safe)).toBeGreaterThan(0.8 * SEEDS);
  for (const name of ['constant', 'safe', 'left'] as const) {
    expect([name, within[name] / told[name] > 0.92]).toEqual([name, true]);
    expect([name, within[name] / told[name] < 0.99]).toEqual([name, true]);
  }
});

test('stops that draw on it are no discharge through one resistance, and are said to be none', () => {
  const trace = logged({ start_V: 13.5, constant_s: 5000, long_s: 120, noise_V: 0.01, seed: 5 });
  const store = trace.channels[0]!;
  const stops = {
    ...trace,
    channels: [
      { ...store, values: store.values.map((volts, i) => volts - (i > 80 ? 1.2 : 0) - (i > 160 ? 1.4 : 0)) },
    ],
  };
  const { constant } = found(stops);
  expect(constant.told ? null : constant.why.text).toMatch(/something was drawn from it/);
});

test('a log that begins before the battery is off, and one that never falls', () => {
  const falls = logged({ start_V: 13.5, constant_s: 200, long_s: 200, noise_V: 0.01, seed: 7 });
  const before = 120;
  const whole: Trace = {
    time_s: Float64Array.from({ length: before + falls.time_s.length }, (_, i) => i / 2),
    channels: [
      {
        ...falls.channels[0]!,
        values: Float64Array.from({ length: before + falls.time_s.length }, (_, i) =>
          i < before ? 13.5 + 0.01 * Math.sin(i) : falls.channels[0]!.values[i - before]!,
        ),
      },
    ],
  };
  const room = { barometer_Pa: 101_325, temperature_K: 293.15, unit: null };
  const [stretch] = analyse(whole, room).stretches;
  expect(stretch).toMatchObject({ kind: 'discharge' });
  expect(stretch!.from_s).toBeGreaterThan(55);
  const constant = stretch!.results.find(({ id }) => id === 'store-constant')!.estimate;
  expect(constant).toMatchObject({ told: true, value: expect.closeTo(200, -1) as number });
  const still = {
    ...whole,
    channels: [{ ...whole.channels[0]!, values: whole.time_s.map((_, i) => 13.5 + 0.01 * Math.sin(3 * i)) }],
  };
  expect(analyse(still, room).stretches.filter(({ kind }) => kind === 'discharge')).toEqual([]);
});
