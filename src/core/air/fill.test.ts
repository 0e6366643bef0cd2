import fc from 'fast-check';
import { airFlow_PaM3PerS } from './flow';
import { emptyTime_s, fillTime_s, type Space } from './fill';
import { orificeConductance_m3PerSPa, orificeDiameter_m } from './orifice';

const space: Space = { conductance_m3PerSPa: 1e-8, volume_m3: 1e-3, temperature_K: 293.15 };
const ROOM_PA = 101_325;

/** The same by small steps of the flow law itself, which knows nothing of the integrals. */
function steps(from_Pa: number, to_Pa: number, flow: (p: number) => number): number {
  const count = 20_000;
  const step = (to_Pa - from_Pa) / count;
  let time_s = 0;
  for (let i = 0; i < count; i += 1) {
    const middle = from_Pa + (i + 0.5) * step;
    time_s += (Math.abs(step) * space.volume_m3) / flow(middle);
  }
  return time_s;
}

describe('filling and emptying through an opening', () => {
  // C·ρ₀·R·√(T₀·T) = 1e-8·1.185·288·293.15 = 1.00046e-3 m³/s: one litre turns over in 0.99954 s.
  test('a choked fill is a straight line: a litre, from nothing to 40 kPa, 40/101.325 of a turnover', () => {
    expect(fillTime_s(0, 40_000, ROOM_PA, space)).toBeCloseTo((0.99954 * 40) / 101.325, 4);
  });
  test('from half the room’s pressure to all of it the bend takes (1 − b)·π/2 = 0.7854 of a turnover', () => {
    expect(fillTime_s(ROOM_PA / 2, ROOM_PA, ROOM_PA, space)).toBeCloseTo(0.99954 * 0.785398, 4);
  });
  test('a choked emptying halves the pressure in ln 2 of a turnover', () => {
    expect(emptyTime_s(80_000, 40_000, 10_000, space)).toBeCloseTo(0.99954 * Math.LN2, 4);
  });
  test('from twice the sink to the sink itself it takes one turnover: tan 0 − tan(−π/4) = 1', () => {
    expect(emptyTime_s(60_000, 30_000, 30_000, space)).toBeCloseTo(0.99954, 4);
  });
  test('both are what small steps of the flow law give', () => {
    const part = fc.double({ min: 0.02, max: 0.97, noNaN: true });
    fc.assert(
      fc.property(part, part, (a, b) => {
        const [low, high] = [Math.min(a, b) * ROOM_PA, Math.max(a, b) * ROOM_PA];
        fc.pre(high - low > 100);
        const filled = fillTime_s(low, high, ROOM_PA, space);
        expect(filled / steps(low, high, (p) => airFlow_PaM3PerS(1e-8, ROOM_PA, p, 293.15))).toBeCloseTo(
          1,
          3,
        );
        const sink = 0.97 * low;
        const emptied = emptyTime_s(high, low, sink, space);
        expect(emptied / steps(high, low, (p) => airFlow_PaM3PerS(1e-8, p, sink, 293.15))).toBeCloseTo(1, 3);
      }),
      { numRuns: 40 },
    );
  });
  test('a shut opening never fills anything', () => {
    expect(fillTime_s(0, 50_000, ROOM_PA, { ...space, conductance_m3PerSPa: 0 })).toBe(Infinity);
  });
  test('an orifice and its conductance are each other’s inverse: 1e-9 m³/(s·Pa) is 0.87 mm', () => {
    expect(orificeConductance_m3PerSPa(0.873e-3) * 1e9).toBeCloseTo(1, 2);
    expect(orificeDiameter_m(orificeConductance_m3PerSPa(3e-3))).toBeCloseTo(3e-3, 9);
  });
});
