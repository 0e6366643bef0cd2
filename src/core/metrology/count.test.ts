import fc from 'fast-check';
import { countKept, judgeCount } from './count';
import type { Instrument } from './instrument';
import { measured } from './uncertainty';

/** Class 1 of 1 000 N: the one unknown error is 10/√3 = 5.7735 N; a step of 1 N adds 1/√12 = 0.2887 N, together 5.7807 N. */
const cell = {
  tag: 'LC',
  quantity: 'force',
  fullScale_Pa: 1000,
  lowEnd_Pa: null,
  step_Pa: 1,
  accuracy: { kind: 'percent-of-span', percent: 1 },
  correction: null,
} as unknown as Instrument;
const forces = (...values: number[]) => values.map((value) => measured([value], cell));
const thresholds = { meets: 0.95, fails: 0.05 };

test('clear of the limit on both sides the count is certain', () => {
  const count = countKept(forces(900, 700, 500, 300), { low: 450 });
  expect(count.count).toBe(3);
  expect(count.u).toBeCloseTo(0, 6);
  expect(judgeCount(count, 3, thresholds)).toMatchObject({ word: 'meets', margin: 0 });
  expect(judgeCount(count, 4, thresholds)).toMatchObject({ word: 'fails', margin: -1 });
});

test('one application on the limit itself: as likely in as out', () => {
  // P(≥ 1) = P(≥ 2) = 1, P(≥ 3) = Φ(0) = ½: mean 2.5, variance 1·1 + 3·1 + 5·½ − 2.5² = 0.25, u = 0.5.
  const count = countKept(forces(900, 700, 450, 200), { low: 450 });
  expect(count.atLeast[2]).toBeCloseTo(0.5, 9);
  expect(count.u).toBeCloseTo(0.5, 9);
  expect(judgeCount(count, 3, thresholds)).toMatchObject({ word: 'close' });
  expect(judgeCount(count, 2, thresholds)!.word).toBe('meets');
});

test('two at the same force on one gauge: its error is one, they are in or out together', () => {
  // 455 N is (455 − 450)/5.7807 = 0.8649 σ above: Φ = 0.8065, for both together as for one.
  const count = countKept(forces(900, 455, 455), { low: 450 });
  expect(count.atLeast[1]).toBeCloseTo(0.8065, 3);
  expect(count.atLeast[2]).toBe(count.atLeast[1]);
});

test('fewer made than needed says nothing, unless one fell short', () => {
  expect(judgeCount(countKept(forces(900, 800), { low: 450 }), 4, thresholds)).toBeNull();
  expect(judgeCount(countKept(forces(900, 100), { low: 450 }), 4, thresholds)).toMatchObject({
    word: 'fails',
  });
});

test('whatever was read, more are never likelier than fewer, and the doubt is at most half of what was made', () => {
  fc.assert(
    fc.property(
      fc.array(fc.double({ min: 300, max: 600, noNaN: true }), { minLength: 1, maxLength: 12 }),
      (all) => {
        const { atLeast, u, count } = countKept(forces(...all), { low: 450 });
        for (let i = 1; i < atLeast.length; i += 1) expect(atLeast[i]!).toBeLessThanOrEqual(atLeast[i - 1]!);
        // A number between 0 and n has a standard deviation of at most n/2.
        expect(u).toBeLessThanOrEqual(all.length / 2 + 1e-12);
        expect(count).toBeLessThanOrEqual(all.length);
      },
    ),
  );
});
