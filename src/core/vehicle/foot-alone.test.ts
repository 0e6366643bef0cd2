import fc from 'fast-check';
import {
  ruleAlone,
  stopAlone,
  taken_m3,
  travelAt_m,
  travelAtHard_m,
  locksFirstAlone,
  type FootAlone,
} from './foot-alone';

const BAR = 1e5;
/** A van with simple numbers: master 20 mm (3.1416 cm²), front 25 cm², rear 10 cm², μ 0.4, radii 0.12 on 0.30 m. */
const VAN: FootAlone = {
  mass_kg: 1500,
  wheelbase_m: 2.5,
  behindFront_m: 1,
  height_m: 0.5,
  front: { pistonArea_m2: 25e-4, friction: 0.4, effectiveRadius_m: 0.12 },
  rear: { pistonArea_m2: 10e-4, friction: 0.4, effectiveRadius_m: 0.12 },
  tyreRadius_m: 0.3,
  contact_Pa: 0,
  split_Pa: 20 * BAR,
  slope: 0.5,
  masterBore_m: 0.02,
  pedalRatio: 4,
  spring_N: 100,
  stroke_m: 0.12,
  freeTravel_m: 0.001,
  clearance_m: 0.0002,
  give_m3PerPa: 4e-13,
  grip: 0.8,
};

describe('a foot alone, worked by hand', () => {
  // 182.08 N at the pedal: (182.08·4 − 100)/3.1416 cm² = 628.32/3.1416e-4 = 20.0 bar.
  const stop = stopAlone(VAN, 182.08);
  test('pressure: (F·i − F_s)/A_mc', () => expect(stop.pressure_Pa / BAR).toBeCloseTo(20, 3));
  test('deceleration: 4·0.4·(25 + 10) cm²·0.12/0.30 = 22.4 cm²; × 20 bar = 4 480 N; /1 500 kg = 2.987 m/s²', () => {
    expect(stop.deceleration_mPerS2).toBeCloseTo(2.9867, 3);
    expect(stop.slides).toBeNull();
  });
  test('metres: 0.1·100 + 27.778²/(2·2.9867) = 10 + 129.18 = 139.2', () =>
    expect(stop.distance_m).toBeCloseTo(139.18, 1));
  test('volume: 4·35 cm²·0.2 mm + 0.4 cc for each MPa·2 = 2.8 + 0.8 = 3.6 cc; travel 4·(1 + 11.459) = 49.8 mm', () => {
    expect(stop.volume_m3 * 1e6).toBeCloseTo(3.6, 3);
    expect(stop.travel_m * 1e3).toBeCloseTo(49.84, 1);
  });
  test('the rule’s 2.44 m/s²: 1 500·2.441/22.4 cm² = 16.35 bar; (16.35·3.1416·10 + 100)/4 = 153.4 N', () => {
    const rule = ruleAlone(VAN);
    expect(rule.pedal_N).toBeCloseTo(153.4, 0);
    // The master gives 3.1416 cm²·(120/4 − 1) mm = 9.11 cc.
    expect(rule.masterGives_m3 * 1e6).toBeCloseTo(9.11, 2);
    expect(rule.limit_m).toBeCloseTo(168, 9);
  });
  test('0.6 g: 8 826 N, beyond the split [8 826 − 6.4 cm²·10 bar]/(16 + 3.2) cm² = 42.64 bar; 4·(1 + (2.8 + 1.705)/0.31416) = 61.4 mm', () =>
    expect(travelAtHard_m(VAN) * 1e3).toBeCloseTo(61.4, 1));
  test('no force below the spring, and nothing that slows down', () => {
    expect(stopAlone(VAN, 25)).toMatchObject({ pressure_Pa: 0, distance_m: null, travel_m: 0 });
  });
});

test('a pedal at its stop presses no harder, however hard the foot is', () => {
  const long: FootAlone = { ...VAN, give_m3PerPa: 4e-12 };
  const [hard, harder] = [stopAlone(long, 700), stopAlone(long, 1000)];
  expect(hard.travel_m).toBeCloseTo(long.stroke_m, 5);
  expect(harder.pressure_Pa).toBeCloseTo(hard.pressure_Pa, -1);
});

test('tyres hold no more than grip × their load: on ice both axles slide at grip·g', () => {
  const ice = stopAlone({ ...VAN, grip: 0.1 }, 400);
  expect(ice.slides).toBe('both');
  expect(ice.deceleration_mPerS2).toBeCloseTo(0.981, 2);
  // Front 1 600 N/bar·… against 1 129 kg: its front has 71 % of the force and 60 % of the load at rest, so the front goes first.
  expect(locksFirstAlone({ ...VAN, grip: 0.3 })?.axle).toBe('front');
});

describe('what is traded', () => {
  const force = fc.double({ min: 60, max: 900, noNaN: true });
  test('a smaller bore: more pressure, more travel, never more metres while the pedal has way and tyres hold', () => {
    fc.assert(
      fc.property(force, fc.double({ min: 0.016, max: 0.03, noNaN: true }), (pedal_N, masterBore_m) => {
        const [small, large] = [masterBore_m, masterBore_m * 1.05].map((bore) =>
          stopAlone({ ...VAN, masterBore_m: bore, stroke_m: 1 }, pedal_N),
        ) as [ReturnType<typeof stopAlone>, ReturnType<typeof stopAlone>];
        expect(small.pressure_Pa).toBeGreaterThanOrEqual(large.pressure_Pa);
        expect(small.travel_m).toBeGreaterThanOrEqual(large.travel_m);
        expect(small.deceleration_mPerS2).toBeGreaterThanOrEqual(large.deceleration_mPerS2 - 1e-5);
      }),
    );
  });
  test('a harder push never takes longer, and travel goes with pressure', () => {
    fc.assert(
      fc.property(force, force, (one, other) => {
        const [less, more] = [Math.min(one, other), Math.max(one, other)].map((f) => stopAlone(VAN, f)) as [
          ReturnType<typeof stopAlone>,
          ReturnType<typeof stopAlone>,
        ];
        expect(more.deceleration_mPerS2).toBeGreaterThanOrEqual(less.deceleration_mPerS2 - 1e-5);
        expect(travelAt_m(VAN, more.pressure_Pa)).toBeGreaterThanOrEqual(travelAt_m(VAN, less.pressure_Pa));
        expect(taken_m3(VAN, less.pressure_Pa)).toBeLessThanOrEqual(taken_m3(VAN, more.pressure_Pa));
      }),
    );
  });
});
