/** @jest-environment node */
import { meteredPressure_Pa, meteringHysteresis_Pa } from '../fluid/metering-valve';
import { gaussian, seeded } from '../numeric/chance';
import { sweep } from './sweep';
import { wholeOf, type Trace } from './trace';

const BAR = 1e5;
/** Handbook-models 8.7. */
const valve = { spring_NPerM: 160e3, starts_m: 1.5e-3, preload_N: 35, friction_N: 30, area_m2: 2.01e-4 };
const second = { ...valve, preload_N: 60 };

/** Pressed to 14.4 mm in 12 s and let go in as long, with what the valve lets through at each travel. */
function logged({
  friction_N = 30,
  noise_bar = 0.2,
  swings_bar = 0,
  circuits = 2,
  down = true,
  seed = 3,
} = {}): Trace {
  const random = seeded(seed);
  const seconds = down ? 24 : 12;
  const time_s = Float64Array.from({ length: seconds * 50 }, (_, i) => i / 50);
  const travel = time_s.map((t) => (t < 12 ? t : 24 - t) * 1.2e-3);
  const of = (one: typeof valve) =>
    travel.map((x, i) => {
      const way = time_s[i]! < 12 ? 'up' : 'down';
      const swings = swings_bar * Math.sin(2 * Math.PI * 1.3 * time_s[i]!);
      return (
        meteredPressure_Pa({ ...one, friction_N }, x, way, 0, 90 * BAR) +
        (swings + noise_bar * gaussian(random)) * BAR
      );
    });
  const channel = (name: string, quantity: 'travel' | 'pressure', values: Float64Array) => ({
    name,
    port: name,
    quantity,
    values,
  });
  return {
    time_s,
    channels: [
      channel(
        'travel',
        'travel',
        travel.map((x) => x + 2e-5 * gaussian(random)),
      ),
      ...[valve, second].slice(0, circuits).map((one, i) => channel(`p${i}`, 'pressure', of(one))),
    ],
  };
}
const swept = (trace: Trace) => {
  const [travel, ...circuits] = trace.channels;
  return sweep(trace, travel!, circuits, wholeOf(trace));
};

test('slope k_s/A, hysteresis 2·F_f/A, match F_d/A, and the accumulator’s pressure at the top', () => {
  const { slopes, hysteresis, match, greatest } = swept(logged());
  for (const slope of slopes) expect(slope.told && slope.value / (160e3 / 2.01e-4)).toBeCloseTo(1, 2);
  for (const one of hysteresis) {
    const off = one.told ? Math.abs(one.value - meteringHysteresis_Pa(valve)) : NaN;
    expect(off).toBeLessThan(one.told ? 3 * one.u : 0);
  }
  expect(match.told && Math.abs(match.value + 25 / 2.01e-4)).toBeLessThan(match.told ? 3 * match.u : 0);
  for (const most of greatest) expect(most.told && Math.abs(most.value / (90 * BAR) - 1)).toBeLessThan(0.02);
});

test('the stated limits of slope, hysteresis and match hold the truth', () => {
  let [held, all] = [0, 0];
  for (let seed = 1; seed <= 60; seed += 1) {
    const friction_N = 15 + 2 * seed;
    const { slopes, hysteresis, match } = swept(logged({ seed: 100 + seed, friction_N }));
    for (const [found, truth] of [
      [slopes[0]!, 160e3 / 2.01e-4],
      [hysteresis[0]!, (2 * friction_N) / 2.01e-4],
      [match, -25 / 2.01e-4],
    ] as const)
      if (found.told) {
        all += 1;
        if (Math.abs(found.value - truth) <= 1.96 * found.u) held += 1;
      }
  }
  expect(all).toBe(180);
  // Of 180 at 95 %, 161 or fewer come less than once in five hundred.
  expect(held).toBeGreaterThan(161);
});

test('one circuit has no match, a pedal that was not let go no hysteresis: each is said', () => {
  const one = swept(logged({ circuits: 1 }));
  expect(one.match.told ? null : one.match.why.text).toMatch(/one circuit only/);
  const pressed = swept(logged({ down: false }));
  expect(pressed.slopes[0]!.told).toBe(true);
  const [hysteresis] = pressed.hysteresis;
  expect(hysteresis!.told ? null : hysteresis!.why.text).toMatch(/pressed and let go/);
});

test('a valve that hunts on its way has no slope and no hysteresis that could be told, and that is said', () => {
  const { slopes, hysteresis, match, greatest } = swept(logged({ swings_bar: 6 }));
  for (const one of [...slopes, ...hysteresis, match])
    expect(one.told ? null : one.why.text).toMatch(/does not rise and fall evenly/);
  expect(greatest.every(({ told }) => told)).toBe(true);
});
