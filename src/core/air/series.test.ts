import fc from 'fast-check';
import { airFlow_PaM3PerS, downstream_Pa, upstream_Pa } from './flow';
import { pressureBetween_Pa } from './series';

test('a choked second opening: 36·(1 − r) = r gives 97.297 kPa', () => {
  // First 3e-8 from 100 kPa, not choked: 3·√(1 − ((r − 0.5)/0.5)²) = 3·2·√(r·(1 − r)); second 1e-8 choked: r.
  expect(pressureBetween_Pa(3e-8, 1e-8, 1e5, 2e4, 293.15)).toBeCloseTo((1e5 * 36) / 37, 0);
});

test('as much flows in as out, whatever the openings, and nothing is lost without a second', () => {
  const conductance = fc.double({ min: -10, max: -7, noNaN: true }).map((exponent) => 10 ** exponent);
  fc.assert(
    // Seen to fail where the two differ a thousandfold, while both flows were asked to be alike to a thousandth.
    fc.property(conductance, conductance, fc.double({ min: 1e4, max: 9e4, noNaN: true }), (a, b, down) => {
      const between = pressureBetween_Pa(a, b, 1e5, down, 288);
      const moreInThanOut = (pressure: number) =>
        airFlow_PaM3PerS(a, 1e5, pressure, 288) - airFlow_PaM3PerS(b, pressure, down, 288);
      // Found to 0.01 Pa: a little lower more flows in, a little higher more flows out.
      expect(moreInThanOut(Math.max(down, between - 0.02))).toBeGreaterThan(0);
      expect(moreInThanOut(Math.min(1e5, between + 0.02))).toBeLessThan(0);
    }),
    { examples: [[1e-7, 1.18012919196507e-10, 14707.698576577879]] },
  );
  expect(pressureBetween_Pa(3e-8, 0, 1e5, 2e4, 293.15)).toBe(1e5);
  expect(pressureBetween_Pa(0, 1e-8, 1e5, 2e4, 293.15)).toBe(2e4);
});

/** Conductance of an opening, the pressure before it, and the ratio over it. */
const OPENING = [
  fc.double({ min: -11, max: -7, noNaN: true }).map((exponent) => 10 ** exponent),
  fc.double({ min: 1e4, max: 1e5, noNaN: true }),
  fc.double({ min: 0.05, max: 0.99999, noNaN: true }),
] as const;

test('the pressure upstream of an opening is the one from which as much flows', () => {
  fc.assert(
    fc.property(...OPENING, (conductance, up, ratio) => {
      const flow = airFlow_PaM3PerS(conductance, up, ratio * up, 288);
      const found = upstream_Pa(conductance, flow, ratio * up, 288);
      expect(Math.abs(found - up)).toBeLessThan(1e-9 * up + 0.001);
    }),
  );
});

test('the pressure downstream is the one into which as much flows; choked, the highest that chokes', () => {
  fc.assert(
    fc.property(...OPENING, (conductance, up, ratio) => {
      const flow = airFlow_PaM3PerS(conductance, up, ratio * up, 288);
      const found = downstream_Pa(conductance, flow, up, 288);
      expect(Math.abs(found - Math.max(0.5, ratio) * up)).toBeLessThan(1e-6 * up);
    }),
  );
});

test('where less stands than a valve takes to open, and so below nothing, no air comes through it', () => {
  // The unit at 101.3 kPa behind a valve that opens at 120: −18.7 kPa before it, the room behind it.
  expect(airFlow_PaM3PerS(1e-8, 101_325 - 120_000, 101_325, 293.15)).toBe(0);
});
