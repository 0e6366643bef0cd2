/** @jest-environment node */
import fc from 'fast-check';
import { stepTime_s } from '../electric/motor-booster';
import { withFault } from '../contract/family';
import type { Heard } from '../contract/vehicle-interface';
import { installation } from '../model/installation';
import { Running } from '../model/running';
import { benchOf } from '../scenarios/bench';
import { loadCell } from './bench-members';
import { FAMILIES } from './registry';
import { readingOf } from '../model/vectors';
import { batterySupply, member as supply } from './battery-supply/index';
import { member as brakes, wheelBrakes } from './wheel-brakes/index';
import { electromechanical, member as booster } from './electromechanical/index';

const { typical: battery } = batterySupply;
const typical = { ...electromechanical.typical, spring_N: 80 };
const model = installation({ source: supply, unit: booster, load: brakes });
const load = { ...wheelBrakes.typical, pedalRatio: typical.pedalRatio };
const profiles = (change: { source?: object; unit?: object } = {}) => ({
  source: { ...battery, ...change.source },
  unit: { ...typical, ...change.unit },
  load,
});
const ROOM = { barometer_Pa: 101_325, elapsed_s: 0 };
const shows = (reading: string, inputs: object, of = profiles()) =>
  readingOf(
    model,
    model.healthy(of as never).values,
    { ...ROOM, pedal_N: 0, volts_V: 12.6, ...inputs },
    reading,
  );
/** A force at the rod, as the pedal makes it. */
const rod = (input_N: number) => ({ pedal_N: input_N / typical.pedalRatio });

describe('a booster with a motor on its supply, handbook-models 8.8', () => {
  test('holds 2 970 N at 600 by 40.8 A: 0.09·40.83² + 8 = 158 W, 12.34 V at its control unit behind 20 mΩ', () => {
    const at = rod(600);
    expect(shows('output', at)).toBeCloseTo(2970, 3);
    expect(shows('current', at)).toBeCloseTo(40.83, 2);
    // ½·[12.6 + √(12.6² − 4·0.02·158.06)] = 12.344; 12.80 A.
    expect(shows('terminals', at)).toBeCloseTo(12.344, 3);
    expect(shows('source.current', at)).toBeCloseTo(12.804, 2);
    expect(shows('source.feed', at)).toBeCloseTo(12.804 * 0.008, 4);
    expect(shows('source.earth', at)).toBeCloseTo(12.804 * 0.004, 4);
  });
  test('on 12.0 V behind 120 mΩ it holds 45.9 A at the most: 2.76 kN of assist and not 3.6, with the same gain before', () => {
    const weak = profiles({ source: { battery_V: 12, feed_Ohm: 0.108, own_Ohm: 0.008, earth_Ohm: 0.004 } });
    const at = { ...rod(1500), volts_V: 12 };
    expect(shows('current', at, weak)).toBeCloseTo(45.9, 1);
    expect(shows('terminals', at, weak)).toBeCloseTo(9.5, 3);
    expect(shows('output', at, weak)).toBeCloseTo(1500 - 80 + 2756, 0);
    expect(shows('output', { ...rod(300), volts_V: 12 }, weak)).toBeCloseTo(120 + 5 * 270, 3);
  });
  test('with the power off the foot alone: (F_in − F_s − F_f)/A_mc, and no track says anything', () => {
    const off = { ...rod(600), volts_V: 0 };
    expect(shows('output', off)).toBeCloseTo(600 - 60 - 80, 6);
    expect([shows('current', off), shows('track1', off), shows('terminals', off)]).toEqual([0, 0, 0]);
  });
  test('a battery at or below what it switches off at gives no assist', () => {
    expect(shows('output', { ...rod(600), volts_V: 9.4 })).toBeCloseTo(460, 6);
  });
  test('eased off, the pressure first falls 2·F_f/g lower at the rod: 24 N, some 6.9 at the pedal', () => {
    const { pedal_N } = rod(600);
    expect(pedal_N - shows('falls', rod(600))).toBeCloseTo(24 / 3.5, 6);
  });
  test('at rest its tracks stand at a tenth and nine tenths of their supply; a magnet moves both, swapped they change places', () => {
    expect([shows('track1', {}), shows('track2', {})]).toEqual([0.5, 4.5]);
    const put = (id: string, value: number) => {
      const { values } = model.healthy(profiles() as never);
      const place = model.parameters.findIndex((one) => one.id === id);
      return (reading: string) =>
        readingOf(model, values.with(place, value), { ...ROOM, pedal_N: 0, volts_V: 12.6 }, reading);
    };
    const displaced = put('magnet_m', 1e-3);
    expect([displaced('track1'), displaced('track2')].map((volts) => volts.toFixed(3))).toEqual([
      '0.600',
      '4.400',
    ]);
    const swapped = put('swapped', 1);
    expect([swapped('track1'), swapped('track2')]).toEqual([4.5, 0.5]);
  });
});

describe('what each test of it tells, handbook-models 8.8', () => {
  const { bench, faultyTruth, truthWith, family } = benchOf('electromechanical');
  const verdicts = (fault: string, severity: number) =>
    Object.fromEntries(
      bench(faultyTruth(fault, severity)).results.map(({ id, verdict }) => [id, verdict] as const),
    );

  test.each([
    ['feed-poor', 'feed-drop', 'earth-drop'],
    ['earth-poor', 'earth-drop', 'feed-drop'],
  ])(
    '%s: named by what is lost there; the booster, asked at what it was left, meets its limits',
    (fault, lost, sound) => {
      const { results, assessment } = bench(faultyTruth(fault, 0.8));
      const found = Object.fromEntries(results.map(({ id, verdict }) => [id, verdict]));
      expect([found[lost], found[sound]]).toEqual(['fails', 'meets']);
      expect(assessment.call).toBe('weak-supply');
      // Runout comes early, and is expected to.
      const runout = (of: typeof results) => of.find(({ id }) => id === 'runout')!;
      expect(runout(results).value!).toBeLessThan(0.8 * (runout(bench(truthWith()).results).value ?? 0));
      expect(runout(results).verdict).toBe('meets');
    },
  );
  test.each([0.9, 0.95, 1])(
    'on a battery below where it switches off, %d, nothing of the booster is called faulty',
    (severity) => {
      const { results, assessment } = bench(faultyTruth('battery-low', severity));
      const failing = results.filter(({ verdict }) => verdict === 'fails');
      expect(failing.filter(({ about }) => about === 'unit').map(({ id }) => id)).toEqual([]);
      expect(failing.map(({ id }) => id)).toContain('battery');
      expect(assessment.call).toBe('weak-supply');
    },
  );
  test('resistance in the feed moves runout, and nothing of the gain before', () => {
    const poor = profiles({ source: { feed_Ohm: 0.3 } });
    for (const input_N of [100, 200, 300])
      expect(shows('output', rod(input_N), poor)).toBeCloseTo(shows('output', rod(input_N)), 6);
    expect(shows('runoutPedal', rod(300), poor)).toBeLessThan(0.7 * shows('runoutPedal', rod(300)));
  });
  test('tracks that are swapped, and a magnet that is displaced: their sum says nothing of either, the rest does', () => {
    for (const [fault, severity] of [
      ['tracks-swapped', 1],
      ['magnet-displaced', 0.6],
    ] as const) {
      const found = verdicts(fault, severity);
      expect([found['sum-rest'], found['sum-pressed']]).toEqual(['meets', 'meets']);
      expect([found['rest-1'], found['rest-2']]).toEqual(['fails', 'fails']);
    }
    const drifted = verdicts('track-drift', 0.8);
    expect([drifted['sum-rest'], drifted['rest-1'], drifted['rest-2']]).toEqual(['fails', 'fails', 'meets']);
  });
  test('with the power off the pedal reaches the master: read, and not by a word of the profile', () => {
    const { results } = bench(truthWith());
    const alone = results.find(({ id }) => id === 'unpowered')!;
    // (3.5·130 − 150 − 60)/(π/4 · 28.6² mm²) = 3.81 bar.
    expect(alone.expected! / 1e5).toBeCloseTo(3.81, 1);
    expect(alone.verdict).toBe('meets');
    expect(verdicts('gear-binds', 0.5).unpowered).toBe('fails');
  });
  test('behind a load of one stiffness, with nothing from the foot, a stamp takes as long as the closed form', () => {
    const stiff_NPerM = 3e5;
    const spring = installation({ source: supply, unit: booster, load: loadCell });
    // A spring that takes all of the foot: the motor carries everything.
    const unit = { ...typical, spring_N: 350, jump_N: 120, crack_N: 30 };
    const of = {
      source: { ...battery, own_Ohm: 0, feed_Ohm: 0, earth_Ohm: 0 },
      unit,
      load: { loadStiffness_NPerM: stiff_NPerM },
    };
    const read = (reading: string) =>
      readingOf(spring, spring.healthy(of).values, { ...ROOM, pedal_N: 100, volts_V: 12.6 }, reading);
    // 120 + 5·(350 − 30) = 1 720 N.
    expect(read('output')).toBeCloseTo(1720, 3);
    const { delay_s, stall_N, free_mPerS } = unit;
    const closed_s = stepTime_s(0.9 * 1720, { delay_s, stall_N, free_mPerS, stiffness_NPerM: stiff_NPerM });
    expect(read('step')).toBeCloseTo(closed_s, 4);
  });
  test('let go it is back after √(2·m·x/(F_s − F_f)): √(2·1.5·0.04/90) = 36.5 ms, and never where friction is more', () => {
    const { values } = family.healthy(family.typical);
    const at = { ...ROOM, ...family.full(family.typical), temperature_K: 293.15 };
    const back = (unit: readonly number[]) => readingOf(family, unit, at, 'returns');
    expect(back(values)).toBeCloseTo(0.0365, 4);
    expect(back(family.faults.find(({ id }) => id === 'gear-binds')!.apply(values, 0.5))).toBe(5);
  });
});

test.each([
  [13, /must stand above the voltage at which the booster switches off/],
  [6.2, /at half of the battery’s voltage at least/],
])('a booster that switches off at %s V on 12.6 is refused with the relation', (cutOff_V, says) => {
  for (const kind of ['electromechanical', 'electromechanical-vehicle'] as const) {
    const { profile, typical: whole } = FAMILIES[kind];
    const { unit } = whole as { unit: object };
    const parsed = profile.safeParse({ ...(whole as object), unit: { ...unit, cutOff_V } });
    expect(parsed.error?.issues.map(({ message }) => message)).toEqual([expect.stringMatching(says)]);
  }
});

describe('the same over time', () => {
  const { family } = benchOf('electromechanical');
  const unit = (fault?: readonly [string, number]) =>
    withFault(family, family.healthy(family.typical).values, fault);
  const room = { barometer_Pa: 101_325, temperature_K: 293.15, supply_Pa: 0 };
  const running = (vector: readonly number[]) =>
    new Running(family.motion!, vector, room, family.ports.length);
  const seen = (bench: Running) =>
    Object.fromEntries(family.ports.map(({ id }, i) => [id, bench.read()[i]!] as const));
  const steady = (vector: readonly number[], pedal_N: number, volts_V: number, reading: string) =>
    readingOf(family, vector, { ...room, ...family.full(family.typical), pedal_N, volts_V }, reading);

  test('pressed and held it ends where the closed forms say, with power and without', () => {
    fc.assert(
      fc.property(fc.integer({ min: 70, max: 300 }), fc.boolean(), (pedal_N, power) => {
        const vector = unit();
        const bench = running(vector);
        bench.set({ power });
        bench.advance(1);
        bench.set({ pedal_N, press_NPerS: 300 });
        bench.advance(4);
        const volts_V = power ? 12.6 : 0;
        const { output, motor, current } = seen(bench);
        expect(output! / steady(vector, pedal_N, volts_V, 'load.pressure')).toBeCloseTo(1, 2);
        expect(motor).toBeCloseTo(steady(vector, pedal_N, volts_V, 'current'), 0);
        expect(current).toBeCloseTo(steady(vector, pedal_N, volts_V, 'source.current'), 0);
      }),
      { numRuns: 12, endOnFailure: true },
    );
  });
  test('on a poor feed the control unit takes its current back: 9.5 V are left at its plug, and no more', () => {
    const vector = unit(['feed-poor', 0.9]);
    const bench = running(vector);
    bench.set({ power: true });
    bench.advance(1);
    bench.set({ pedal_N: 220, press_NPerS: 150 });
    bench.advance(5);
    expect(seen(bench).plug).toBeCloseTo(9.5, 1);
    expect(seen(bench).motor).toBeCloseTo(steady(vector, 220, 12.6, 'current'), 0);
  });
  test('eased off, the pressure stays until friction lets it go, and a gear that binds keeps some of it for good', () => {
    const eased = (vector: readonly number[], to_N: number) => {
      const bench = running(vector);
      bench.set({ power: true });
      bench.advance(1);
      bench.set({ pedal_N: 150, press_NPerS: 300 });
      bench.advance(3);
      const held = seen(bench).output!;
      bench.set({ pedal_N: to_N, press_NPerS: 50 });
      bench.advance(5);
      return seen(bench).output! / held;
    };
    // 2F_f/g = 24 N at the rod, 6.9 at the pedal.
    expect(eased(unit(), 146)).toBeCloseTo(1, 3);
    expect(eased(unit(), 135)).toBeLessThan(0.95);
    expect(eased(unit(), 0)).toBeLessThan(1e-3);
    expect(eased(unit(['gear-binds', 0.8]), 0)).toBeGreaterThan(0.05);
  });

  test('the vehicle’s own control unit tells both tracks and their supply: at rest, pressed, and swapped', () => {
    const heard = (vector: readonly number[]) => {
      const bench = running(vector);
      bench.set({ power: true });
      bench.advance(1);
      const log: Heard[] = [];
      for (let n = 0; n < 60; n += 1) {
        if (n === 20) bench.set({ pedal_N: 150, press_NPerS: 300 });
        bench.advance(0.1);
        log.push({ t_s: n / 10, values: bench.tells(), asked: [] });
      }
      return electromechanical.throughInterface!.tracks!.tells(log, electromechanical.typical);
    };
    const sound = heard(unit());
    expect(sound.says).toEqual([]);
    expect(sound.found[0]).toMatchObject({ found: { told: true, value: expect.closeTo(0, 6) as number } });
    expect(heard(unit(['tracks-swapped', 1])).says[0]!.text).toMatch(/they are swapped/);
    expect(heard(unit(['track-railed', 1])).says[0]!.text).toMatch(/^Track 1 stands still/);
  });
});
