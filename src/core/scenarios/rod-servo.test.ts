import fc from 'fast-check';
import type { RodServoProfile } from '../families/rod-servo/index';
import { printSentence } from '../quantities/sentence';
import { analyse } from '../signals/analyse';
import { placeOf, readingOf } from '../model/vectors';
import { type Vector } from '../model/descriptor';
import { Running } from '../model/running';
import { recordBench, reserveTest } from '../twin/recording';
import { BAR, benchOf, INHG } from './bench';

const { family, contextWith, truthWith, faultyTruth, bench, ...rest } = benchOf('rod-servo');
const profile = rest.profile as RodServoProfile;
const healthy = family.healthy(profile).values;
const ROOM = { barometer_Pa: 101_325, temperature_K: 293.15 };

describe('a servo on the bench', () => {
  test('healthy, over seeded noise: every limit met', () => {
    for (let seed = 1; seed <= 12; seed++) {
      const { results, assessment } = bench(truthWith({ noise_steps: 0.3 }), contextWith(), seed);
      expect(results.filter((r) => r.verdict !== 'meets' && r.verdict !== 'noted').map((r) => r.id)).toEqual(
        [],
      );
      expect(assessment.call).toBe('healthy');
    }
  });
  test('full force, area and torque are what the twin test works out by hand', () => {
    const { byId } = bench(truthWith());
    expect(Math.abs(byId('full-force').value! - 1214.1)).toBeLessThan(1);
    expect(byId('effective-area').value!).toBeCloseTo(0.02, 4);
    // 1 214.1 N on a lever of 140 mm.
    expect(Math.abs(byId('lever-torque').value! - 169.97)).toBeLessThan(0.2);
    expect(byId('useful-applications').value).toBe(8);
  });
  test('on a weak supply it makes less force, and is called healthy on a weak supply', () => {
    const { byId, assessment } = bench(truthWith({ supply_Pa: 14 * INHG }));
    expect(byId('full-force').verdict).toBe('meets');
    // (14·3 386.389·0.02 − 100)·0.967742 = 820.8 N.
    expect(Math.abs(byId('full-force').value! - 820.8)).toBeLessThan(2);
    expect(assessment.call).toBe('weak-supply');
    const words = assessment.reasons.map((reason) => printSentence(reason, 'mixed')).join(' ');
    expect(words).toMatch(
      /the tank reads 14\.0.*needs 16\.0 inHg\. On it a healthy unit makes 8\d\d N instead of 9\d\d N/,
    );
  });
  const FOUND: Readonly<Record<string, readonly string[]>> = {
    'torn-piston': ['effective-area', 'full-force', 'reserve-force'],
    'undersized-piston': ['effective-area', 'full-force'],
    'seat-leak-atmosphere': ['static-loss', 'intake-hiss'],
    'seat-leak-vacuum': ['full-force', 'reserve-force'],
    'valve-sticking': ['force-begins', 'residual', 'lever-back'],
    'check-valve-leak': ['static-loss', 'standing-loss', 'line-clamped'],
    'tank-leak': ['static-loss', 'tank-hiss'],
    'restricted-line': ['release-time'],
    'weak-spring': ['residual', 'lever-back'],
    'fluid-seal-leak': ['vacuum-side-fluid', 'fluid-level'],
  };
  test.each(family.faults.map(({ id }) => id))('%s, severe, fails where it shows', (id) => {
    const { results, assessment } = bench(faultyTruth(id, 0.9, { noise_steps: 0.2 }));
    const failing = results.filter(({ verdict }) => verdict === 'fails').map((result) => result.id);
    expect(FOUND[id]).toBeDefined();
    expect(failing).toEqual(expect.arrayContaining([...FOUND[id]!]));
    expect(assessment.call).toBe('faulty');
  });
});

describe('a servo over time', () => {
  const onBench = (parameters: Vector, supply_Pa: number) =>
    new Running(family.motion!, parameters, { ...ROOM, supply_Pa }, family.ports.length);
  const read = (of: Running) => {
    const [input = 0, force = 0, tank = 0] = of.read();
    return { input, force, tank };
  };
  const steady = (parameters: Vector, input_Pa: number, supply_Pa: number, reading: string) =>
    readingOf(family, parameters, { input_Pa, supply_Pa, ...ROOM, elapsed_s: 0, applications: 1 }, reading);

  test('ends where the closed form is: random units, pressures and supplies, within 1 N and 0.4 %', () => {
    const unit = fc.record({
      effectiveArea_m2: fc.double({ min: 0.012, max: 0.03, noNaN: true }),
      preload_N: fc.double({ min: 60, max: 150, noNaN: true }),
      springRate_NPerM: fc.double({ min: 500, max: 6000, noNaN: true }),
      crack_Pa: fc.double({ min: BAR, max: 2 * BAR, noNaN: true }),
      fullLift_Pa: fc.double({ min: 6 * BAR, max: 10 * BAR, noNaN: true }),
      tank_m3: fc.double({ min: 5e-3, max: 15e-3, noNaN: true }),
      pushArea_m2: fc.constantFrom(null, 1e-4),
      frontVolume_m3: fc.constant(2e-3),
    });
    fc.assert(
      fc.property(
        unit,
        fc.double({ min: 8, max: 25, noNaN: true }),
        fc.double({ min: 0.5, max: 14, noNaN: true }),
        (change, supply_inHg, input_bar) => {
          const { values } = family.healthy({ ...profile, ...change });
          const one = onBench(values, supply_inHg * INHG);
          one.set({ valve: 'open' });
          one.advance(40);
          one.set({ handle_Pa: input_bar * BAR });
          one.advance(20);
          const seen = read(one);
          const force = steady(values, seen.input, seen.tank, 'output');
          expect(Math.abs(seen.force - force)).toBeLessThan(1 + 0.004 * force);
        },
      ),
      { numRuns: 20, seed: 2511 },
    );
  });
  test('a passage between the sides, of any size: nothing lost released, applied what the closed form says', () => {
    const place = placeOf(family.parameters, 'tear_m3PerSPa');
    fc.assert(
      fc.property(
        fc.double({ min: -10, max: -8, noNaN: true }),
        fc.double({ min: 12, max: 24, noNaN: true }),
        fc.double({ min: 2, max: 14, noNaN: true }),
        (exponent, supply_inHg, input_bar) => {
          const torn = healthy.with(place, 10 ** exponent);
          const one = onBench(torn, supply_inHg * INHG);
          one.set({ valve: 'open' });
          one.advance(60);
          const rest = read(one).tank;
          expect(Math.abs(rest - supply_inHg * INHG)).toBeLessThan(100);
          one.set({ handle_Pa: input_bar * BAR });
          one.advance(60);
          const seen = read(one);
          const says = (reading: string) => steady(torn, seen.input, rest, reading);
          // 0.5 % of the healthy unit's full force, and of the supply.
          expect(Math.abs(seen.force - says('output'))).toBeLessThan(0.005 * 1214);
          expect(Math.abs(seen.tank - says('supplyApplied'))).toBeLessThan(0.005 * rest);
        },
      ),
      { numRuns: 25, seed: 811 },
    );
  });
  test.each([null, 'restricted-line', 'torn-piston', 'check-valve-leak', 'valve-sticking'])(
    'the reserve, %s: each application held for 3 s of ten is what the closed form counts on, within 2 % of a full one',
    (id) => {
      const fault = family.faults.find((one) => one.id === id);
      const parameters = fault ? fault.apply(healthy, 0.6) : healthy;
      const one = onBench(parameters, 20 * INHG);
      // It was applied before: a valve that sticks keeps some of that.
      one.set({ valve: 'open', handle_Pa: 12 * BAR });
      one.advance(100);
      one.set({ handle_Pa: 0 });
      one.advance(100);
      one.set({ valve: 'shut' });
      const full = read(one).tank;
      const whole = steady(parameters, 12 * BAR, full, 'output');
      for (let n = 1; n <= 8; n += 1) {
        one.set({ handle_Pa: 12 * BAR, pull_PaPerS: 2000 * BAR });
        let force = 0;
        one.advance(3, 0.02, (_t, shown) => (force = Math.max(force, shown[1]!)));
        const at = { input_Pa: 12 * BAR, supply_Pa: full, ...ROOM, elapsed_s: 0, applications: n };
        expect(Math.abs(force - readingOf(family, parameters, at, 'reserveForce'))).toBeLessThan(
          0.02 * whole,
        );
        one.set({ handle_Pa: 0 });
        one.advance(7);
      }
    },
  );
  test('apply and release take the times that the closed form names, within a fifth and 50 ms', () => {
    for (const id of [null, 'restricted-line']) {
      const fault = family.faults.find((one) => one.id === id);
      const parameters = fault ? fault.apply(healthy, 0.6) : healthy;
      const one = onBench(parameters, 20 * INHG);
      one.set({ valve: 'open' });
      one.advance(200);
      const tank = read(one).tank;
      const full = steady(parameters, 12 * BAR, tank, 'output');
      const timed = (handle_Pa: number, done: (force: number) => boolean) => {
        one.set({ handle_Pa, pull_PaPerS: 2000 * BAR });
        const from = one.t_s;
        let at = Infinity;
        one.advance(20, 0.005, (t, shown) => {
          if (done(shown[1]!) && at === Infinity) at = t - from;
        });
        return at;
      };
      const apply = timed(12 * BAR, (force) => force >= 0.9 * full);
      const release = timed(0, (force) => force <= 0.1 * full);
      const named = (reading: string) => steady(parameters, 12 * BAR, tank, reading);
      expect(Math.abs(apply - named('applyTime'))).toBeLessThan(0.05 + 0.2 * named('applyTime'));
      expect(Math.abs(release - named('releaseTime'))).toBeLessThan(0.05 + 0.2 * named('releaseTime'));
    }
  });
  test('the non-return valve keeps the tank when the source is shut; the drain lets the room in', () => {
    const one = onBench(healthy, 20 * INHG);
    one.set({ valve: 'open' });
    one.advance(60);
    one.set({ valve: 'shut' });
    one.advance(60);
    // A quarter of 0.5 inHg/min is lost, by the healthy leak.
    expect(read(one).tank / INHG).toBeCloseTo(19.87, 1);
    one.set({ valve: 'vented' });
    one.advance(30);
    expect(read(one).tank).toBeLessThan(0.05 * INHG);
  });
  test('a sticking valve leaves its force behind, a free one none', () => {
    const stuck = family.faults.find(({ id }) => id === 'valve-sticking')!.apply(healthy, 1);
    for (const [parameters, left] of [
      [healthy, 0],
      [stuck, 180],
    ] as const) {
      const one = onBench(parameters, 20 * INHG);
      one.set({ valve: 'open' });
      one.advance(40);
      one.set({ handle_Pa: 14 * BAR });
      one.advance(10);
      one.set({ handle_Pa: 0 });
      one.advance(10);
      expect(Math.abs(read(one).force - left)).toBeLessThan(3);
    }
  });
  test('its trace tells begin, full lift, full force, area, air leak and reserve, and makes no ratio of a force', () => {
    const leaking = family.faults.find(({ id }) => id === 'tank-leak')!.apply(healthy, 0.47);
    const trace = recordBench(
      family,
      leaking,
      20 * INHG,
      ROOM,
      reserveTest({ input_Pa: 12 * BAR, applications: 9 }),
      {
        seed: 5,
        vacuumNoise_Pa: 60,
        pressureNoise_Pa: 2000,
        forceNoise_N: 2,
      },
    );
    expect(trace.channels.map(({ quantity }) => quantity)).toEqual(['pressure', 'force', 'depression']);
    const { stretches } = analyse(trace, { ...ROOM, unit: family.logged(profile) });
    expect(stretches.map(({ kind }) => kind)).toEqual(['pull', 'vacuum', 'reserve']);
    const results = stretches.flatMap((stretch) => stretch.results);
    expect(results.some(({ quantity }) => quantity === 'ratio')).toBe(false);
    const told = (id: string) => {
      const estimate = results.find((one) => one.id === id)?.estimate;
      if (!estimate?.told) throw new RangeError(`id: “${id}” was not told`);
      return estimate.value;
    };
    const truth = (reading: string) => steady(leaking, 12 * BAR, stretches[0]!.supply_Pa!, reading);
    // The pull takes 12 s: the force follows some tenths of a second, a tenth of a bar, behind.
    expect(Math.abs(told('force-begins') - truth('beginInput'))).toBeLessThan(0.25 * BAR);
    expect(Math.abs(told('full-lift') - truth('fullInput'))).toBeLessThan(0.35 * BAR);
    expect(Math.abs(told('full-force') / truth('output') - 1)).toBeLessThan(0.02);
    expect(Math.abs(told('effective-area') / profile.effectiveArea_m2 - 1)).toBeLessThan(0.02);
    const leak = leaking[placeOf(family.parameters, 'leak_m3PerSPa')]!;
    expect(Math.abs(told('air-leak') / leak - 1)).toBeLessThan(0.05);
    // The first slow application was made with the source on: it is none of the reserve.
    const [reserve] = stretches.slice(-1);
    expect(reserve!.from_s).toBeGreaterThan(130);
    const forces = [...trace.channels[1]!.values];
    const peaks = Array.from({ length: 9 }, (_, i) => {
      const at = Math.round((134 + 8 * i + 3) * 100);
      return forces.slice(at, at + 50).reduce((sum, f) => sum + f, 0) / 50;
    });
    expect(told('reserve')).toBe(peaks.findIndex((force) => force < profile.limits.reserveForce_N.value));
  });
  test('without a profile the reserve of a force is not counted; a pull short of full lift says how much further', () => {
    const trace = recordBench(
      family,
      healthy,
      20 * INHG,
      ROOM,
      [
        [{ valve: 'open' }, 40],
        [{ handle_Pa: 5 * BAR, pull_PaPerS: 0.4 * BAR }, 15],
        [{ handle_Pa: 0 }, 10],
        [{ valve: 'shut' }, 5],
        ...reserveTest({ input_Pa: 12 * BAR, applications: 6 }).slice(4),
      ],
      { seed: 6, vacuumNoise_Pa: 60, pressureNoise_Pa: 2000, forceNoise_N: 2 },
    );
    const { stretches } = analyse(trace, { ...ROOM, unit: null });
    expect(stretches.map(({ kind }) => kind)).not.toContain('reserve');
    const lift = stretches[0]!.results.find(({ id }) => id === 'full-lift')!.estimate;
    expect(lift.told ? '' : printSentence(lift.wanted!, 'mixed')).toMatch(/Pull on to more than 5\.0/);
  });
});
