/** @jest-environment node */
import fc from 'fast-check';
import { rodPistonArea_m2, rodPush_N, slaveDiaphragmArea_m2, slaveOutput_Pa } from './diaphragm';

const BAR = 1e5;
const between = (min: number, max: number) => fc.double({ min, max, noNaN: true });

describe('a diaphragm on a slave piston', () => {
  const cylinder = { slaveArea_m2: 4e-4, rodArea_m2: 4e-5, spring_N: 100 };

  test('pushes: 0.9·20 bar + (50 000·0.04 − 100)/4 cm² = 18 + 47.5 = 65.5 bar', () => {
    expect(slaveOutput_Pa(cylinder, 20 * BAR, 50_000, 0.04) / BAR).toBeCloseTo(65.5, 9);
  });
  test('its area is the one that gives the output back', () => {
    fc.assert(
      fc.property(between(0, 60), between(1e3, 9e4), between(0.005, 0.1), (input, difference_Pa, area_m2) => {
        const output = slaveOutput_Pa(cylinder, input * BAR, difference_Pa, area_m2);
        expect(slaveDiaphragmArea_m2(cylinder, input * BAR, difference_Pa, output)).toBeCloseTo(area_m2, 9);
      }),
    );
  });
  test('without a difference no area can be told', () => {
    expect(slaveDiaphragmArea_m2(cylinder, 20 * BAR, 0, 18 * BAR)).toBeNaN();
  });
});

describe('a piston on a rod', () => {
  const rod = { preload_N: 100, pushArea_m2: 1e-4 };

  test('pushes: 60 000·0.02 + 12 bar·1 cm² − 100 = 1 200 + 120 − 100 = 1 220 N', () => {
    expect(rodPush_N(rod, 12 * BAR, 60_000, 0.02)).toBeCloseTo(1220, 9);
  });
  test('its area is the push over the vacuum: (1 214.086·1.033333 + 100)/67 727.78 = 0.02 m²', () => {
    const push_N = 1214.086 * (1 + 2 / 60);
    expect(rodPistonArea_m2({ ...rod, pushArea_m2: 0 }, 12 * BAR, 67_727.78, push_N)).toBeCloseTo(0.02, 7);
    // A push-through of 1 cm² at 12 bar carries 120 N of it.
    expect(rodPistonArea_m2(rod, 12 * BAR, 67_727.78, push_N)).toBeCloseTo(0.02 - 120 / 67_727.78, 7);
  });
  test('its area is the one that gives the push back', () => {
    fc.assert(
      fc.property(between(0, 40), between(1e3, 9e4), between(0.002, 0.1), (input, difference_Pa, area_m2) => {
        const push = rodPush_N(rod, input * BAR, difference_Pa, area_m2);
        expect(rodPistonArea_m2(rod, input * BAR, difference_Pa, push)).toBeCloseTo(area_m2, 9);
      }),
    );
    expect(rodPistonArea_m2(rod, 12 * BAR, 0, 500)).toBeNaN();
  });
});
