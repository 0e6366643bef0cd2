/** @jest-environment node */
import fc from 'fast-check';
import {
  compressedFast,
  gasEnergy_J,
  gasEntropy_JPerK,
  gasHeatCapacity_JPerK,
  gasPressure_Pa,
  gasVolume_m3,
  isExtrapolated,
  isochoricSlope_PaPerK,
  isothermalIndex,
  MOLAR_GAS_CONSTANT,
} from './nitrogen';

/** Compressibility factor by the reference equation (Span et al. 2000), handbook-models P.1: at 50, 150 and 250 bar abs. */
const REFERENCE_Z: readonly (readonly [temperature_K: number, within: number, z: readonly number[]])[] = [
  [220, 0.0098, [0.9369, 0.9108, 1.0153]],
  [263.15, 0.008, [0.9785, 0.9901, 1.0686]],
  [293.15, 0.005, [0.994, 1.0205, 1.0924]],
  [400, 0.005, [1.0163, 1.0631, 1.1255]],
];

const state = (temperature_K: number, pressure_Pa: number) => ({
  temperature_K,
  volume_m3: gasVolume_m3(temperature_K, pressure_Pa),
});

describe('against the reference equation', () => {
  test.each(REFERENCE_Z)('compressibility at %d K within %d', (temperature_K, within, reference) => {
    reference.forEach((z, i) => {
      const pressure_Pa = [50e5, 150e5, 250e5][i]!;
      const own =
        (pressure_Pa * gasVolume_m3(temperature_K, pressure_Pa)) / (MOLAR_GAS_CONSTANT * temperature_K);
      expect(Math.abs(own / z - 1)).toBeLessThanOrEqual(within);
    });
  });
  test('how stiff it is: 1.03 at 100 bar, 1.08 at 150, isothermal; 1.5 at 60 bar, 1.75 at 150, with no heat given', () => {
    expect(isothermalIndex(state(293.15, 100e5))).toBeCloseTo(1.03, 2);
    expect(isothermalIndex(state(293.15, 150e5))).toBeCloseTo(1.08, 2);
    for (const [pressure_Pa, index] of [
      [60e5, 1.5],
      [150e5, 1.75],
    ] as const) {
      const from = state(293.15, pressure_Pa);
      const to = compressedFast(from, 0.999 * from.volume_m3);
      const own = Math.log(gasPressure_Pa(to) / gasPressure_Pa(from)) / -Math.log(0.999);
      expect(Math.abs(own / index - 1)).toBeLessThan(0.02);
    }
  });
});

const within = fc.record({
  temperature_K: fc.double({ min: 221, max: 399, noNaN: true }),
  pressure_Pa: fc.double({ min: 1.1e5, max: 249e5, noNaN: true }),
});

describe('one equation of state', () => {
  test('the volume at a pressure has that pressure, also where it goes on as an ideal gas', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 150, max: 700, noNaN: true }),
        fc.double({ min: 1e3, max: 600e5, noNaN: true }),
        (temperature_K, pressure_Pa) => {
          expect(gasPressure_Pa(state(temperature_K, pressure_Pa)) / pressure_Pa).toBeCloseTo(1, 8);
        },
      ),
    );
  });
  test('derivatives are those of the functions: ∂p/∂T, k_T, ∂u/∂T = c_v, ∂s/∂T = c_v/T', () => {
    fc.assert(
      fc.property(within, ({ temperature_K: t, pressure_Pa }) => {
        const at = state(t, pressure_Pa);
        const v = at.volume_m3;
        const byT = (f: (of: typeof at) => number) =>
          (f({ temperature_K: t + 1e-3, volume_m3: v }) - f({ temperature_K: t - 1e-3, volume_m3: v })) /
          2e-3;
        const close = (own: number, other: number) => expect(own / other).toBeCloseTo(1, 5);
        close(isochoricSlope_PaPerK(at), byT(gasPressure_Pa));
        close(gasHeatCapacity_JPerK(at), byT(gasEnergy_J));
        close(gasHeatCapacity_JPerK(at) / t, byT(gasEntropy_JPerK));
        const h = 1e-6 * v;
        const pressures = [v + h, v - h].map((volume_m3) => gasPressure_Pa({ temperature_K: t, volume_m3 }));
        close(isothermalIndex(at), (-v * (pressures[0]! - pressures[1]!)) / (2 * h * gasPressure_Pa(at)));
      }),
    );
  });
  test('Maxwell: ∂s/∂v = ∂p/∂T, and ∂u/∂v = T·∂p/∂T − p', () => {
    fc.assert(
      fc.property(within, ({ temperature_K, pressure_Pa }) => {
        const at = state(temperature_K, pressure_Pa);
        const h = 1e-5 * at.volume_m3;
        const byV = (f: (of: typeof at) => number) =>
          (f({ temperature_K, volume_m3: at.volume_m3 + h }) -
            f({ temperature_K, volume_m3: at.volume_m3 - h })) /
          (2 * h);
        expect(byV(gasEntropy_JPerK) / isochoricSlope_PaPerK(at)).toBeCloseTo(1, 5);
        const inner = temperature_K * isochoricSlope_PaPerK(at) - gasPressure_Pa(at);
        expect(Math.abs(byV(gasEnergy_J) - inner) / gasPressure_Pa(at)).toBeLessThan(1e-4);
      }),
    );
  });
});

describe('beyond the range', () => {
  test('it is said, and nothing jumps at the edge', () => {
    const edge = state(400, 120e5);
    expect(isExtrapolated(edge)).toBe(false);
    const beyond = { ...edge, temperature_K: 400.001 };
    expect(isExtrapolated(beyond)).toBe(true);
    expect(gasPressure_Pa(beyond) / gasPressure_Pa(edge)).toBeCloseTo(1, 5);
    expect(gasEnergy_J(beyond) / gasEnergy_J(edge)).toBeCloseTo(1, 5);
    const dense = state(293.15, 250e5);
    const denser = { ...dense, volume_m3: 0.5 * dense.volume_m3 };
    expect(isExtrapolated(denser)).toBe(true);
    expect(gasPressure_Pa(denser)).toBeCloseTo(500e5, 0);
  });
  test('colder and hotter than the range p, u and s are still one equation: ∂s/∂v = ∂p/∂T, ∂u/∂v = T·∂p/∂T − p', () => {
    const outside = fc.oneof(
      fc.double({ min: 180, max: 219, noNaN: true }),
      fc.double({ min: 401, max: 500, noNaN: true }),
    );
    fc.assert(
      fc.property(outside, fc.double({ min: 5e5, max: 150e5, noNaN: true }), (temperature_K, pressure_Pa) => {
        const at = state(temperature_K, pressure_Pa);
        const h = 1e-4 * at.volume_m3;
        const byV = (f: (of: typeof at) => number) =>
          (f({ temperature_K, volume_m3: at.volume_m3 + h }) -
            f({ temperature_K, volume_m3: at.volume_m3 - h })) /
          (2 * h);
        // But for what the heat capacity of the edge changes with the volume: within 5 % down to 180 K.
        expect(Math.abs(byV(gasEntropy_JPerK) / isochoricSlope_PaPerK(at) - 1)).toBeLessThan(0.05);
        const inner = temperature_K * isochoricSlope_PaPerK(at) - gasPressure_Pa(at);
        expect(Math.abs(byV(gasEnergy_J) - inner) / gasPressure_Pa(at)).toBeLessThan(0.05);
      }),
    );
  });
  test('beyond 250 bar p·v stays as it is there', () => {
    const edge = state(300, 250e5);
    for (const part of [0.9, 0.7, 0.5])
      expect(gasPressure_Pa({ ...edge, volume_m3: part * edge.volume_m3 })).toBeCloseTo(250e5 / part, 0);
    expect(isothermalIndex({ ...edge, volume_m3: 0.5 * edge.volume_m3 })).toBe(1);
  });
  test.each([
    [0, 1e5],
    [293, 0],
    [293, NaN],
  ])('%d K and %d Pa are no state', (temperature_K, pressure_Pa) => {
    expect(() => gasVolume_m3(temperature_K, pressure_Pa)).toThrow(RangeError);
  });
});
