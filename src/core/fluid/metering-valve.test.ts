/** @jest-environment node */
import fc from 'fast-check';
import { Vessel } from './accumulator';
import { HYDRAULIC_FLUIDS, viscosity_PaS } from './hydraulic-fluid';
import {
  crossedPressure_Pa,
  fillingFlow_m3PerS,
  fillingTime_s,
  meteredPressure_Pa,
  meteringHysteresis_Pa,
  residualPressure_Pa,
  settlingOf,
} from './metering-valve';

const BAR = 1e5;
/** Handbook-models 8.7: A 2.01 cm², k_s 160 N/mm, x₀ 1.5 mm, F₀ 35, F_f 30, F_d 25 N. */
const valve = { spring_NPerM: 160e3, starts_m: 1.5e-3, preload_N: 35, friction_N: 30, area_m2: 2.01e-4 };
const second = { ...valve, preload_N: 35 + 25 };

describe('a sweep, handbook-models 8.7', () => {
  const at = (way: 'up' | 'down', mm: number, of = valve) =>
    meteredPressure_Pa(of, mm * 1e-3, way, 0, 150 * BAR) / BAR;
  test('at 6 mm 32.6 bar up, 35.6 down, the other circuit 1.2 bar below', () => {
    // (160·4.5 − 35 ∓ 30)/2.01 cm² = 655 and 715 N over 2.01e−4.
    expect(at('up', 6)).toBeCloseTo(32.6, 1);
    expect(at('down', 6)).toBeCloseTo(35.6, 1);
    expect(at('up', 6) - at('up', 6, second)).toBeCloseTo(1.2, 1);
    expect(meteringHysteresis_Pa(valve) / BAR).toBeCloseTo(at('down', 6) - at('up', 6), 9);
  });
  test('never below the tank nor above the accumulator, and never falling with the travel', () => {
    const mm = fc.double({ min: 0, max: 30, noNaN: true });
    fc.assert(
      fc.property(mm, mm, fc.constantFrom('up' as const, 'down' as const), (travel, more, way) => {
        const [here, further] = [travel, travel + more].map((x) =>
          meteredPressure_Pa(valve, x * 1e-3, way, 1e5, 90e5),
        );
        expect(here).toBeGreaterThanOrEqual(1e5);
        expect(further).toBeLessThanOrEqual(90e5);
        expect(further).toBeGreaterThanOrEqual(here!);
      }),
    );
  });
  test('released it holds what friction holds against the preload, or what stands in the return', () => {
    expect(residualPressure_Pa(valve, 0)).toBe(0);
    expect(residualPressure_Pa({ ...valve, friction_N: 75 }, 0)).toBeCloseTo(40 / 2.01e-4, 6);
    expect(residualPressure_Pa(valve, 2 * BAR)).toBe(2 * BAR);
  });
});

describe('the drilling is a damper, handbook-models 8.7', () => {
  const circuit = { flowGain_m2PerS: 0.1, line_PaSPerM3: 3e9, give_m3PerPa: 1.5e-12 };
  const settled = (mm: number, celsius: number) =>
    settlingOf(
      valve,
      circuit,
      { diameter_m: mm * 1e-3, length_m: 6e-3 },
      viscosity_PaS(HYDRAULIC_FLUIDS.vg46, 273.15 + celsius),
    );
  test('0.8 by 6 mm in VG 46 at 40 °C: ζ 0.97; 0.25 mm: 0.095, 1.8 Hz, 74 % beyond', () => {
    expect(settled(0.8, 40).ratio).toBeCloseTo(0.97, 2);
    const { ratio, frequency_Hz, overshoot } = settled(0.25, 40);
    expect(ratio).toBeCloseTo(0.095, 3);
    expect(frequency_Hz).toBeCloseTo(1.8, 1);
    expect(overshoot).toBeCloseTo(0.74, 2);
  });
  test('cold oil does the same: below 30 °C a sound drilling cannot be judged', () => {
    expect(settled(0.8, -10).ratio).toBeLessThan(0.2);
    expect(settled(0.8, 30).ratio).toBeGreaterThan(0.7);
  });
});

describe('filling', () => {
  const passage = { orifice_m2: 3e-6, line_PaSPerM3: 3e9, density_kgPerM3: 870 };
  test('at the flow found opening and line together take up the difference', () => {
    fc.assert(
      fc.property(fc.double({ min: 1, max: 200e5, noNaN: true }), (difference_Pa) => {
        const q = fillingFlow_m3PerS(passage, difference_Pa);
        const taken = (870 / 2) * (q / (0.62 * 3e-6)) ** 2 + 3e9 * q;
        expect(taken / difference_Pa).toBeCloseTo(1, 9);
      }),
    );
  });
  test('through a line alone it is R·C·ln(p_s/(p_s − p)), through an opening alone the root of the difference', () => {
    const circuit = { slack_m3: 0, give_m3PerPa: 1.5e-12 };
    const line = { ...passage, orifice_m2: 1 };
    expect(fillingTime_s(line, circuit, 120 * BAR, 60 * BAR)).toBeCloseTo(3e9 * 1.5e-12 * Math.log(2), 6);
    const opening = { ...passage, line_PaSPerM3: 0 };
    const perRoot = 0.62 * 3e-6 * Math.sqrt(2 / 870);
    const expected = (2 * 1.5e-12 * (Math.sqrt(120 * BAR) - Math.sqrt(60 * BAR))) / perRoot;
    expect(fillingTime_s(opening, circuit, 120 * BAR, 60 * BAR)).toBeCloseTo(expected, 9);
  });
  test('slack is filled first, at the whole difference', () => {
    const circuit = { slack_m3: 5e-6, give_m3PerPa: 1.5e-12 };
    const more = fillingTime_s(passage, circuit, 120 * BAR, 60 * BAR);
    const none = fillingTime_s(passage, { ...circuit, slack_m3: 0 }, 120 * BAR, 60 * BAR);
    expect(more - none).toBeCloseTo(5e-6 / fillingFlow_m3PerS(passage, 120 * BAR), 12);
  });
  test('what crosses comes to the other circuit’s pressure in the end', () => {
    const at = (time_s: number) => crossedPressure_Pa(1e-15, 0.04, 1.5e-12, 80 * BAR, time_s);
    // τ = μ·C/k_x = 60 s.
    expect(at(60) / BAR).toBeCloseTo(80 * (1 - Math.exp(-1)), 9);
    expect(at(1e4) / BAR).toBeCloseTo(80, 6);
  });
});

test('0.75 L of 85 bar, from 150 to a lamp at 100 bar, 20 cc each: 5.8 applications fast, 10.2 slow', () => {
  const vessel = new Vessel(
    { shell_m3: 0.75e-3, preCharge_Pa: 85 * BAR, settling_s: 20 },
    { barometer_Pa: 101_325, temperature_K: 293.15 },
  );
  const full = vessel.settledAt(150 * BAR);
  const given = [vessel.fastTo(full, 100 * BAR), vessel.settledAt(100 * BAR)].map(
    (lit) => (vessel.fluid_m3(full) - vessel.fluid_m3(lit)) / 20e-6,
  );
  expect(given[0]).toBeCloseTo(5.8, 1);
  expect(given[1]).toBeCloseTo(10.2, 1);
});
