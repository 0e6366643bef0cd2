/** @jest-environment node */
import fc from 'fast-check';
import { airExchange_PaM3PerS, airFlow_PaM3PerS } from '../air/flow';
import { FAMILIES } from '../families/registry';
import type { RemoteVacuumProfile } from '../families/remote-vacuum/index';
import { lineGive_m3PerPa, PLUGGED_PORT, takenUp_m3 } from '../fluid/closed-line';
import { Running } from './running';
import { AT_ONCE, placeOf, readingOf } from './vectors';
import { type Vector } from './descriptor';

const BAR = 1e5;
const INHG = 3386.389;
const room = { barometer_Pa: 101_325, temperature_K: 293.15 };
const family = FAMILIES['remote-vacuum'];
const typical = family.typical as RemoteVacuumProfile;
const healthy = family.healthy(typical).values;

const benchOf = (parameters: Vector, supply_Pa: number, load = PLUGGED_PORT) => {
  const own = parameters.slice(0, placeOf(family.parameters, 'load.air_m3'));
  return new Running(
    family.motion!,
    [...own, load.air_m3, load.stiffness_m3PerPa],
    { ...room, supply_Pa },
    family.ports.length,
  );
};
const read = (bench: Running) => {
  const [input, output, supply, activation] = bench.read() as [number, number, number, number];
  return { input, output, supply, activation };
};
const steady = (parameters: Vector, input: number, supply: number, reading: string, elapsed = 0) =>
  readingOf(
    family,
    parameters,
    { input_Pa: input, supply_Pa: supply, ...room, ...AT_ONCE, elapsed_s: elapsed },
    reading,
  );
const faulty = (id: string, severity: number) =>
  family.faults.find((fault) => fault.id === id)!.apply(healthy, severity);

describe('air through an opening', () => {
  test('the reference flow of handbook 4: C·p₁·ρ₀·R·T while choked', () => {
    // 1e-8 · 1e5 · 1.185 · 288 · 293.15 = 100.05 Pa·m³/s
    expect(airFlow_PaM3PerS(1e-8, 1e5, 2e4, 293.15)).toBeCloseTo(100.05, 1);
    expect(airFlow_PaM3PerS(1e-8, 1e5, 5e4, 293.15)).toBeCloseTo(100.05, 1);
    // At r = 0.75: √(1 − (0.25/0.5)²) = 0.8660
    expect(airFlow_PaM3PerS(1e-8, 1e5, 7.5e4, 293.15)).toBeCloseTo(86.65, 1);
  });
  test('it falls to nothing without a jump, and turns round', () => {
    const at = (r: number) => airFlow_PaM3PerS(1e-8, 1e5, r * 1e5, 293.15);
    expect(at(0.99899999)).toBeCloseTo(at(0.99900001), 3);
    // 325 Pa below 1 bar the law itself holds: r = 0.99675, √(1 − (0.49675/0.5)²) = 0.11383 of the choked flow.
    expect(at(0.99675) / at(0.5)).toBeCloseTo(0.11383, 4);
    // With b = 0.2: √(1 − (0.55/0.8)²) = 0.72618 at r = 0.75.
    expect(airFlow_PaM3PerS(1e-8, 1e5, 7.5e4, 293.15, 0.2) / at(0.1)).toBeCloseTo(0.72618, 4);
    expect([at(1), at(1.2)]).toEqual([0, 0]);
    expect(airExchange_PaM3PerS(1e-8, 2e4, 1e5, 293.15)).toBe(-airFlow_PaM3PerS(1e-8, 1e5, 2e4, 293.15));
  });
});

describe('a closed line', () => {
  test('its give is the slope of what it takes up', () => {
    const up = takenUp_m3(PLUGGED_PORT, 10 * BAR + 100, 101_325);
    const down = takenUp_m3(PLUGGED_PORT, 10 * BAR - 100, 101_325);
    expect(lineGive_m3PerPa(PLUGGED_PORT, 10 * BAR, 101_325) / ((up - down) / 200)).toBeCloseTo(1, 6);
  });
});

/** Time for a bench to settle, s. */
const SETTLE_S = 8;
/** Agreement of the time solution with the closed form: this part of the reading and this much. */
const WITHIN = { part: 0.004, pressure_Pa: 0.1 * BAR, depression_Pa: 0.1 * INHG };
/**
 * The same where a severe leak pulls the supply 7 inHg down: the closed form reckons the vacuum side's part of it without the
 * diaphragm's travel, some 2 %.
 */
const WITHIN_LEAKING = { part: 0.006, pressure_Pa: 0.1 * BAR, depression_Pa: 0.16 * INHG };
/** A leak from which on that matters, m³/(s·Pa). */
const LEAKS_FROM = 1e-9;

function expectAlike(parameters: Vector, seen: ReturnType<typeof read>, outputReading = 'output') {
  const output = steady(parameters, seen.input, seen.supply, outputReading);
  expect(Math.abs(seen.output - output)).toBeLessThan(WITHIN.part * output + WITHIN.pressure_Pa);
}

describe('the time solution ends where the closed form is', () => {
  const settledAtRest = benchOf(healthy, 20 * INHG);
  settledAtRest.set({ valve: 'open' });
  settledAtRest.advance(2 * SETTLE_S);
  const profile = fc.record({
    effectiveDiameter_m: fc.double({ min: 0.13, max: 0.26, noNaN: true }),
    slaveBore_m: fc.double({ min: 0.016, max: 0.027, noNaN: true }),
    rodDiameter_m: fc.double({ min: 0.004, max: 0.009, noNaN: true }),
    spring_N: fc.double({ min: 40, max: 250, noNaN: true }),
    boostRatio: fc.double({ min: 1.9, max: 4.5, noNaN: true }),
    crack_Pa: fc.double({ min: 2 * BAR, max: 4 * BAR, noNaN: true }),
    vacuumVolume_m3: fc.double({ min: 1.5e-3, max: 7e-3, noNaN: true }),
  });
  test('random units, rising and beyond runout, then coming down', () => {
    fc.assert(
      fc.property(
        profile,
        fc.double({ min: 8, max: 24, noNaN: true }),
        fc.double({ min: 0.3, max: 1.5, noNaN: true }),
        (change, supply_inHg, reach) => {
          const { values } = family.healthy({ ...typical, ...change });
          const bench = benchOf(values, supply_inHg * INHG);
          bench.set({ valve: 'open' });
          bench.advance(2 * SETTLE_S);
          const rest = read(bench);
          expect(Math.abs(rest.supply - rest.activation)).toBeLessThan(WITHIN.depression_Pa);
          const knee = steady(values, 0, rest.supply, 'runoutInput');
          bench.set({ handle_Pa: Math.max(1.3 * change.crack_Pa, reach * knee) });
          bench.advance(2 * SETTLE_S);
          const up = read(bench);
          expectAlike(values, up);
          const activation = steady(values, up.input, up.supply, 'activation');
          expect(Math.abs(up.activation - activation)).toBeLessThan(WITHIN.depression_Pa);
          bench.set({ handle_Pa: Math.max(1.2 * change.crack_Pa, 0.7 * up.input) });
          bench.advance(2 * SETTLE_S);
          expectAlike(values, read(bench), 'outputReleasing');
        },
      ),
      { numRuns: 25, seed: 2611 },
    );
  });
  test.each(family.faults.map(({ id }) => id))('%s, severe: supply, output and activation', (id) => {
    const parameters = faulty(id, 0.9);
    const bench = benchOf(parameters, 20 * INHG);
    bench.set({ handle_Pa: 30 * BAR });
    bench.advance(SETTLE_S);
    const off = read(bench);
    expect(Math.abs(off.output - steady(parameters, off.input, 0, 'outputPassed'))).toBeLessThan(0.2 * BAR);
    bench.set({ handle_Pa: 0 });
    bench.advance(SETTLE_S);
    expect(Math.abs(read(bench).output - steady(parameters, 0, 0, 'residual'))).toBeLessThan(0.2 * BAR);
    bench.set({ valve: 'open' });
    bench.advance(3 * SETTLE_S);
    const rest = read(bench);
    expect(rest.activation).toBeLessThanOrEqual(rest.supply);
    expect(Math.abs(rest.activation - steady(parameters, 0, rest.supply, 'activation'))).toBeLessThan(
      WITHIN.depression_Pa,
    );
    const torn = parameters[placeOf(family.parameters, 'tear_m3PerSPa')]! > 0;
    const leaks = parameters[placeOf(family.parameters, 'leak_m3PerSPa')]! > LEAKS_FROM;
    const within = leaks ? WITHIN_LEAKING : WITHIN;
    for (const input of [16, 24, 40]) {
      bench.set({ handle_Pa: input * BAR });
      // What a passage takes out of the tank comes back slowly.
      bench.advance((torn ? 5 : 3) * SETTLE_S);
      const seen = read(bench);
      // The closed form is told the source by the gauge at rest alone, and accounts for what is lost or no longer drawn.
      const output = steady(parameters, seen.input, rest.supply, 'output');
      expect(Math.abs(seen.output - output)).toBeLessThan(within.part * output + within.pressure_Pa);
      for (const [found, reading] of [
        [seen.supply, 'supplyApplied'],
        [seen.activation, 'activation'],
      ] as const)
        expect(Math.abs(found - steady(parameters, seen.input, rest.supply, reading))).toBeLessThan(
          within.depression_Pa,
        );
    }
  });
  test('a passage between the sides, of any size: nothing lost released, and applied what the closed form says', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.05, max: 1, noNaN: true }),
        fc.double({ min: 5, max: 45, noNaN: true }),
        (severity, input_bar) => {
          const parameters = faulty('torn-diaphragm', severity);
          const bench = benchOf(parameters, 20 * INHG);
          bench.set({ valve: 'open' });
          bench.advance(2 * SETTLE_S);
          expect(read(bench).supply / INHG).toBeCloseTo(read(settledAtRest).supply / INHG, 1);
          bench.set({ handle_Pa: input_bar * BAR });
          bench.advance(4 * SETTLE_S);
          const seen = read(bench);
          const says = (reading: string) => steady(parameters, seen.input, 20 * INHG, reading);
          expect(Math.abs(seen.output - says('output'))).toBeLessThan(
            WITHIN.part * says('output') + WITHIN.pressure_Pa,
          );
          expect(Math.abs(seen.supply - says('supplyApplied'))).toBeLessThan(WITHIN.depression_Pa);
        },
      ),
      { numRuns: 8, seed: 81 },
    );
  });
});

describe('a vehicle’s brakes in place of the plugged port', () => {
  const brakes = fc.record({
    // From a well-bled pair of front brakes to a spongy line with a thimble of air in it.
    air_m3: fc.double({ min: 1e-8, max: 2e-6, noNaN: true }),
    stiffness_m3PerPa: fc.double({ min: 2e-13, max: 8e-13, noNaN: true }),
  });
  test('take longer to fill, and end at the same output', () => {
    fc.assert(
      fc.property(brakes, fc.double({ min: 8, max: 26, noNaN: true }), (line, input_bar) => {
        const [plugged, soft] = [benchOf(healthy, 20 * INHG), benchOf(healthy, 20 * INHG, line)];
        for (const bench of [plugged, soft]) {
          bench.set({ valve: 'open' });
          bench.advance(20);
          bench.set({ handle_Pa: input_bar * BAR, pull_PaPerS: 40 * BAR });
          bench.advance(0.4);
        }
        expect(read(soft).output).toBeLessThanOrEqual(read(plugged).output + 0.1 * BAR);
        for (const bench of [plugged, soft]) bench.advance(40);
        expectAlike(healthy, read(plugged));
        expectAlike(healthy, read(soft));
      }),
      { numRuns: 12, seed: 411 },
    );
  });
  test('the fluid they take up goes through the slave piston: its travel is their volume over its area', () => {
    const line = { air_m3: 1e-6, stiffness_m3PerPa: 5e-13 };
    const taken = takenUp_m3(line, 80 * BAR, room.barometer_Pa);
    // 1 cm³·(1 − 1.01325/81.01325) + 5e-13·80e5 = 0.98749 + 4 cm³.
    expect(taken * 1e6).toBeCloseTo(4.98749, 4);
  });
});

describe('what a technician does at the bench', () => {
  test('the handbook’s unit: 28 bar in is 100.8 bar out on 20 inHg', () => {
    const bench = benchOf(healthy, 20 * INHG);
    bench.set({ valve: 'open' });
    bench.advance(20);
    bench.set({ handle_Pa: 28 * BAR });
    bench.advance(30);
    expect(read(bench).output / BAR).toBeCloseTo(100.8, 1);
  });
  test('self-apply: output comes up with the vacuum and the handle untouched', () => {
    const parameters = faulty('passage-blocked', 1);
    const bench = benchOf(parameters, 20 * INHG);
    bench.set({ valve: 'open' });
    bench.advance(20);
    expect(read(bench).output / BAR).toBeCloseTo(6, 1);
  });
  test('a hold loses what the parameter says, with the input shut in', () => {
    // 1 to 100 bar/min on a scale of logarithms: 8 bar/min of cup bypass, on a healthy quarter of 2, over a minute.
    const parameters = faulty('cup-bypass', Math.log(8) / Math.log(100));
    const bench = benchOf(parameters, 20 * INHG);
    bench.set({ valve: 'open' });
    bench.advance(20);
    bench.set({ handle_Pa: 22 * BAR });
    bench.advance(10);
    const start = read(bench);
    bench.set({ shutIn: true });
    bench.advance(60);
    expect((start.output - read(bench).output) / BAR).toBeCloseTo(8.5, 0);
  });
  test.each([
    ['released', 0, 'supplyLeftReleased', 'hub-seal-leak', 1],
    // Low enough that the piston stays where it is while the vacuum falls.
    ['applied', 12 * BAR, 'supplyLeftApplied', 'hub-seal-leak', 1],
    ['released, torn', 0, 'supplyLeftReleased', 'torn-diaphragm', 0.2],
    // Wide open, so that what the valve calls for is no bound; the piston gives way a little as the vacuum goes.
    ['applied, torn', 40 * BAR, 'supplyLeftApplied', 'torn-diaphragm', 0.2],
  ])(
    'vacuum shut in, %s: falls by the same law as the closed form',
    (_name, handle_Pa, reading, fault, severity) => {
      const parameters = faulty(fault, severity);
      const bench = benchOf(parameters, 20 * INHG);
      bench.set({ valve: 'open', handle_Pa });
      bench.advance(30);
      bench.set({ valve: 'shut' });
      bench.advance(1);
      const start = read(bench).supply;
      bench.advance(60);
      const left = steady(parameters, handle_Pa, start, reading, 60);
      expect(Math.abs(read(bench).supply - left)).toBeLessThan(0.06 * (start - left));
    },
  );
  test('a trace of a pull is evenly spaced and never below zero', () => {
    const bench = benchOf(healthy, 20 * INHG);
    bench.set({ valve: 'open', handle_Pa: 35 * BAR });
    const rows: number[][] = [];
    bench.advance(6, 0.01, (t, shown) => rows.push([t, ...shown]));
    expect(rows).toHaveLength(600);
    expect(rows.every((row, i) => Math.abs(row[0]! - 0.01 * (i + 1)) < 1e-9)).toBe(true);
    expect(Math.min(...rows.flat())).toBeGreaterThanOrEqual(0);
    expect(bench.steps).toBeGreaterThan(50);
  });
});
