import fc from 'fast-check';
import { rootOfFalling, settled } from './root';

describe('the root of a falling function', () => {
  test('a cubic with a known root: (2 − x)³ + (2 − x) is zero at 2 alone', () => {
    expect(rootOfFalling((x) => (2 - x) ** 3 + (2 - x), -10, 40, 1e-12)).toBeCloseTo(2, 10);
  });
  test('a bend and a wall are no trouble, in few evaluations', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.001, max: 0.999, noNaN: true }),
        fc.double({ min: 0.01, max: 100, noNaN: true }),
        (root, steep) => {
          let count = 0;
          // Steeper on one side than on the other, as the flow through an orifice that chokes.
          const f = (x: number) => {
            count += 1;
            return x < root ? steep * (root - x) : Math.sqrt(root) - Math.sqrt(x);
          };
          expect(rootOfFalling(f, 0, 1, 1e-9)).toBeCloseTo(root, 6);
          expect(count).toBeLessThan(60);
        },
      ),
    );
  });
  test('without a root between them, the end nearest to it', () => {
    expect(rootOfFalling((x) => -1 - x, 3, 5, 1e-9)).toBe(3);
    expect(rootOfFalling((x) => 9 - x, 3, 5, 1e-9)).toBe(5);
  });
});

test('what settles at once is gone on with, and what does not is looked for: x = cos x, and x = 10 − 3x at 2.5', () => {
  const nowhere = () => {
    throw new Error('it settles');
  };
  // Each step leaves a tenth: x = 1 + (1 − x)/10.
  expect(settled((x) => 1 + (1 - x) / 10, 0, 1e-4, nowhere)).toBeCloseTo(1, 4);
  expect(settled(Math.cos, 0.7, 1e-9, () => [0, 1])).toBeCloseTo(0.7390851332, 8);
  expect(
    settled(
      (x) => 10 - 3 * x,
      0,
      1e-9,
      () => [0, 10],
    ),
  ).toBeCloseTo(2.5, 8);
});
