/** @jest-environment node */
import { gaussian, seeded } from '../numeric/chance';
import { between } from '../scenarios/trial';
import { analyse } from './analyse';
import { valveOpening } from './valve-opening';
import type { Trace } from './trace';

const BAR = 1e5;
const ROOM = { barometer_Pa: 101_325, temperature_K: 293.15, unit: null };

interface Made {
  readonly opens_A: number;
  /** Of the wheel for each ampere beyond, Pa/s: below zero it falls. */
  readonly gain: number;
  readonly rest_Pa: number;
  /** How fast the current is raised, A/s; in steps of so much, or without. */
  readonly rate_APerS: number;
  readonly step_A: number;
  readonly noise_Pa: number;
  readonly seed: number;
}

const RATE_HZ = 50;
/** A current raised from 0.2 A below where a valve opens, and its wheel. */
function logged({ opens_A, gain, rest_Pa, rate_APerS, step_A, noise_Pa, seed }: Made): Trace {
  const random = seeded(seed);
  const from_A = opens_A - 0.2;
  const time_s = Float64Array.from(
    { length: Math.round((0.35 / rate_APerS) * RATE_HZ) },
    (_, i) => i / RATE_HZ,
  );
  const raised = (t: number) => {
    const by = rate_APerS * t;
    return from_A + (step_A > 0 ? step_A * Math.floor(by / step_A) : by);
  };
  // In finer steps of time than are logged.
  const FINE = 20;
  let pressure = rest_Pa;
  const true_Pa = time_s.map((t) => {
    const now = pressure;
    for (let k = 0; k < FINE; k += 1)
      pressure += (gain * Math.max(0, raised(t + k / FINE / RATE_HZ) - opens_A)) / FINE / RATE_HZ;
    return now;
  });
  return {
    time_s,
    channels: [
      { name: 'valve', port: 'valve', quantity: 'current', values: time_s.map(raised) },
      {
        name: 'wheel',
        port: 'rear-left',
        quantity: 'pressure',
        values: true_Pa.map((at) => at + noise_Pa * gaussian(random)),
      },
    ],
  };
}
const opening = (trace: Trace) =>
  valveOpening(trace, trace.channels[0]!, trace.channels[1]!, { from: 0, to: trace.time_s.length });
const USUAL: Made = {
  opens_A: 0.48,
  gain: 20 * BAR,
  rest_Pa: 0,
  rate_APerS: 0.03,
  step_A: 0,
  noise_Pa: 2000,
  seed: 1,
};

test('an apply valve that opens at 0.48 A, and a release valve by a wheel that falls from 20 bar', () => {
  const apply = opening(logged(USUAL));
  expect(apply.rises).toBe(true);
  expect(apply.opens).toMatchObject({ told: true, value: expect.closeTo(0.48, 2) as number });
  const release = opening(logged({ ...USUAL, opens_A: 1.12, gain: -30 * BAR, rest_Pa: 20 * BAR }));
  expect(release.rises).toBe(false);
  expect(release.opens).toMatchObject({ told: true, value: expect.closeTo(1.12, 2) as number });
});

test('the limits hold the truth in 92 to 99 of a hundred logs, raised in steps and without', () => {
  const SEEDS = 1000;
  const random = seeded(20_261_201);
  let held = 0;
  for (let seed = 1; seed <= SEEDS; seed += 1) {
    const made: Made = {
      opens_A: between(random, 0.3, 1.3),
      gain: between(random, 5, 60) * BAR * (seed % 3 === 0 ? -1 : 1),
      rest_Pa: seed % 3 === 0 ? 30 * BAR : 0,
      rate_APerS: between(random, 0.01, 0.05),
      step_A: seed % 2 === 0 ? between(random, 0.005, 0.02) : 0,
      noise_Pa: between(random, 500, 8000),
      seed,
    };
    const { opens } = opening(logged(made));
    if (!opens.told) throw new Error(opens.why.text);
    if (Math.abs(opens.value - made.opens_A) <= 2 * opens.u) held += 1;
  }
  expect(held / SEEDS).toBeGreaterThan(0.92);
  expect(held / SEEDS).toBeLessThan(0.99);
});

test('a wheel that never moves, and one that moves from the beginning, tell nothing, and say what would', () => {
  const why = (trace: Trace) => {
    const { opens } = opening(trace);
    return opens.told ? null : `${opens.why.text} ${opens.wanted?.text}`;
  };
  expect(why(logged({ ...USUAL, gain: 0 }))).toMatch(/does not move in the log\. Raise the current until/);
  const late = logged({ ...USUAL, gain: 2000 * BAR });
  const cut = {
    time_s: late.time_s.slice(400),
    channels: late.channels.map((one) => ({ ...one, values: one.values.slice(400) })),
  };
  expect(why(cut)).toMatch(/moves from the beginning|do not tell/);
});

test('of a log with four wheels the one that answers counts, and its result is called by what it does', () => {
  const trace = logged(USUAL);
  const still = (port: string) => ({
    ...trace.channels[1]!,
    name: port,
    port,
    values: trace.time_s.map((_, i) => 500 * Math.sin(i)),
  });
  const four = {
    ...trace,
    channels: [trace.channels[0]!, still('front-left'), trace.channels[1]!, still('rear-right')],
  };
  const { stretches } = analyse(four, ROOM);
  expect(stretches.map(({ kind }) => kind)).toEqual(['valve']);
  expect(stretches[0]!.results).toMatchObject([{ id: 'valve-apply', estimate: { told: true } }]);
});
