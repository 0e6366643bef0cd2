/** @jest-environment node */
import { rootOfFalling } from '../numeric/root';
import { Vessel } from './accumulator';
import { filledTo, stoodLeaking } from './charging';
import {
  beltPumpFlow_m3PerS,
  ceiling_Pa,
  loopHeating_KPerS,
  motorPumpFlow_m3PerS,
  orificeDrop_Pa,
  orificeFlow_m3PerS,
  overshoot_Pa,
  pumpCurrent_A,
  pumpDrop_V,
  relieved_m3PerS,
  shutOff_Pa,
  slips_Pa,
} from './fluid-pump';
import {
  density_kgPerM3,
  HYDRAULIC_FLUIDS,
  landLeak_m3,
  viscosity_PaS,
  viscositySpread,
} from './hydraulic-fluid';

const BAR = 1e5;
const CC = 1e-6;
const PER_MINUTE = 1 / 60;
const celsius = (t: number) => 273.15 + t;

describe('fluids and spools, handbook-models P.2', () => {
  test.each([
    ['glycol', [80, 16.7, 8.2, 3.1]],
    ['mineral', [69, 25.1, 15, 6.8]],
    ['steering', [365, 65.5, 29, 9.1]],
    ['vg46', [1317, 117, 39.7, 9.3]],
  ] as const)('viscosity of %s at −10, 20, 40 and 80 °C', (fluid, expected) => {
    const own = [-10, 20, 40, 80].map((t) => viscosity_PaS(HYDRAULIC_FLUIDS[fluid], celsius(t)) * 1e3);
    own.forEach((mPaS, i) => expect(Math.abs(mPaS / expected[i]! - 1)).toBeLessThan(0.01));
  });
  test('within a class viscosity differs by 15 % warm and 40 % in the cold, and in between by what lies between', () => {
    expect([40, 20, 5, -10, -30].map((t) => viscositySpread(celsius(t)))).toEqual(
      [0.15, 0.15, 0.275, 0.4, 0.4].map((part) => expect.closeTo(part, 9)),
    );
  });
  test('8 mm spool, 8 mm land, 4 µm: k 2.30e−17 m³; mineral at 18 °C (26.6 mPa·s), 150 bar: 0.78 cc a minute', () => {
    const k = landLeak_m3({ diameter_m: 8e-3, length_m: 8e-3, clearance_m: 4e-6, eccentricity: 0.5 });
    expect(k / 2.3e-17).toBeCloseTo(1, 2);
    const viscosity = viscosity_PaS(HYDRAULIC_FLUIDS.mineral, celsius(18));
    expect(viscosity * 1e3).toBeCloseTo(26.6, 1);
    expect((((k * 150 * BAR) / viscosity) * 60) / CC).toBeCloseTo(0.78, 2);
  });
  test('flow between flat plates is the limit of a land that lies in the middle: w·c³/(12·L)', () => {
    const land = { diameter_m: 0.01, length_m: 0.005, clearance_m: 3e-6, eccentricity: 0 };
    expect(landLeak_m3(land)).toBeCloseTo((Math.PI * 0.01 * 27e-18) / (12 * 0.005), 30);
  });
});

/** Handbook-models P.3: D 9.6 cc, 7.5 L/min, relief 100 bar, 80 °C, 750 turns of the engine by 1.15. */
const belt = {
  displacement_m3: 9.6 * CC,
  leak_m3: 2.8e-14,
  control_m3PerS: 7.5e-3 * PER_MINUTE,
  relief_Pa: 100 * BAR,
  override_PaSPerM3: 4e9,
  efficiency: 0.85,
  belt_Nm: 30,
  fluidPart: 1,
};
const turns = 1.15 * 750 * PER_MINUTE;
const hot = viscosity_PaS(HYDRAULIC_FLUIDS.steering, celsius(80));
const litres = (flow_m3PerS: number) => flow_m3PerS * 6e4;

describe('a pump on a belt, handbook-models P.3', () => {
  test('7.36 L/min at 50 bar, shut 104 bar; five times the leak: 3.67 and 90', () => {
    expect(Math.abs(litres(beltPumpFlow_m3PerS(belt, turns, hot, 50 * BAR)) / 7.36 - 1)).toBeLessThan(0.01);
    expect(Math.abs(shutOff_Pa(belt, turns, hot) / BAR / 104 - 1)).toBeLessThan(0.01);
    const worn = { ...belt, leak_m3: 5 * belt.leak_m3 };
    expect(Math.abs(litres(beltPumpFlow_m3PerS(worn, turns, hot, 50 * BAR)) / 3.67 - 1)).toBeLessThan(0.01);
    expect(Math.abs(shutOff_Pa(worn, turns, hot) / BAR / 90 - 1)).toBeLessThan(0.01);
  });
  test('a pump that loses all it turns below its relief stands where it does: D·n·μ/k', () => {
    // 9.6 cc · 14.375 turns a second, all of it lost at μ/k of that: 63.9 bar of seven times the leak, whatever stands above.
    const spent = { ...belt, leak_m3: 7 * belt.leak_m3 };
    const lost_Pa = (9.6e-6 * 14.375 * hot) / (7 * 2.8e-14);
    expect(shutOff_Pa(spent, turns, hot) / lost_Pa).toBeCloseTo(1, 4);
    // With a part of it air it gives less, and so the same part sooner.
    expect(shutOff_Pa({ ...spent, fluidPart: 0.8 }, turns, hot) / lost_Pa).toBeCloseTo(1, 4);
  });
  test('at the pressure found, what is given is what the relief lets back and what is taken besides', () => {
    const lost = (pressure_Pa: number) => (2e-13 * pressure_Pa) / hot;
    const shut = shutOff_Pa(belt, turns, hot, lost);
    const given = beltPumpFlow_m3PerS(belt, turns, hot, shut);
    expect((relieved_m3PerS(belt, shut) + lost(shut)) / given).toBeCloseTo(1, 5);
  });
  test('a belt slips at 2π·η·T/D, whatever the relief: flow at low pressure is kept', () => {
    const slack = { ...belt, belt_Nm: 12 };
    expect(slips_Pa(slack) / BAR).toBeCloseTo((2 * Math.PI * 0.85 * 12) / 9.6e-6 / BAR, 9);
    expect(shutOff_Pa(slack, turns, hot)).toBe(slips_Pa(slack));
    expect(beltPumpFlow_m3PerS(slack, turns, hot, 50 * BAR)).toBe(
      beltPumpFlow_m3PerS(belt, turns, hot, 50 * BAR),
    );
    expect(beltPumpFlow_m3PerS(slack, turns, hot, 80 * BAR)).toBe(0);
  });
  test('shut against its relief: 100 bar, 7.5 L/min and 0.3 L warm by 2.5 K a second', () => {
    const density = density_kgPerM3(HYDRAULIC_FLUIDS.steering, celsius(40));
    expect(loopHeating_KPerS(100 * BAR, 7.5e-3 / 60, density, 0.3e-3)).toBeCloseTo(2.5, 1);
  });
});

/** Handbook-models P.4: D 0.13 cc a turn, K 0.030, R 0.18, T_f 0.08, η 0.78, k_p 9e−16, glycol at 20 °C, 13.0 V. */
const motor = {
  displacement_m3: 0.13 * CC,
  leak_m3: 9e-16,
  efficiency: 0.78,
  friction_Nm: 0.08,
  constant_NmPerA: 0.03,
  motor_Ohm: 0.16,
  wiring_Ohm: 0.02,
};
const cool = viscosity_PaS(HYDRAULIC_FLUIDS.glycol, celsius(20));

describe('a motor pump, handbook-models P.4', () => {
  test.each([
    [65, 8.4, 7.57],
    [150, 15.9, 6.18],
  ])('at %d bar %d A and %d cc/s', (bar, ampere, cc) => {
    // To the digits that are printed.
    expect(pumpCurrent_A(motor, bar * BAR)).toBeCloseTo(ampere, 0);
    expect(Math.abs(pumpCurrent_A(motor, bar * BAR) / ampere - 1)).toBeLessThan(0.01);
    expect(Math.abs(motorPumpFlow_m3PerS(motor, 13, cool, bar * BAR) / CC / cc - 1)).toBeLessThan(0.01);
  });
  test('at 60 °C with three times the leak it never gets beyond 128 bar', () => {
    const worn = { ...motor, leak_m3: 3 * motor.leak_m3 };
    const warm = viscosity_PaS(HYDRAULIC_FLUIDS.glycol, celsius(60));
    const ceiling = ceiling_Pa(worn, 13, warm);
    expect(Math.abs(ceiling / BAR / 128 - 1)).toBeLessThan(0.01);
    expect(motorPumpFlow_m3PerS(worn, 13, warm, ceiling) / CC).toBeCloseTo(0, 6);
    expect(motorPumpFlow_m3PerS(worn, 13, warm, 1.1 * ceiling)).toBe(0);
  });
  test('volts lost in the wiring are I·R_w', () => {
    expect(pumpDrop_V(motor, 65 * BAR)).toBeCloseTo(0.02 * pumpCurrent_A(motor, 65 * BAR), 12);
  });
});

describe('cycling of a motor pump, handbook-models 8.5', () => {
  const vessel = new Vessel(
    { shell_m3: 0.3e-3, preCharge_Pa: 65 * BAR, settling_s: 20 },
    { barometer_Pa: 101_325, temperature_K: celsius(20) },
  );
  const flow = (pressure_Pa: number) => motorPumpFlow_m3PerS(motor, 13, cool, pressure_Pa);
  const charged = filledTo(vessel, vessel.empty, 160 * BAR, flow);
  test('0.30 L, 65 bar, off at 160: 20.2 s and 140 cc', () => {
    expect(Math.abs(charged.time_s / 20.2 - 1)).toBeLessThan(0.01);
    expect(Math.abs(vessel.fluid_m3(charged.charge) / (140 * CC) - 1)).toBeLessThan(0.01);
  });
  test('with a leak of k/μ 3e−15 and on at 125, off about 50 s at first, 460 then, then 530; on 3.4 s', () => {
    const leak = (pressure_Pa: number) => 3e-15 * pressure_Pa;
    const offs: number[] = [];
    let on_s = 0;
    let { charge } = charged;
    for (let cycle = 0; cycle < 3; cycle += 1) {
      const above = (time_s: number) =>
        vessel.gauge_Pa(stoodLeaking(vessel, charge, time_s, leak)) - 125 * BAR;
      const off_s = rootOfFalling(above, 0, 3600, 0.01);
      offs.push(off_s);
      const left = stoodLeaking(vessel, charge, off_s, leak);
      const again = filledTo(vessel, left, 160 * BAR, (p) => flow(p) - leak(p));
      [charge, on_s] = [again.charge, again.time_s];
    }
    [50, 460, 530].forEach((about_s, i) => expect(Math.abs(offs[i]! / about_s - 1)).toBeLessThan(0.05));
    expect(Math.abs(on_s / 3.4 - 1)).toBeLessThan(0.02);
  });
  test('a tight unit charged from empty restarts once by cooling alone: cut-in 120, after 85 s', () => {
    const slow = filledTo(vessel, vessel.empty, 150 * BAR, () => 6 * CC);
    const at = (time_s: number) => vessel.gauge_Pa(vessel.stood(slow.charge, time_s)) / BAR;
    expect([at(80) > 120, at(90) < 120]).toEqual([true, true]);
  });
});

test('a sharp opening either way round, and the overshoot behind a late switch: 1.6·q·t_d·p/V_g', () => {
  const area_m2 = (Math.PI * 0.0035 ** 2) / 4;
  const flow = orificeFlow_m3PerS(area_m2, 3 * BAR, 850);
  expect(flow).toBeCloseTo(0.62 * area_m2 * Math.sqrt((2 * 3 * BAR) / 850), 12);
  expect(orificeDrop_Pa(area_m2, flow, 850) / BAR).toBeCloseTo(3, 9);
  const rises = overshoot_Pa({ in_Pa: 125 * BAR, out_Pa: 160 * BAR, delay_s: 0.1 }, 6 * CC, 160 * CC);
  expect(rises / BAR).toBeCloseTo((1.6 * 6 * 0.1 * 160) / 160, 9);
});
