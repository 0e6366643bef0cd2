/** @jest-environment node */
import fc from 'fast-check';
import { GAUSS_8 } from '../numeric/quadrature';
import { Vessel } from './accumulator';
import { stoodLeaking } from './charging';
import { HYDRAULIC_FLUIDS, viscosity_PaS } from './hydraulic-fluid';
import {
  READ_RHYTHM,
  appliedFrom,
  appliedInARow,
  powerOutput_N,
  powerRelease_s,
  powerRunout_N,
} from './power-piston';

const BAR = 1e5;
const CC = 1e-6;
/** Handbook-models 8.4: R 5, F₀ 60, J 300 N, A_p 6.2, A_mc 6.42 cm², F_rs 180 N, i 4, V₀ 1.2 cc, c 4e−13. */
const piston = { ratio: 5, opens_N: 60, jump_N: 300, area_m2: 6.2e-4, spring_N: 180 };
const load = { master_m2: 6.42e-4, taken_m3: (p: number) => 1.2 * CC + 4e-13 * p };
/** The rod goes V(p)/A_mc. */
const travel_m = (output_N: number) => load.taken_m3(output_N / load.master_m2) / load.master_m2;
const PEDAL = 4;
const vesselOf = (bar: number, celsius = 20) =>
  new Vessel(
    { shell_m3: 25 * CC, preCharge_Pa: bar * BAR, settling_s: 20 },
    { barometer_Pa: 101_325, temperature_K: 273.15 + celsius },
  );

describe('metering, handbook-models 8.4', () => {
  const bar = (pedal_N: number, available: number) =>
    powerOutput_N(piston, PEDAL * pedal_N, available * BAR) / load.master_m2 / BAR;
  test('150 N at 100 bar: 46.7 bar, unassisted 6.5; runout at 376 N of the pedal', () => {
    expect(bar(150, 100)).toBeCloseTo(46.7, 1);
    expect(bar(150, 0)).toBeCloseTo(6.5, 1);
    expect(powerRunout_N(piston, 100 * BAR) / PEDAL).toBeCloseTo(376, 0);
  });
  test('as it starts the pedal falls by 10.0 mm', () => {
    const [with_Pa, without_Pa] = [bar(150, 100) * BAR, bar(150, 0) * BAR];
    const fallen_m = (PEDAL * (load.taken_m3(with_Pa) - load.taken_m3(without_Pa))) / load.master_m2;
    expect(fallen_m * 1e3).toBeCloseTo(10, 1);
  });
  test('beyond runout it rises by the rod alone, below the spring not at all', () => {
    const runout_N = powerRunout_N(piston, 80 * BAR);
    const [at, beyond] = [0, 100].map((more) => powerOutput_N(piston, runout_N + more, 80 * BAR));
    expect(beyond! - at!).toBeCloseTo(100, 6);
    expect(powerOutput_N(piston, 50, 80 * BAR)).toBe(0);
  });
  test('never less than the rod alone, and never falling as input or pressure rise', () => {
    const force = fc.double({ min: 0, max: 4000, noNaN: true });
    const pressure = fc.double({ min: 0, max: 150e5, noNaN: true });
    fc.assert(
      fc.property(force, pressure, force, pressure, (input, available, more, higher) => {
        const output = powerOutput_N(piston, input, available);
        expect(output).toBeGreaterThanOrEqual(Math.max(0, input - piston.spring_N));
        expect(powerOutput_N(piston, input + more, available)).toBeGreaterThanOrEqual(output - 1e-9);
        expect(powerOutput_N(piston, input, available + higher)).toBeGreaterThanOrEqual(output - 1e-9);
      }),
    );
  });
});

describe('reserve from a vessel, handbook-models 8.4', () => {
  /** One after another at once, until one makes no tenth more than the foot alone. */
  const outputs = (bar: number) => {
    const vessel = vesselOf(bar);
    const full = vessel.settledAt(90 * BAR);
    const input_N = PEDAL * 200;
    const found = Array.from(
      { length: 12 },
      (_, i) =>
        appliedInARow(vessel, full, piston, { travel_m }, input_N, 0.5 * CC, i + 1, { held_s: 0, rests_s: 0 })
          .output_N,
    );
    const assisted = found.findIndex((output_N) => output_N <= 1.1 * (input_N - piston.spring_N));
    return found.slice(0, assisted).map((output_N) => output_N / load.master_m2 / BAR);
  };
  test('25 cc, 200 N, from 90 bar: of 45 bar gas 62.3, 52.5, 43.5, then none', () => {
    const found = outputs(45);
    expect(found).toHaveLength(3);
    [62.3, 52.5, 43.5].forEach((expected, i) =>
      expect(Math.abs(found[i]! / expected - 1)).toBeLessThan(0.01),
    );
  });
  test('of 20 bar gas 53.2, 37.4, 29.9 and so on, seven in all: more, each weaker', () => {
    const found = outputs(20);
    expect(found).toHaveLength(7);
    [53.2, 37.4, 29.9].forEach((expected, i) =>
      expect(Math.abs(found[i]! / expected - 1)).toBeLessThan(0.01),
    );
    expect([...found].sort((a, b) => b - a)).toEqual(found);
  });
  test('held and let go in between the gas warms, and each application gives a little more', () => {
    const vessel = vesselOf(45);
    const full = vessel.settledAt(90 * BAR);
    const third = (rhythm?: { held_s: number; rests_s: number }) =>
      appliedInARow(vessel, full, piston, { travel_m }, PEDAL * 200, 0.5 * CC, 3, rhythm);
    expect(third().output_N).toBeGreaterThan(third({ held_s: 0, rests_s: 0 }).output_N);
    expect(vessel.gauge_Pa(third().held)).toBeGreaterThan(vessel.gauge_Pa(third().stroke));
  });
  test('what leaks while it is held and let go is gone for the next: A·(x₁ + x₂) + V_s + q·10 s', () => {
    const vessel = vesselOf(45);
    const full = vessel.settledAt(90 * BAR);
    const leaks_m3PerS = 0.3 * CC;
    const at = (count: number) =>
      appliedInARow(
        vessel,
        full,
        piston,
        { travel_m },
        PEDAL * 150,
        0.5 * CC,
        count,
        READ_RHYTHM,
        () => leaks_m3PerS,
      );
    const [first, second] = [at(1), at(2)];
    const drawn_m3 = piston.area_m2 * (travel_m(first.output_N) + travel_m(second.output_N));
    const gone_m3 = drawn_m3 + 0.5 * CC + 10 * leaks_m3PerS;
    expect((second.stroke.gas_m3 - full.gas_m3) / gone_m3).toBeCloseTo(1, 3);
  });
  test('a rod that goes on while it is held draws on what is left: A·(x₁ + x₂ + 3 s·v) + V_s', () => {
    const vessel = vesselOf(45);
    const full = vessel.settledAt(90 * BAR);
    const goesOn_mPerS = () => 1e-3;
    const at = (count: number, load = { travel_m, goesOn_mPerS }) =>
      appliedInARow(vessel, full, piston, load, PEDAL * 150, 0.5 * CC, count);
    const [first, second] = [at(1), at(2)];
    const way_m = travel_m(first.output_N) + travel_m(second.output_N) + 3 * 1e-3;
    const gone_m3 = piston.area_m2 * way_m + 0.5 * CC;
    expect((second.stroke.gas_m3 - full.gas_m3) / gone_m3).toBeCloseTo(1, 3);
    const tight = at(2, { travel_m, goesOn_mPerS: () => 0 });
    expect(vessel.gauge_Pa(second.held)).toBeLessThan(vessel.gauge_Pa(tight.held));
  });
  test('an hour at 25 °C with k 1e−17: 90 bar become 63.9', () => {
    const vessel = vesselOf(45, 25);
    const viscosity = viscosity_PaS(HYDRAULIC_FLUIDS.steering, 298.15);
    const left = stoodLeaking(vessel, vessel.settledAt(90 * BAR), 3600, (p) => (1e-17 * p) / viscosity);
    expect(Math.abs(vessel.gauge_Pa(left) / BAR / 63.9 - 1)).toBeLessThan(0.01);
  });
  test('an empty vessel gives the rod alone', () => {
    const vessel = vesselOf(45);
    expect(appliedFrom(vessel, vessel.empty, piston, { travel_m }, 800).output_N).toBe(800 - 180);
  });
});

test('release through the exhaust is ∫ c·(A_p/A_mc)²·dp/q down to the spring, and then the volume at rest', () => {
  const exhaust_m2 = (Math.PI * 0.003 ** 2) / 4;
  const circuit = { master_m2: load.master_m2, give_m3PerPa: 4e-13, rest_m3: 1.2 * CC };
  const part = piston.area_m2 / load.master_m2;
  const [spring_Pa, full_Pa] = [
    piston.spring_N / piston.area_m2,
    (60 * BAR * load.master_m2 + piston.spring_N) / piston.area_m2,
  ];
  const flow = (p: number) => 0.62 * exhaust_m2 * Math.sqrt((2 * p) / 850);
  // In √p the integrand is constant: any rule takes it exactly.
  const falls_s = GAUSS_8.reduce((sum, [node, weight]) => {
    const root = Math.sqrt(spring_Pa) + node * (Math.sqrt(full_Pa) - Math.sqrt(spring_Pa));
    const width = Math.sqrt(full_Pa) - Math.sqrt(spring_Pa);
    return sum + (weight * width * 2 * root * circuit.give_m3PerPa * part ** 2) / flow(root ** 2);
  }, 0);
  const expected = falls_s + (circuit.rest_m3 * part) / flow(spring_Pa);
  expect(powerRelease_s(piston, circuit, exhaust_m2, 850, 60 * BAR)).toBeCloseTo(expected, 9);
  expect(expected).toBeLessThan(0.5);
});
