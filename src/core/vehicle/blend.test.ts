/** @jest-environment node */
import fc from 'fast-check';
import { fallback_Pa, opensAt_A, riseTime_s, simulated_Pa } from '../fluid/by-wire';
import { axleGain_NPerPa } from './brake-force';
import { blended, canRegenerate_Nm, demanded_mPerS2, takenBack_J } from './blend';

const BAR = 1e5;
const circle = (bore_m: number) => (Math.PI * bore_m ** 2) / 4;
/** The example of handbook-models 8.9: 57/36 mm, r_eff 0.12, μ 0.38/0.36, front 0.7 driven. */
const vehicle = {
  mass_kg: 1600,
  tyre_m: 0.31,
  frontShare: 0.7,
  driven: 'front',
  front_NmPerPa: axleGain_NPerPa(0.38, circle(0.057), 0.12, 0.31) * 0.31,
  rear_NmPerPa: axleGain_NPerPa(0.36, circle(0.036), 0.12, 0.31) * 0.31,
  contact_Pa: 0.4 * BAR,
  most_Pa: 150 * BAR,
} as const;
const machine = { most_Nm: 800, power_W: 40_000, fadesTo_mPerS: 1.5, fadesFrom_mPerS: 3.5 };
const at = (speed_mPerS: number, more: Partial<Parameters<typeof blended>[2]> = {}) =>
  blended(vehicle, machine, {
    deceleration_mPerS2: 2.5,
    speed_mPerS,
    fastMore: 0,
    grants_Nm: Infinity,
    ...more,
  });
const bars = ({ front_Pa, rear_Pa }: ReturnType<typeof at>) =>
  [front_Pa, rear_Pa].map((pressure) => Number((pressure / BAR).toFixed(1)));

describe('the example of handbook-models 8.9', () => {
  test('2.5 m/s² are 1 240 N·m; at 20 m/s 40 kW take back 620 of them: 5.7 and 21.5 bar', () => {
    const found = at(20);
    expect(found.total_Nm).toBeCloseTo(1240, 9);
    expect([found.requested_Nm, found.granted_Nm, found.friction_Nm]).toEqual([620, 620, 620]);
    expect(bars(found)).toEqual([5.7, 21.5]);
  });
  test('at 2.5 m/s half of 800 N·m is left of the fade: 10.5 and 21.5 bar', () => {
    expect(at(2.5).granted_Nm).toBeCloseTo(400, 9);
    expect(bars(at(2.5))).toEqual([10.5, 21.5]);
  });
  test('a fast stroke: 1 550 N·m, nothing taken back, 23.7 and 26.8 bar', () => {
    const fast = at(20, { fastMore: 0.25 });
    expect([fast.total_Nm, fast.requested_Nm]).toEqual([1550, 0]);
    expect(bars(fast)).toEqual([23.7, 26.8]);
  });
});

describe('a blended stop', () => {
  test('what is not granted friction makes up: the torque is the same', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.1, max: 40, noNaN: true }),
        fc.double({ min: 0.5, max: 8, noNaN: true }),
        fc.double({ min: 0, max: 900, noNaN: true }),
        (speed_mPerS, deceleration_mPerS2, grants_Nm) => {
          const found = at(speed_mPerS, { deceleration_mPerS2, grants_Nm });
          const pressed =
            vehicle.front_NmPerPa * Math.max(0, found.front_Pa - vehicle.contact_Pa) +
            vehicle.rear_NmPerPa * Math.max(0, found.rear_Pa - vehicle.contact_Pa);
          expect(pressed + found.granted_Nm + found.short_Nm).toBeCloseTo(found.total_Nm, 5);
          expect(found.granted_Nm).toBeLessThanOrEqual(Math.min(grants_Nm, found.requested_Nm) + 1e-9);
        },
      ),
    );
  });
  test('a full battery grants nothing, and the front is pressed as if there were no machine', () => {
    const full = at(20, { grants_Nm: 0 });
    expect([full.requested_Nm, full.granted_Nm]).toEqual([620, 0]);
    // (0.7·1 240)/(4·0.38·A·0.12) + 0.4 bar.
    expect(full.front_Pa / BAR).toBeCloseTo(868 / (4 * 0.38 * circle(0.057) * 0.12) / BAR + 0.4, 6);
  });
  test('a driven axle that is slowed by its machine alone is not pressed at all', () => {
    // 1 m/s² are 496 N·m, 347 of them in front: the machine takes all of those.
    const light = at(15, { deceleration_mPerS2: 1 });
    expect(light.granted_Nm).toBeCloseTo(347.2, 6);
    expect(light.front_Pa).toBe(0);
  });
  test('what the wheels would need beyond the most they are given is said to be short', () => {
    const { short_Nm, rear_Pa } = blended({ ...vehicle, most_Pa: 20 * BAR }, machine, {
      deceleration_mPerS2: 2.5,
      speed_mPerS: 20,
      fastMore: 0,
      grants_Nm: Infinity,
    });
    expect(rear_Pa).toBe(20 * BAR);
    expect(short_Nm).toBeCloseTo(372 - 19.6 * BAR * vehicle.rear_NmPerPa, 6);
  });
  test('energy taken back is force times way, summed over steps of a millisecond; what cannot be is refused', () => {
    // 20 m/s at 2.5 m/s²: P/F = 15.5 m/s.
    let [speed, energy] = [20, 0];
    while (speed > 0) {
      energy += (canRegenerate_Nm(machine, 0.31, speed) / 0.31) * speed * 1e-3;
      speed -= 2.5e-3;
    }
    expect(takenBack_J(machine, vehicle, 20, 2.5) / energy).toBeCloseTo(1, 3);
    expect(() => takenBack_J({ ...machine, most_Nm: 2000 }, vehicle, 20, 2.5)).toThrow(/more than is asked/);
    expect(() => takenBack_J({ ...machine, power_W: 5000 }, vehicle, 20, 2.5)).toThrow(/power_W/);
    expect(() => takenBack_J(machine, vehicle, 3, 2.5)).toThrow(/from_mPerS/);
  });
  test('a pedal asks by its way at first and by its pressure then; between them by both', () => {
    const demand = {
      perPressure_mPerS2Pa: 0.1 / BAR,
      perTravel_PerS2: 0.12 * 1000,
      free_m: 3e-3,
      from_Pa: 5 * BAR,
      alone_Pa: 25 * BAR,
    };
    expect(demanded_mPerS2(demand, 2 * BAR, 13e-3)).toBeCloseTo(1.2, 9);
    expect(demanded_mPerS2(demand, 30 * BAR, 13e-3)).toBeCloseTo(3, 9);
    // Halfway: 0.5·1.5 + 0.5·1.2.
    expect(demanded_mPerS2(demand, 15 * BAR, 13e-3)).toBeCloseTo(1.35, 9);
    expect(demanded_mPerS2(demand, 0, 2e-3)).toBe(0);
  });
});

describe('brakes by wire', () => {
  test('a simulator of two stages: 15 N, then 6 and 25 N/mm', () => {
    const simulator = {
      master_m2: circle(0.02),
      piston_m2: circle(0.025),
      preload_N: 15,
      first_NPerM: 6000,
      second_NPerM: 25_000,
      second_m: 9e-3,
    };
    // 10 mm of the master are 6.4 of the simulator: 15 + 6·6.4 = 53.4 N; 20 mm are 12.8: 15 + 54 + 25·3.8 = 164 N.
    expect(simulated_Pa(simulator, 0.01) * circle(0.025)).toBeCloseTo(53.4, 9);
    expect(simulated_Pa(simulator, 0.02) * circle(0.025)).toBeCloseTo(164, 9);
    expect(simulated_Pa(simulator, 0)).toBe(0);
  });
  test('the current that opens a valve depends on the pressure: 1.2 A less 4 mA for each bar', () => {
    const valve = { zero_A: 1.2, perPressure_APerPa: 0.004 / BAR };
    expect(opensAt_A(valve, 0)).toBe(1.2);
    expect(opensAt_A(valve, 150 * BAR)).toBeCloseTo(0.6, 9);
  });
  test('a wheel comes from 10 to 90 % of 80 bar out of 165 in 30 ms: as c·dp/dt = g·√(p_acc − p) goes', () => {
    const [give, valve] = [2e-13, 1.2e-8];
    let [pressure, time] = [8 * BAR, 0];
    while (pressure < 72 * BAR) {
      pressure += (valve / give) * Math.sqrt(165 * BAR - pressure) * 1e-6;
      time += 1e-6;
    }
    expect(riseTime_s(165 * BAR, 80 * BAR, give, valve)).toBeCloseTo(0.0304, 4);
    expect(riseTime_s(165 * BAR, 80 * BAR, give, valve) / time).toBeCloseTo(1, 3);
    expect(riseTime_s(70 * BAR, 80 * BAR, give, valve)).toBe(Infinity);
  });
  test('with no power a small bore makes more of a force, and may run out of stroke', () => {
    const joined = { pedalRatio: 4, spring_N: 150, stroke_m: 0.03, takeUp_m3: 2e-6, give_m3PerPa: 8e-13 };
    const of = (bore_m: number) => fallback_Pa({ ...joined, master_m2: circle(bore_m) }, 500);
    // (2 000 − 150)/3.142 cm² = 58.9 bar; (9.42 − 2) cc/0.8 = 92.8.
    expect(of(0.02).at_Pa / BAR).toBeCloseTo(58.9, 1);
    expect(of(0.02).byStroke_Pa / BAR).toBeCloseTo(92.8, 1);
    // On 16 mm 92.0 bar by force, and 50.4 by stroke.
    expect(of(0.016).byForce_Pa / BAR).toBeCloseTo(92, 1);
    expect(of(0.016).at_Pa / BAR).toBeCloseTo(50.4, 1);
  });
});
