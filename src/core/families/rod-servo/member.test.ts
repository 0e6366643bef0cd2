import fc from 'fast-check';
import { healthyBand } from '../../procedure/predict';
import { inputVector, moving, placeOf } from '../../model/vectors';
import { type Vector } from '../../model/descriptor';
import { rodServoProfile } from './profile';
import { rodServo } from './index';
import { named, type ReadingId } from './member';
import { typical } from './typical';

const BAR = 1e5;
const INHG = 3386.389;
const { inputs, parameters, readings } = rodServo;
const unit = rodServo.healthy(typical).values;

interface Where {
  readonly input_Pa?: number;
  readonly supply_Pa?: number;
  readonly elapsed_s?: number;
  readonly applications?: number;
}
const at = (
  reading: ReadingId,
  { input_Pa = 0, supply_Pa = 20 * INHG, elapsed_s = 0, applications = 0 }: Where,
  who: Vector = unit,
) =>
  rodServo.steady(
    who,
    inputVector(inputs, {
      input_Pa,
      supply_Pa,
      elapsed_s,
      applications,
      barometer_Pa: 101_325,
      temperature_K: 293.15,
    }),
  )[placeOf(readings, reading)]!;

/** The unit with some parameters changed. */
const withParameters = (change: Partial<ReturnType<typeof named>>) =>
  moving(parameters)(() => change)(unit, 1);

describe('the typical servo, worked by hand', () => {
  // A 0.02 m², F_s0 100 N, k_s 2 N/mm against a load of 60 N/mm: what is left is 1/(1 + 2/60) = 0.967742 of the push.
  // 20 inHg = 67 727.78 Pa: push 1 354.556 − 100 = 1 254.556 N, force 1 214.086 N, the rod out by 20.235 mm.
  test('full lift, 20 inHg: 1 214 N', () => {
    expect(at('output', { input_Pa: 12 * BAR })).toBeCloseTo(1214.086, 1);
  });
  test('4.75 bar is half way from 1.5 to 8: half the vacuum, (677.278 − 100)·0.967742 = 558.656 N', () => {
    expect(at('output', { input_Pa: 4.75 * BAR })).toBeCloseTo(558.656, 1);
  });
  test('force begins once the vacuum brought to bear lifts the preload: 1.5 + 6.5·100/1354.556 = 1.980 bar', () => {
    expect(at('beginInput', {}) / BAR).toBeCloseTo(1.97986, 4);
    expect(at('output', { input_Pa: 1.97 * BAR })).toBe(0);
    expect(at('output', { input_Pa: 1.99 * BAR })).toBeGreaterThan(0);
  });
  test('no vacuum, no brake; a push-through of 2 cm² at 12 bar gives (240 − 100)·0.967742 = 135.48 N', () => {
    expect(at('outputWithout', { input_Pa: 12 * BAR })).toBe(0);
    expect(at('output', { input_Pa: 12 * BAR, supply_Pa: 0 })).toBe(0);
    const pushing = withParameters({ pushArea_m2: 2e-4 });
    expect(at('outputWithout', { input_Pa: 12 * BAR, supply_Pa: 0 }, pushing)).toBeCloseTo(135.484, 2);
  });
  test('the rod stops at its stroke: 10 mm of it against 60 N/mm is 600 N', () => {
    expect(at('output', { input_Pa: 12 * BAR }, withParameters({ stroke_m: 0.01 }))).toBeCloseTo(600, 6);
  });
  test('an application takes what handbook 4 says', () => {
    // First: the stroke presses 9.2 L to 9.2 − 0.02·x L. With x = 19.72 mm: front 33 597.2·9.2/8.80564 = 35 101.9 Pa abs,
    // Δp 66 223.1 Pa, force (1 324.46 − 100)·0.967742 = 1 184.96 N, x = 19.749 mm: settled.
    expect(at('reserveForce', { input_Pa: 12 * BAR, applications: 1 })).toBeCloseTo(1184.96, 0);
    // Δp′ = (67 727.78·9.2 − 101 325·0.02·19.749)/9.45 = (623 095.6 − 40 021.3)/9.45 = 61 700.6 Pa = 18.220 inHg.
    // Ten seconds of a leak of 0.125 inHg a minute: 0.021 inHg less.
    expect(at('tankUsed', { input_Pa: 12 * BAR, applications: 1 }) / INHG).toBeCloseTo(18.2, 2);
  });
  test('six useful applications from a full tank and more', () => {
    const forces = [1, 2, 3, 4, 5, 6].map((applications) =>
      at('reserveForce', { input_Pa: 12 * BAR, applications }),
    );
    expect(forces.every((force, i) => i === 0 || force < forces[i - 1]!)).toBe(true);
    expect(forces.at(-1)!).toBeGreaterThan(typical.limits.reserveForce_N.value);
  });
  test('a tank loses a quarter of its limit: 0.125 inHg a minute at sea level', () => {
    expect((20 * INHG - at('tankLeft', { elapsed_s: 60 })) / INHG).toBeCloseTo(0.125, 6);
  });
  test('apply: the working side filled through 3 mm, release: emptied through 4 mm', () => {
    // C = (π/4·d²)·0.84·0.684731/(1.185·√(288·293.15)): 1.18070e-8 and 2.09902e-8; C·1.185·288·293.15 = C·100 046.2.
    // Full force 1 214.086 N, 20.235 mm. 90 %: Δp (1 092.677·1.033333 + 100)/0.02 = 61 455, 95 052.2 Pa abs, 18.211 mm.
    // Taken up: 95 052.2·0.614226 L − 33 597.2·0.25 L over 61 455 Pa: 0.813346 L; T = 0.68855 s.
    // r from 0.331579 to 0.938092: choked 0.168421, bent 0.5·asin(0.876184) = 0.534043: 0.48368 s.
    expect(at('applyTime', { input_Pa: 12 * BAR })).toBeCloseTo(0.48368, 3);
    // Back to 10 %: 44 870 Pa abs, 2.0235 mm. Given up: 101 325·0.654697 − 44 870·0.290470 over 56 455: 0.94419 L;
    // T = 0.44962 s. Choked ln(101 325/67 194.4) = 0.41077; r = 0.74877, θ = asin(0.49753) = 0.52074:
    // tan(0.26037 − 0.785398) + 1 = 0.42086. 0.44962·0.83163 = 0.37392 s.
    expect(at('releaseTime', { input_Pa: 12 * BAR })).toBeCloseTo(0.37392, 3);
  });
  test('the band of the force is the area’s 8 % at full lift', () => {
    const { values, tolerances } = rodServo.healthy(typical);
    const band = healthyBand((p) => at('output', { input_Pa: 12 * BAR }, p), { values, tolerances });
    expect(band.high).toBeCloseTo((1.08 * 1354.556 - 100) * 0.967742, 1);
    expect(band.low).toBeCloseTo((0.92 * 1354.556 - 100) * 0.967742, 1);
  });
});

describe('the twin', () => {
  const pressure = fc.double({ min: 0, max: 20 * BAR, noNaN: true });
  const vacuum = fc.double({ min: 0, max: 27 * INHG, noNaN: true });
  test('more pressure or more vacuum never gives less force', () => {
    fc.assert(
      fc.property(
        pressure,
        vacuum,
        fc.double({ min: 0, max: BAR, noNaN: true }),
        (input_Pa, supply_Pa, more) => {
          const here = at('output', { input_Pa, supply_Pa });
          expect(at('output', { input_Pa: input_Pa + more, supply_Pa })).toBeGreaterThanOrEqual(here);
          expect(at('output', { input_Pa, supply_Pa: supply_Pa + more / 10 })).toBeGreaterThanOrEqual(here);
        },
      ),
    );
  });
  test('the n-th application is the first one on what those before left, each with the leak of its ten seconds', () => {
    const leaking = withParameters({ leak_m3PerSPa: 40 * named(unit).leak_m3PerSPa });
    fc.assert(
      fc.property(vacuum, fc.integer({ min: 1, max: 8 }), (supply_Pa, applications) => {
        const input_Pa = 12 * BAR;
        const used = at('tankUsed', { input_Pa, supply_Pa, applications }, leaking);
        const next = at('reserveForce', { input_Pa, supply_Pa, applications: applications + 1 }, leaking);
        expect(next).toBeCloseTo(
          at('reserveForce', { input_Pa, supply_Pa: used, applications: 1 }, leaking),
          5,
        );
        expect(used).toBeLessThanOrEqual(at('tankLeft', { supply_Pa, elapsed_s: 10 }, leaking));
      }),
    );
  });
  test.each([0, 0.05, 0.1])(
    'a pull-down against the pump of the bench, a leak of %d of the line: step by step',
    (part) => {
      const { line_m3PerSPa, frontVolume_m3, rearVolume_m3, tank_m3 } = named(unit);
      const leak_m3PerSPa = part * line_m3PerSPa;
      // ISO 6358 at 20 °C: C·p·1.185·288·293.15·share, the share 1 to p₂/p = 0.5, then √(1 − ((r − 0.5)/0.5)²).
      const flow = (conductance: number, high: number, low: number) =>
        conductance *
        high *
        100_046.2 *
        Math.sqrt(1 - Math.min(1, Math.max(0, (low / high - 0.5) / 0.5)) ** 2);
      const halved = (low: number, high: number, isLow: (x: number) => boolean) => {
        let [from, to] = [low, high];
        for (let i = 0; i < 60; i += 1) {
          const half = (from + to) / 2;
          [from, to] = isLow(half) ? [half, to] : [from, half];
        }
        return from;
      };
      // The gauge at the tank shows 20 inHg at rest: the pump, of 4 L/s, reaches deeper by what it has to take away.
      const rest = 101_325 - 20 * INHG;
      const leaked = flow(leak_m3PerSPa, 101_325, rest);
      const before = halved(0.2 * rest, rest, (node) => flow(line_m3PerSPa, rest, node) > leaked);
      const reach = (leaked > 0 ? before : rest) - leaked / 4e-3;
      const mark = 101_325 - typical.pullDownTo_Pa;
      const steps = 2000;
      let time = 0;
      for (let i = 0; i < steps; i += 1) {
        const tank = mark + ((i + 0.5) / steps) * (101_325 - mark);
        const node = halved(reach, tank, (one) => 4e-3 * (one - reach) < flow(line_m3PerSPa, tank, one));
        time += (101_325 - mark) / steps / (4e-3 * (node - reach) - flow(leak_m3PerSPa, 101_325, tank));
      }
      const expected = (frontVolume_m3 + rearVolume_m3 + tank_m3) * time;
      expect(at('pullDown', {}, withParameters({ leak_m3PerSPa })) / expected).toBeCloseTo(1, 2);
    },
  );
  test('a tighter line makes the release slower in proportion, the pull-down less: the pump has its part in it', () => {
    const tight = withParameters({ line_m3PerSPa: named(unit).line_m3PerSPa / 4 });
    const times = (reading: 'releaseTime' | 'pullDown') =>
      at(reading, { input_Pa: 12 * BAR }, tight) / at(reading, { input_Pa: 12 * BAR });
    expect(times('releaseTime')).toBeCloseTo(4, 6);
    expect(times('pullDown')).toBeGreaterThan(2);
    expect(times('pullDown')).toBeLessThan(4);
  });
});

describe('profile', () => {
  const messages = (change: object) =>
    rodServoProfile
      .safeParse({ ...typical, ...change })
      .error?.issues.map(({ path, message }) => [path.join('.'), message]) ?? [];
  test.each([
    [{ fullLift_Pa: BAR }, 'fullLift_Pa', /after crack/],
    [{ fullInput_Pa: 7 * BAR }, 'fullInput_Pa', /above full lift/],
    [{ fullInput_Pa: 70 * BAR }, 'fullInput_Pa', /proof limit/],
    [{ frontVolume_m3: 0.5e-3 }, 'frontVolume_m3', /more than the stroke takes/],
    [{ pullDownTo_Pa: 20 * INHG }, 'pullDownTo_Pa', /no deeper/],
    [{ preload_N: undefined }, 'preload_N', /number is needed/],
    [
      { limits: { ...typical.limits, applications: { value: 5.5, source: 'x' } } },
      'limits.applications.value',
      /whole number/,
    ],
  ])('%j is refused at the field', (change, path, message) => {
    expect(messages(change).find(([where]) => where === path)?.[1]).toMatch(message);
  });
});
