/** @jest-environment node */
import { solveBackward, solveForward, triangleOf } from './covariance';
import { GAUSS_8 } from './quadrature';

test('by its triangle 4a + 2b = 8, 2a + 10b = 14 is a = 52/36, b = 40/36, whatever stands behind them in a row', () => {
  // Rows of three, of which two are solved.
  const l = Float64Array.from([4, 0, 0, 2, 10, 0, 7, 7, 40]);
  expect(triangleOf(l, 3)).toBeGreaterThan(0);
  const v = Float64Array.from([8, 14]);
  solveForward(l, 3, 2, v);
  solveBackward(l, 3, 2, v);
  expect([...v]).toEqual([expect.closeTo(52 / 36, 12), expect.closeTo(40 / 36, 12)]);
});

test('eight points integrate powers up to the fifteenth: 1/(n + 1)', () => {
  for (const n of [0, 1, 7, 15])
    expect(GAUSS_8.reduce((sum, [x, w]) => sum + w * x ** n, 0)).toBeCloseTo(1 / (n + 1), 12);
});
