import { INHG_PA } from '../quantities/units';
import { compared, fitted, type Candidate, type FittingPlace, type Margin } from './fitting';

const BAR = 1e5;
const DEG = Math.PI / 180;

/** A van with simple numbers: front 25 cm², rear 10 cm², μ 0.4, radii 0.12 on 0.30 m; pedal 4 to 1, 120 mm to its stop. */
const VAN: FittingPlace = {
  brake: {
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
    pedalRatio: 4,
    stroke_m: 0.12,
    freeTravel_m: 0.001,
    clearance_m: 0.0002,
    give_m3PerPa: 4e-13,
    grip: 0.8,
  },
  altitude_m: 1600,
  vacuum_Pa: 18 * INHG_PA,
  vacuumBy: 'manifold',
  pumpFlow_m3PerS: 9e-3 / 60,
  pumpRelief_Pa: 110 * BAR,
  fuse_A: 60,
  wireLength_m: 3,
  wire_m2: 10e-6,
  spaceLength_m: 0.3,
  spaceDiameter_m: 0.25,
  studSquare_m: 0.08,
  plateAngle_rad: 5 * DEG,
  fluid: 'dot4',
  reserveStops: 2,
};

const CAN: Candidate = {
  name: 'Tollan can',
  assist: 'vacuum',
  masterBore_m: 0.02,
  spring_N: 100,
  rise_s: 0.4,
  vacuumNeed_Pa: 40_000,
  flowNeed_m3PerS: 7e-3 / 60,
  pressureNeed_Pa: 100 * BAR,
  current_A: 40,
  dropMost_V: 0.5,
  hoseRating_Pa: 140 * BAR,
  reserveStops: 3,
  length_m: 0.27,
  diameter_m: 0.24,
  studSquare_m: 0.0802,
  reservoirAngle_rad: 60 * DEG,
  fluid: 'dot5.1',
  altered: false,
};

const marginsOf = (margins: readonly Margin[]) =>
  Object.fromEntries(margins.map((one) => [one.id, one.known ? one.margin : null]));

describe('one vehicle worked by hand', () => {
  const can = fitted(VAN, CAN);
  const margins = marginsOf(can.margins);
  test.each([
    // 1 500·2.441/22.4 cm² = 16.35 bar; (16.35·3.1416·10 + 100)/4 = 153.4 N: (500 − 153.4)/500.
    ['effort', 0.6932],
    // 500 N: 60.48 bar; front tyres hold 0.8 of 1 500·(5.884 + 0.2a), rear 2 575 N: 0.84a = 6.424, a = 7.648.
    // 27.78·0.2 + 771.6/15.295 − 0.051 = 55.95 m: (168 − 55.95)/168.
    ['metres', 0.667],
    // 42.64 bar, 4.505 cc, 4·(1 + 14.34) = 61.37 mm of 0.55·120 = 66: (66 − 61.37)/66.
    ['travel', 0.0702],
    // 0.9·3.1416 cm²·29 mm = 8.20 cc for 4.505: (8.20 − 4.505)/4.505.
    ['volume', 0.82],
    // The front goes first: as it should.
    ['locks', 0.3],
    // 1 600 m: 83 524 Pa; the manifold stands at 101 325 − 60 955 = 40 370: 43 154 of 40 000.
    ['vacuum', 0.0788],
    ['reserve', 0.5],
    ['length', 0.1],
    ['diameter', 0.04],
    ['studs', 0.3],
    // 5° + 45° of 60°.
    ['reservoir', 1 / 6],
    ['fluid', 0.3],
  ])('%s: %d', (id, margin) => expect(margins[id]).toBeCloseTo(margin, 3));
  test('a can on vacuum asks for no pump, hose or wire', () => {
    for (const id of ['flow', 'pressure', 'hose', 'drop', 'fuse']) expect(margins).not.toHaveProperty(id);
  });
  test('what is pumped: 9 of 7 L/min, 110 of 100 bar, 140 of 137.5', () => {
    const pumped = marginsOf(fitted(VAN, { ...CAN, assist: 'pumped' }).margins);
    expect(pumped.flow).toBeCloseTo(2 / 7, 9);
    expect(pumped.pressure).toBeCloseTo(0.1, 9);
    expect(pumped.hose).toBeCloseTo(2.5 / 137.5, 9);
  });
  test('what is electric: 40 A·2·3 m·1.724e-8/10 mm² = 0.414 V of 0.5; fuse 60 of 50 A', () => {
    const electric = marginsOf(fitted(VAN, { ...CAN, assist: 'electric' }).margins);
    expect(electric.drop).toBeCloseTo((0.5 - 0.41376) / 0.5, 6);
    expect(electric.fuse).toBeCloseTo(0.2, 9);
  });
  test('its score: the weighted mean of what each is worth, full from 0.3 on; its least margin is shown', () => {
    // Weights 3, 2, 2, 2, 1, 2, 1, 1, 1, 1, 1, 1 of 18.
    const worth =
      3 + 2 + (2 * 0.0702) / 0.3 + 2 + 1 + (2 * 0.0788) / 0.3 + 1 + 1 / 3 + 0.04 / 0.3 + 1 + 1 / 6 / 0.3 + 1;
    expect(can.score).toBeCloseTo(worth / 18, 3);
    expect(can.least).toMatchObject({ id: 'diameter' });
    expect(can.verdict).toBe('fits');
  });
});

describe('a verdict', () => {
  test('one thing missed is never bought back by any other', () => {
    const long = fitted(VAN, { ...CAN, length_m: 0.301 });
    expect(long).toMatchObject({
      verdict: 'does-not-fit',
      score: null,
      reasons: ['Length, in its space: missed.'],
    });
  });
  test('what is not known yet is said, and not ranked; what is missed besides is said first', () => {
    const half = fitted({ ...VAN, altitude_m: null }, { ...CAN, masterBore_m: null, rise_s: null });
    expect(half).toMatchObject({ verdict: 'not-known', score: null });
    expect(half.reasons).toEqual([
      'Not known yet: master bore of the candidate.',
      'Not known yet: rise of the candidate.',
      'Not known yet: altitude.',
    ]);
    const both = fitted({ ...VAN, altitude_m: null }, { ...CAN, fluid: 'mineral' });
    expect(both.verdict).toBe('does-not-fit');
    expect(both.reasons[0]).toMatch(/two bases/);
  });
  test('at sea level its vacuum has more to spare; a pump loses less with height than a manifold', () => {
    const at = (change: Partial<FittingPlace>) =>
      marginsOf(fitted({ ...VAN, ...change }, CAN).margins).vacuum!;
    expect(at({ altitude_m: 0 })).toBeCloseTo((18 * INHG_PA - 40_000) / 40_000, 6);
    expect(at({ vacuumBy: 'pump' })).toBeGreaterThan(at({}));
    expect(fitted({ ...VAN, altitude_m: 3000 }, CAN).verdict).toBe('does-not-fit');
  });
  test('a spring made softer to get more help is refused, whatever its figures', () => {
    const soft = fitted(VAN, { ...CAN, altered: true });
    expect(soft).toMatchObject({ verdict: 'does-not-fit', score: null });
    expect(soft.reasons[0]).toMatch(/refused/);
  });
  test('brakes at the rear that lock first do not fit', () => {
    const rear = fitted(
      { ...VAN, brake: { ...VAN.brake!, rear: { ...VAN.brake!.rear, pistonArea_m2: 30e-4 }, slope: 1 } },
      CAN,
    );
    expect(rear.reasons).toContain('Axle that locks first: the rear axle.');
  });
});

test('those that fit come first, by their score, equal ones by their least margin; then what is not known, then what does not fit', () => {
  const named = (name: string, change: Partial<Candidate>): Candidate => ({ ...CAN, ...change, name });
  const order = compared(VAN, [
    named('too long', { length_m: 0.4 }),
    named('unknown', { fluid: null }),
    named('tight', { diameter_m: 0.249 }),
    named('roomy', { length_m: 0.2, diameter_m: 0.15 }),
    // Worth as much as the roomy one: what is beyond 0.3 counts no more, so its least margin tells.
    named('roomier', { length_m: 0.2, diameter_m: 0.15, vacuumNeed_Pa: 40_000, reserveStops: 9 }),
  ]).map(({ name }) => name);
  expect(order.slice(0, 2).sort()).toEqual(['roomier', 'roomy']);
  expect(order.slice(2)).toEqual(['tight', 'unknown', 'too long']);
});
