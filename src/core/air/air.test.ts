import fc from 'fast-check';
import { standardPressure_Pa } from './atmosphere';
import { chokedRise_PaPerS, depressionAfter_Pa, type Leak } from './leak';
import { seaLevelEquivalent_Pa, supplyHere_Pa } from './supply';

const INHG = 3386.389;

describe('standard atmosphere', () => {
  // ISO 2533 / ICAO Doc 7488, geopotential altitude, hPa.
  test.each([
    [-500, 1074.78],
    [0, 1013.25],
    [500, 954.61],
    [1000, 898.75],
    [1500, 845.56],
    [2000, 794.95],
    [2500, 746.82],
    [3000, 701.08],
    [3500, 657.64],
    [4000, 616.4],
    [4500, 577.28],
    [5000, 540.2],
  ])('%d m: %d hPa', (altitude_m, table_hPa) => {
    expect(Math.abs(standardPressure_Pa(altitude_m) / 100 - table_hPa)).toBeLessThan(0.02);
  });
  test.each([
    [500, 28.19],
    [1600, 24.66],
    [3000, 20.7],
  ])('handbook 4: %d m is %d inHg', (altitude_m, inHg) => {
    expect(standardPressure_Pa(altitude_m) / INHG).toBeCloseTo(inHg, 2);
  });
  test('refuses what the formula does not cover', () => {
    expect(() => standardPressure_Pa(12_000)).toThrow(RangeError);
    expect(() => standardPressure_Pa(Number.NaN)).toThrow(RangeError);
  });
});

describe('supply', () => {
  const at1600 = standardPressure_Pa(1600);
  test('handbook 4: 18 inHg at sea level is 12.7 inHg of manifold or 14.8 inHg of pump at 1 600 m', () => {
    expect(supplyHere_Pa(18 * INHG, 'manifold', at1600) / INHG).toBeCloseTo(12.74, 1);
    expect(supplyHere_Pa(18 * INHG, 'pump', at1600) / INHG).toBeCloseTo(14.83, 1);
  });
  test('the sea-level equivalent undoes it', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('pump' as const, 'manifold' as const),
        fc.double({ min: 15, max: 28, noNaN: true }),
        fc.double({ min: 80_000, max: 105_000, noNaN: true }),
        (kind, inHg, barometer_Pa) => {
          const here = supplyHere_Pa(inHg * INHG, kind, barometer_Pa);
          return here === 0
            ? seaLevelEquivalent_Pa(here, kind, barometer_Pa) === null
            : Math.abs(seaLevelEquivalent_Pa(here, kind, barometer_Pa)! - inHg * INHG) < 1e-6;
        },
      ),
    );
  });
});

describe('vacuum decay', () => {
  const leak: Leak = {
    conductance_m3PerSPa: 2e-11,
    volume_m3: 4e-3,
    barometer_Pa: 101_325,
    temperature_K: 293.15,
  };

  test('the choked rise is C·p_atm·p₀/V: 2e-11 × 101 325 × 100 046 / 0.004 = 50.69 Pa/s', () => {
    // ρ₀·R·T₀ = 1.185 × 288 × 293.15 = 100 046 Pa.
    expect(chokedRise_PaPerS(leak)).toBeCloseTo(50.69, 1);
  });
  test('straight while choked, then bent, then over in finite time', () => {
    const from = 20 * INHG;
    // Choked until Δp = p_atm/2 = 50 662.5 Pa: (67 727.8 − 50 662.5)/50.69 = 336.7 s.
    expect(depressionAfter_Pa(from, 300, leak)).toBeCloseTo(from - 300 * chokedRise_PaPerS(leak), 6);
    expect(depressionAfter_Pa(from, 500, leak)).toBeGreaterThan(from - 500 * chokedRise_PaPerS(leak));
    expect(depressionAfter_Pa(from, 3000, leak)).toBe(0);
  });
  test('agrees with the ISO 6358 law integrated step by step', () => {
    let p = 101_325 - 20 * INHG;
    const dt = 0.01;
    const rate = (abs: number) => {
      const ratio = abs / 101_325;
      const part = ratio <= 0.5 ? 1 : Math.sqrt(Math.max(0, 1 - ((ratio - 0.5) / 0.5) ** 2));
      return chokedRise_PaPerS(leak) * part;
    };
    for (let t = 0; t < 1200; t += dt) p += dt * rate(p + (dt / 2) * rate(p));
    expect(Math.abs(depressionAfter_Pa(20 * INHG, 1200, leak) - (101_325 - p))).toBeLessThan(2);
  });
});
