/** @jest-environment node */
import fc from 'fast-check';
import { discharge_s, stopsLeft } from './capacitor';
import { holdingPower_W, motorLimit_A, runResistance_Ohm, terminals_V } from './feed';

/** Handbook-models 8.8. */
const MOTOR = { winding_Ohm: 0.09, idle_W: 8 };
const LIMITS = { limit_A: 60, cutOff_V: 9.5 };

describe('the example of handbook-models 8.8', () => {
  test('12.6 V, 20 mΩ, 50 A: 233 W, 12.22 V at the terminals, 19.1 A in the feed', () => {
    const power_W = holdingPower_W(MOTOR, 50);
    expect(power_W).toBeCloseTo(233, 9);
    const at_V = terminals_V(12.6, 0.02, power_W)!;
    expect(at_V).toBeCloseTo(12.22, 2);
    expect(power_W / at_V).toBeCloseTo(19.1, 1);
  });
  test('12.0 V, 120 mΩ, off at 9.5 V: 45.9 A, so that 60 N/A give 2.76 kN and not 3.6', () => {
    const most_A = motorLimit_A(MOTOR, LIMITS, 12, 0.12);
    expect(most_A).toBeCloseTo(45.9, 1);
    expect(60 * most_A).toBeCloseTo(2760, -1);
    expect(60 * motorLimit_A(MOTOR, LIMITS, 12, 0.02)).toBeCloseTo(3600, 9);
  });
});

describe('a feed', () => {
  test('passes what the load takes: V_t·(V_b − V_t)/R_w is its power', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 9, max: 15, noNaN: true }),
        fc.double({ min: 0.001, max: 0.3, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (battery_V, feed_Ohm, part) => {
          // No feed passes more than V_b²/4R_w.
          const most_W = battery_V ** 2 / (4 * feed_Ohm);
          const at_V = terminals_V(battery_V, feed_Ohm, part * 0.999 * most_W)!;
          expect((at_V * (battery_V - at_V)) / feed_Ohm).toBeCloseTo(part * 0.999 * most_W, 5);
          expect(at_V).toBeGreaterThanOrEqual(battery_V / 2);
          expect(terminals_V(battery_V, feed_Ohm, 1.001 * most_W)).toBeNull();
        },
      ),
    );
  });
  test('at the most current the terminals stand just at the cut-off', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 10, max: 14, noNaN: true }),
        fc.double({ min: 0.05, max: 0.3, noNaN: true }),
        (battery_V, feed_Ohm) => {
          const most_A = motorLimit_A(MOTOR, { ...LIMITS, limit_A: Infinity }, battery_V, feed_Ohm);
          fc.pre(most_A > 0);
          expect(terminals_V(battery_V, feed_Ohm, holdingPower_W(MOTOR, most_A))).toBeCloseTo(9.5, 6);
        },
      ),
    );
  });
  test('at or below the cut-off nothing is held; with no resistance all of it', () => {
    expect(motorLimit_A(MOTOR, LIMITS, 9.5, 0.05)).toBe(0);
    expect(motorLimit_A(MOTOR, LIMITS, 12, 0)).toBe(60);
    // 9.5·2.5/3 = 7.9 W are less than the control unit takes by itself.
    expect(motorLimit_A(MOTOR, LIMITS, 12, 3)).toBe(0);
    expect(() => motorLimit_A(MOTOR, { ...LIMITS, cutOff_V: 5.9 }, 12, 0.1)).toThrow(/cutOff_V: 5.9 V/);
  });
  test('6 m of 6 mm² there and back: 12·1.724e-8/6e-6 = 34.5 mΩ', () => {
    expect(runResistance_Ohm(6, 6e-6)).toBeCloseTo(0.03448, 5);
    expect(() => runResistance_Ohm(0, 6e-6)).toThrow(/length_m/);
    expect(() => runResistance_Ohm(6, 0)).toThrow(/area_m2/);
  });
});

describe('a capacitor', () => {
  const store = { capacitance_F: 20, charged_V: 13.5 };
  const stop = { stop_J: 350, standing_W: 0, apart_s: 0 };
  test('of 20 F from 13.5 to 9.6 V, 350 J a stop: 10·(182.25 − 92.16) = 901 J, two stops', () => {
    expect(stopsLeft(store, stop, 9.6, 0)).toBe(2);
    // With 60 s of 5 W between them a stop takes 650 J.
    expect(stopsLeft(store, { ...stop, standing_W: 5, apart_s: 60 }, 9.6, 0)).toBe(1);
    // 40 A through 30 mΩ: it is used up at 10.8 V, 656 J.
    expect(stopsLeft(store, stop, 9.6, 1.2)).toBe(1);
    expect(stopsLeft({ ...store, charged_V: 9 }, stop, 9.6, 0)).toBe(0);
  });
  test('is waited for as long as it takes by itself, as the maker states, and 15 minutes where nothing is stated', () => {
    // 1 kΩ · 20 mF · ln(13.5/5) = 20 · 0.993 s.
    const small = { capacitance_F: 0.02, charged_V: 13.5 };
    expect(discharge_s(small, 1000, 5, 1)).toBeCloseTo(19.87, 2);
    expect(discharge_s(small, 1000, 5, 60)).toBe(60);
    expect(discharge_s(small, 1000, 5, null)).toBe(900);
    expect(discharge_s({ ...small, charged_V: 3 }, 1000, 5, 0)).toBe(0);
  });
  test('that cannot be is refused by name', () => {
    expect(() => stopsLeft({ ...store, capacitance_F: 0 }, stop, 9.6, 0)).toThrow(/capacitance_F: 0 F/);
    expect(() => stopsLeft(store, { ...stop, stop_J: 0 }, 9.6, 0)).toThrow(/stop_J/);
    expect(() => discharge_s({ ...store, charged_V: -1 }, 1, 5, 0)).toThrow(/charged_V/);
    expect(() => discharge_s(store, 0, 5, 0)).toThrow(/bleed_Ohm/);
    expect(() => discharge_s(store, 1, 0, 0)).toThrow(/safe_V/);
  });
});
