/** @jest-environment node */
import fc from 'fast-check';
import { placeOf, readingOf } from '../../model/vectors';
import { FAMILIES } from '../registry';
import { typical } from './typical';
import { pedalValveProfile } from './profile';

const BAR = 1e5;
const family = FAMILIES['pedal-valve'];
const healthy = family.healthy(typical).values;
const put = (id: string, value: number, of = healthy) => [...of].with(placeOf(family.parameters, id), value);
const ROOM = { barometer_Pa: 101_325, temperature_K: 293.15 };
const AT = {
  ...ROOM,
  supply_Pa: 150 * BAR,
  supply2_Pa: 150 * BAR,
  oil_K: 313.15,
  elapsed_s: 0,
  applications: 0,
};
const bar = (reading: string, change: Record<string, number>, of = healthy) =>
  readingOf(family, of, { ...AT, travel_m: 6e-3, ...change }, reading) / BAR;

describe('metering, handbook-models 8.7', () => {
  test('at 6 mm 32.6 bar going up, 35.6 coming down, circuit 2 1.2 bar below', () => {
    // (160·4.5 − 35 ∓ 30)/2.01 cm²; 25 N less in circuit 2.
    expect(bar('output', {})).toBeCloseTo(32.6, 1);
    expect(bar('releasing', {})).toBeCloseTo(35.6, 1);
    expect(bar('output', {}) - bar('output2', {})).toBeCloseTo(1.24, 2);
  });
  test('pressure begins at 1.5 mm and the travel that takes up 65 N: 0.41 mm', () => {
    expect(readingOf(family, healthy, { ...AT, travel_m: 0 }, 'begins')).toBeCloseTo(1.90625e-3, 8);
  });
  test('at the stop of 12 mm (160·10.5 − 65)/2.01 cm² = 80.3 bar, however far it is pressed', () => {
    expect(bar('maximum', {})).toBeCloseTo(80.35, 2);
    expect(bar('output', { travel_m: 0.03 })).toBeCloseTo(80.35, 2);
  });
  test('never more than is stored, and nothing without it', () => {
    expect(bar('output', { travel_m: 12e-3, supply_Pa: 50 * BAR })).toBeCloseTo(50, 6);
    expect(bar('output', { travel_m: 12e-3, supply_Pa: 0 })).toBe(0);
    // One circuit empty: the other brakes on.
    expect(bar('output2', { travel_m: 12e-3, supply_Pa: 0 })).toBeCloseTo(79.1, 1);
  });
  test('released: nothing; with spools that stick what friction holds, with a choked return what stands there', () => {
    expect(bar('residual', {})).toBe(0);
    // (150 − 35)/2.01 cm² = 5.72 bar.
    expect(bar('residual', {}, put('friction_N', 150))).toBeCloseTo(5.72, 2);
    expect(bar('residual', {}, put('return_Pa', 2 * BAR))).toBeCloseTo(2, 6);
  });
});

describe('the drilling', () => {
  test('as it should be it goes nowhere beyond; of 0.25 mm further than the 74 % of a small step', () => {
    expect(bar('peak', {}) / bar('output', {})).toBeCloseTo(1, 2);
    expect(bar('peak', {}, put('drilling_m', 0.25e-3)) / bar('output', {})).toBeGreaterThan(1.74);
  });
  test('never beyond what is stored, and never less than it settles at', () => {
    const part = fc.double({ min: 0.1, max: 1, noNaN: true });
    fc.assert(
      fc.property(part, part, fc.double({ min: 263, max: 353, noNaN: true }), (bore, stored, oil_K) => {
        const supply_Pa = stored * 150 * BAR;
        const of = put('drilling_m', bore * 0.8e-3);
        const peak = bar('peak', { supply_Pa, oil_K }, of);
        expect(peak).toBeLessThanOrEqual(supply_Pa / BAR + 1e-6);
        expect(peak).toBeGreaterThanOrEqual(bar('output', { supply_Pa, oil_K }, of) - 1e-6);
      }),
      { numRuns: 200 },
    );
  });
  test('cold oil does what a plugged drilling does: the healthy one is expected to, and nobody blames it', () => {
    const cold = { oil_K: 263.15 };
    expect(bar('peak', cold)).toBeGreaterThan(1.2 * bar('output', cold));
    // From 30 °C on it is judged: within a tenth.
    expect(bar('peak', { oil_K: 303.15 }) / bar('output', {})).toBeLessThan(1.1);
  });
});

describe('what is stored', () => {
  test('flick-up is the pre-charge at 20 °C, and less in the cold', () => {
    expect(bar('flickUp', {})).toBeCloseTo(85, 3);
    // As an ideal gas 86.0·263.15/293.15 − 1.0 = 76.2; real nitrogen lies below.
    expect(bar('flickUp', { temperature_K: 263.15 })).toBeLessThan(76.2);
    expect(bar('flickUp', { temperature_K: 263.15 })).toBeGreaterThan(74);
  });
  test('0.75 L, 85 bar, from 150 to 100 bar at 20 cc: between 5.8 applications fast and 10.2 slow', () => {
    const twenty = put('slack_m3', 20e-6, put('give_m3PerPa', 1e-20));
    const after = (applications: number) => bar('kept', { applications }, twenty);
    expect(after(5)).toBeGreaterThan(100);
    expect(after(11)).toBeLessThan(100);
    const count = Array.from({ length: 12 }, (_, i) => after(i + 1)).filter((left) => left >= 100).length;
    expect(count).toBeGreaterThanOrEqual(5);
    expect(count).toBeLessThanOrEqual(10);
  });
  test('every application leaves less, until nothing is left', () => {
    const part = fc.double({ min: 0.1, max: 1, noNaN: true });
    fc.assert(
      fc.property(part, fc.nat({ max: 9 }), (gas, applications) => {
        const low = put('preCharge_Pa', gas * typical.preCharge_Pa);
        const [now, then] = [applications, applications + 1].map((n) =>
          bar('kept', { applications: n }, low),
        );
        expect(then).toBeLessThanOrEqual(now! + 1e-9);
        expect(then).toBeGreaterThanOrEqual(0);
      }),
      { numRuns: 60 },
    );
  });
  test('standing for ten minutes it loses by its lands what the oil’s viscosity lets through', () => {
    // k = π·16 mm·(4 µm)³·1.375/(12·8 mm) = 4.61e−17 m³; μ 39.7 mPa·s; k·p/μ at 148 bar = 17.2 mm³/s, 10.3 cc in 600 s.
    // Isothermal ideal gas of 0.75·86/151 = 0.427 L: 151·10.3/(427 + 10.3) = 3.56 bar. Real nitrogen is a little stiffer here.
    const lost = 150 - bar('left', { elapsed_s: 600 });
    expect(lost).toBeGreaterThan(3.56);
    expect(lost).toBeLessThan(1.12 * 3.56);
    // Oil of 18 °C, 3.3 times as thick, lets a third of it through: μ(18 °C)/μ(40 °C) by the class is 3.25.
    const cold = 150 - bar('left', { elapsed_s: 600, oil_K: 291.15 });
    expect(lost / cold).toBeGreaterThan(2.9);
    expect(lost / cold).toBeLessThan(3.5);
    // Clearance counts by its cube, and a little less as the pressure falls meanwhile.
    const minute = { elapsed_s: 60 };
    const worn = (150 - bar('left', minute, put('clearance_m', 8e-6))) / (150 - bar('left', minute));
    expect(worn).toBeGreaterThan(7.5);
    expect(worn).toBeLessThan(8);
  });
});

describe('filling, and what crosses over', () => {
  test('worn discs take longer: the time goes with what is slack', () => {
    const time = (of = healthy) => readingOf(family, of, { ...AT, travel_m: 12e-3 }, 'applyTime');
    // Slack at the full difference: 8 cc/(0.62·0.636 mm²·√(2·150 bar/863)) = 0.110 s; 3 more such.
    expect(time(put('slack_m3', 32e-6)) - time()).toBeCloseTo(3 * 0.11, 1);
  });
  test('a leak of 10 cc/min at 100 bar fills a plugged circuit as 1 − e^(−t·k/(μ·C))', () => {
    const leak = put('crossLeak_m3PerS', 10e-6 / 60);
    // q/p = 1.667e−7/1e7 at 40 °C; over 1.5e−12 m³/Pa: e^(−30·1.667e−14/1.5e−12) = e^(−0.333).
    expect(bar('crossed', { elapsed_s: 30 }, leak)).toBeCloseTo(32.6 * (1 - Math.exp(-1 / 3)), 1);
    expect(bar('crossed', { elapsed_s: 30 })).toBe(0);
  });
});

describe('a profile that contradicts itself is refused with the relation that fails', () => {
  const why = (change: object) =>
    pedalValveProfile.safeParse({ ...typical, ...change }).error?.issues.map(({ message }) => message) ?? [];
  test.each([
    [{ preCharge_Pa: 120 * BAR }, /pre-charge below the lamp/],
    [{ lamp_Pa: 160 * BAR }, /below the pressure charged to/],
    [{ stop_m: 25e-3 }, /more than is stored/],
    [{ friction_N: 40, limits: typical.limits }, /would not come back/],
    [{ sweep_m: [1.6e-3, 6e-3, 8e-3] }, /nothing comes yet/],
    [{ sweep_m: [4e-3, 6e-3, 13e-3] }, /beyond the pedal stop/],
  ])('%j', (change, message) => expect(why(change).join(' ')).toMatch(message));
  test('a limit that a healthy one cannot keep is refused', () => {
    const limits = { ...typical.limits, hysteresis_Pa: { value: 2 * BAR, source: 'x' } };
    expect(why({ limits }).join(' ')).toMatch(/more hysteresis than this/);
  });
  test('the typical one passes', () => expect(why({})).toEqual([]));
});
