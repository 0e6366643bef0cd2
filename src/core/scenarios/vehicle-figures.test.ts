/** @jest-environment node */
import { member as booster, pedalVacuum, type PedalVacuumProfile } from '../families/pedal-vacuum/index';
import {
  asRead,
  member as supply,
  vacuumSupply,
  type VacuumSupplyProfile,
} from '../families/vacuum-supply/index';
import { member as brakes, wheelBrakes, type WheelBrakesProfile } from '../families/wheel-brakes/index';
import { installation } from '../model/installation';
import { AT_ONCE, placeOf, readingOf } from '../model/vectors';

const BAR = 1e5;
const ROOM = { barometer_Pa: 101_325, temperature_K: 293.15 };
const vehicle = installation({ source: supply, unit: booster, load: brakes });
const known = installation({ source: asRead, unit: booster, load: brakes });

/** The example of handbook-models 8.3: no free travel, no tank, no leak. */
const typical: PedalVacuumProfile = pedalVacuum.typical;
const source: VacuumSupplyProfile = { ...vacuumSupply.typical, tank_m3: 0 };
const load: WheelBrakesProfile = { ...wheelBrakes.typical, freeTravel_m: 0 };
const profiles = { source, unit: typical, load: { ...load, pedalRatio: typical.pedalRatio } };
type Change = Readonly<Record<string, number>>;

const parametersOf = (change: Change = {}) => {
  const values = [...vehicle.healthy(profiles).values];
  for (const [id, value] of Object.entries({ shell_m3PerSPa: 0, ...change }))
    values[placeOf(vehicle.parameters, id)] = value;
  return values;
};
/** The handbook's figures leave out the valve's hysteresis, and the crack of the check valve against an unassisted stroke. */
const LEFT_OUT = { friction_N: 0, 'source.crack_Pa': 0 };
const at = (reading: string, inputs: Change, change: Change = {}) =>
  readingOf(
    known,
    parametersOf({ ...LEFT_OUT, ...change }),
    { ...ROOM, ...AT_ONCE, supply_Pa: 65e3, pedal_N: 0, ...inputs },
    reading,
  );
const whole = (reading: string, inputs: Change = {}, change: Change = {}) =>
  readingOf(vehicle, parametersOf(change), { ...ROOM, ...AT_ONCE, pedal_N: 0, ...inputs }, reading);

describe('the example of handbook-models 8.3, 65 kPa', () => {
  test('runout: (2 080 − 130 − 168 + 168)/3.2 = 609.4 N in, 169 N at the pedal', () => {
    expect(at('runoutPedal', {})).toBeCloseTo(169.3, 1);
  });
  test('150 N: 540 N in, 168 + 4.2·500 = 2 268 N out, over 3.871 cm² 58.6 bar, 10.6 without', () => {
    expect(at('output', { pedal_N: 150 })).toBeCloseTo(2268, 6);
    expect(at('load.pressure', { pedal_N: 150 }) / BAR).toBeCloseTo(58.6, 1);
    expect(at('load.pressure', { pedal_N: 150, supply_Pa: 0 }) / BAR).toBeCloseTo(10.6, 1);
  });
  test('and the pedal drops by 3.6·3.5e-13·48e5/3.871e-4 = 15.6 mm as the engine starts', () => {
    expect(at('drop', { pedal_N: 150 }) * 1e3).toBeCloseTo(15.6, 1);
  });
  test('300 N: 1 080 + 2 080 − 130 = 3 030 N, 78.3 bar; 24.5 without; A = 53.8 bar·3.871 cm²/65 kPa', () => {
    const [with_Pa, without_Pa] = [65e3, 0].map((supply_Pa) =>
      at('load.pressure', { pedal_N: 300, supply_Pa }),
    );
    expect(with_Pa! / BAR).toBeCloseTo(78.3, 1);
    expect(without_Pa! / BAR).toBeCloseTo(24.5, 1);
    expect(((with_Pa! - without_Pa!) * (Math.PI / 4) * 0.0222 ** 2) / 65e3).toBeCloseTo(0.032, 6);
  });
  test('150 N on nothing, with a crack of 1.5 kPa: (540 − 130 − 1.5e3·0.032)/3.871 cm² = 9.35 bar', () => {
    const nothing = { pedal_N: 150, supply_Pa: 0, applications: 1 };
    expect(at('load.pressure', nothing, { 'source.crack_Pa': 1.5e3 }) / BAR).toBeCloseTo(9.35, 2);
  });
  test('as the engine starts the valve stands as on the way back: 2·10·4.2 N more, 60.8 bar, 16.3 mm', () => {
    expect(at('drop', { pedal_N: 150 }, { friction_N: 10 }) * 1e3).toBeCloseTo(16.3, 1);
  });
  test('held 30 s at 300 N, 2e-10: 619 Pa/s off 3.274 L, 46.4 kPa, 62.9 bar with the stroke as it was; 47.1, 63.5 where it moves', () => {
    const held = { pedal_N: 300, elapsed_s: 30 };
    const leak = { shell_m3PerSPa: 2e-10 };
    // As the handbook has it, the supply is read as it is held.
    expect(at('heldLeft', held, leak) / 1e3).toBeCloseTo(47.1, 1);
    // 3.6·3.5e-13·(78.3 − 63.5) bar/3.871 cm².
    expect(at('rise', held, leak) * 1e3).toBeCloseTo(4.8, 1);
    // A bypass of 1e-15 lets the pedal sink meanwhile: 3.6·1e-15·78.3e5·30/3.871e-4 = 2.2 mm.
    const sinks = { ...leak, 'load.bypass_m3PerSPa': 1e-15 };
    expect((at('rise', held, leak) - at('rise', held, sinks)) * 1e3).toBeCloseTo(2.18, 2);
  });
  test('300 s at rest, 2e-11: 15.6 kPa off 3.9 L, 49.4 kPa', () => {
    expect(at('left', { elapsed_s: 300 }, { shell_m3PerSPa: 2e-11 }) / 1e3).toBeCloseTo(49.4, 1);
  });
  test('a leak past the check valve is gone with the source side capped', () => {
    const back = { 'source.back_m3PerSPa': 2e-11 };
    expect(at('left', { elapsed_s: 300 }, back) / 1e3).toBeCloseTo(49.4, 1);
    expect(at('leftCapped', { elapsed_s: 300 }, back)).toBeCloseTo(65e3, 6);
  });
  test('18 mm strokes leave 45.0, 26.6, 9.6 kPa: three help; after 300 s at 2e-11 two do', () => {
    // A load whose rod goes 18 mm at any force: all of it free travel.
    const stroke = { 'load.freeTravel_m': 0.018, 'load.takeUp_m3': 0, 'load.stiffness_m3PerPa': 0 };
    const used = (applications: number) => at('used', { pedal_N: 300, applications }, stroke) / 1e3;
    expect([1, 2, 3].map((n) => Number(used(n).toFixed(1)))).toEqual([45, 26.6, 9.6]);
    expect(at('reserve', { pedal_N: 300 }, stroke)).toBe(3);
    expect(at('reserve', { pedal_N: 300, elapsed_s: 300 }, { ...stroke, shell_m3PerSPa: 2e-11 })).toBe(2);
  });
  test('applied in full, V = 0.3 L + A·x fills in (1.285·V − V_r·p_f/p_atm)/(C_air·K_T)', () => {
    const x_m = (1.2e-6 + 3.5e-13 * 78.27e5) / 3.8708e-4;
    const volume_m3 = 0.3e-3 + 0.032 * x_m;
    const expected_s = (1.2854 * volume_m3 - (0.3e-3 * 36_325) / 101_325) / (4e-8 * 100_046);
    expect(at('applyTime', { pedal_N: 300 })).toBeCloseTo(expected_s, 3);
  });
});

describe('the supply of handbook-models 9: idle 35 kPa, a leak of 2e-9 at the unit, crack 1.5 kPa', () => {
  const leak = {
    shell_m3PerSPa: 2e-9,
    'source.spare_m3PerSPa': 0,
    'source.suction_m3PerS': 1.2e-7 * 288 * 293.15,
  };

  test('a wide hose: 64.3 kPa at the source, 62.4 at the unit', () => {
    expect(whole('source.idle', {}, leak) / 1e3).toBeCloseTo(64.3, 1);
    expect(whole('source.atUnit', {}, leak) / 1e3).toBeCloseTo(62.4, 1);
  });
  test('a hose of 2e-9: 64.7 at the source, 19.7 at the unit', () => {
    const narrow = { ...leak, 'source.hose_m3PerSPa': 2e-9 };
    expect(whole('source.idle', {}, narrow) / 1e3).toBeCloseTo(64.7, 1);
    expect(whole('source.atUnit', {}, narrow) / 1e3).toBeCloseTo(19.7, 1);
  });
  test('without a leak a hose of 5 % shows on no static gauge, and takes 20 times as long to recover', () => {
    const narrow = { 'source.hose_m3PerSPa': 0.05 * 2.5e-8 };
    for (const pedal_N of [0, 150, 300])
      for (const id of ['source.idle', 'source.atUnit', 'load.pressure'])
        expect(whole(id, { pedal_N }, narrow)).toBeCloseTo(whole(id, { pedal_N }), -1);
    const [sound, blocked] = [whole('recovery'), whole('recovery', {}, narrow)];
    expect(blocked / sound).toBeGreaterThan(15);
  });
  test('recovery: V·(√(p₀ − p_s) − √(p₁ − p_s))/(C_h·K_T·√p_s) while the source is steady and the hose not choked', () => {
    // One application at 150 N: x = (1.2 cc + c·58.6 bar)/3.871 cm² = 8.40 mm, so Δp′ follows from section 4.
    const x_m = (1.2e-6 + 3.5e-13 * 58.59e5) / 3.8708e-4;
    const rest_Pa = 101_325 - 35_000;
    const after_Pa = (rest_Pa * 3.6e-3 - 101_325 * 0.032 * x_m) / 3.9e-3;
    const [p0, p1, ps] = [101_325 - after_Pa, 101_325 - 0.9 * rest_Pa, 35_000];
    expect(p0).toBeLessThan(2 * ps);
    const expected_s =
      (3.9e-3 * (Math.sqrt(p0 - ps) - Math.sqrt(p1 - ps))) / (2.5e-8 * 100_046 * Math.sqrt(ps));
    const steady = { 'source.crack_Pa': 0, 'source.suction_m3PerS': 1e3 };
    expect(whole('recovery', {}, steady) / expected_s).toBeCloseTo(1, 3);
  });
  test('the same engine at 1 800 m: the same absolute pressure, so 19.8 kPa less vacuum', () => {
    const high = 101_325 * (1 - 2.25577e-5 * 1800) ** 5.25588;
    expect(whole('source.idle') - whole('source.idle', { barometer_Pa: high })).toBeCloseTo(
      101_325 - high,
      0,
    );
  });
});

describe('loads of handbook-models 10 at 60 bar', () => {
  const pedal_N = (60 * BAR * (Math.PI / 4) * 0.0222 ** 2 + 130) / 3.6;
  const unassisted = { pedal_N, supply_Pa: 0 };

  test('a bypass of 1e-15 sinks 3.3 mm in a minute; the pressure stays', () => {
    const bypass = { 'load.bypass_m3PerSPa': 1e-15 };
    expect(at('load.pressure', unassisted) / BAR).toBeCloseTo(60, 6);
    expect(at('load.sink', { ...unassisted, elapsed_s: 60 }, bypass) * 1e3).toBeCloseTo(3.35, 2);
  });
  test('5 cc of air adds 3.6·4.917 cc/3.871 cm² = 45.7 mm', () => {
    const added = at('load.travel', unassisted, { 'load.air_m3': 5e-6 }) - at('load.travel', unassisted);
    expect(added * 1e3).toBeCloseTo(45.7, 1);
  });
  test('the rear follows to 30 bar, then at 0.4: 42 bar', () => {
    expect(at('load.rearPressure', unassisted) / BAR).toBeCloseTo(42, 6);
  });
});

test('a torn diaphragm loses nothing at rest, and holds no vacuum applied', () => {
  const torn = { tear_m3PerSPa: 1e-9 };
  expect(at('left', { elapsed_s: 300 }, torn)).toBeCloseTo(65e3, 6);
  expect(at('heldLeft', { pedal_N: 300, elapsed_s: 30 }, torn)).toBeLessThan(20e3);
});

test('an air seat that leaks lifts the working side by (C_as·p_atm/2C_vp)²/p_f while it is choked, and drags beyond F_s/A', () => {
  const seat = { seat_m3PerSPa: 1e-8 };
  const difference_Pa = ((1e-8 * 101_325) / (2 * 4e-8)) ** 2 / (101_325 - 65e3);
  expect(at('dragForce', {}, seat)).toBeCloseTo(difference_Pa * 0.032 - 130, 3);
  expect(at('dragForce', {})).toBe(0);
});
