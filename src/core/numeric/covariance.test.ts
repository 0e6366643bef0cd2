/** @jest-environment node */
import fc from 'fast-check';
import { addToInverse, invertCovariance, solveBackward, solveForward, triangleOf } from './covariance';
import { GAUSS_8 } from './quadrature';

const part = fc.double({ min: -3, max: 3, noNaN: true });

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

test('one more unknown number, and the inverse is that of the sum', () => {
  // Σ = diag(1, 4, 2), e = (1, 2, 0): Σ + e·eᵀ = [[2, 2], [2, 8]] and 2 by itself. Determinant 12·2 for 4·2, so that ln det grows by
  // ln 3; inverse [[8, −2], [−2, 2]]/12 and ½.
  const inverse = Float64Array.of(1, 0, 0, 0, 1 / 4, 0, 0, 0, 1 / 2);
  const by = { effect: Float64Array.of(1, 2), reached: Int32Array.of(0, 1), count: 2 };
  expect(addToInverse(inverse, 3, by, new Float64Array(3))).toBeCloseTo(Math.log(3), 12);
  [8 / 12, -2 / 12, 0, -2 / 12, 2 / 12, 0, 0, 0, 1 / 2].forEach((value, i) => {
    expect(inverse[i]).toBeCloseTo(value, 12);
  });
});

test('a number that reaches some readings of many that hang together', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 2, max: 12 }).chain((size) =>
        fc.record({
          rows: fc.array(fc.array(part, { minLength: size, maxLength: size }), {
            minLength: size,
            maxLength: size,
          }),
          effect: fc.array(part, { minLength: 1, maxLength: size }),
        }),
      ),
      ({ rows, effect }) => {
        const size = rows.length;
        // A·Aᵀ + 1 is positive definite whatever A is.
        const sum = (i: number, j: number) =>
          rows[i]!.reduce((s, x, k) => s + x * rows[j]![k]!, i === j ? 1 : 0);
        const of = (more: (i: number, j: number) => number) =>
          Float64Array.from({ length: size ** 2 }, (_, at) => {
            const [i, j] = [Math.floor(at / size), at % size];
            return sum(i, j) + more(i, j);
          });
        const [inverse, whole] = [new Float64Array(size ** 2), new Float64Array(size ** 2)];
        const before = invertCovariance(
          of(() => 0),
          size,
          inverse,
        );
        const after = invertCovariance(
          of((i, j) => (effect[i] ?? 0) * (effect[j] ?? 0)),
          size,
          whole,
        );
        const reached = Int32Array.from(effect, (_, i) => i);
        const by = { effect: Float64Array.from(effect), reached, count: effect.length };
        expect(before + addToInverse(inverse, size, by, new Float64Array(size))).toBeCloseTo(after, 8);
        inverse.forEach((value, at) => {
          expect(value).toBeCloseTo(whole[at]!, 8);
        });
      },
    ),
  );
});
