import fc from 'fast-check';
import { printSentence } from '../../quantities/sentence';
import { moreNeeded, splitOf } from './proportioning';

const BAR = 1e5;
/** Handbook 10: the rear follows to the split, then at the slope. */
const rear = (front_bar: number, split_bar: number, slope: number) =>
  front_bar <= split_bar ? front_bar : split_bar + slope * (front_bar - split_bar);
const pairs = (fronts_bar: readonly number[], split_bar: number, slope: number) =>
  fronts_bar.map((bar) => ({ front_Pa: bar * BAR, rear_Pa: rear(bar, split_bar, slope) * BAR }));

test('30 bar and 0.4: 40, 55 and 70 bar give 34, 40 and 46, a line of 0.4 that meets rear = front at 30', () => {
  const found = splitOf(pairs([10, 20, 40, 55, 70], 30, 0.4));
  expect(found.slope).toBeCloseTo(0.4, 9);
  expect(found.split_Pa / BAR).toBeCloseTo(30, 9);
});
test('whatever the valve, the points beyond it give it back', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 10, max: 45, noNaN: true }),
      fc.double({ min: 0.1, max: 0.8, noNaN: true }),
      (split, slope) => {
        const found = splitOf(pairs([5, 60, 75, 90, 110], split, slope));
        expect(found.split_Pa / BAR).toBeCloseTo(split, 6);
        expect(found.slope).toBeCloseTo(slope, 8);
      },
    ),
  );
});
test('too few points beyond the split: how many more, and above what', () => {
  const few = pairs([10, 20, 40], 30, 0.4);
  expect(splitOf(few).split_Pa).toBeNaN();
  expect(printSentence(moreNeeded(few, 30 * BAR)!, 'mixed')).toBe(
    'The split is not unique with so few points beyond it: read 2 more, front above 40.0 bar.',
  );
  expect(moreNeeded(pairs([40, 50, 60], 30, 0.4), 30 * BAR)).toBeNull();
});

test('a reading that moves by a hair moves the split by no more than a hair, wherever it stands beside the split', () => {
  const pairs = [15.6, 23.4, 33.2, 42.8, 54.6, 66].map((bar) => ({
    front_Pa: bar * 1e5,
    rear_Pa: Math.min(bar, 30 + 0.4 * (bar - 30)) * 1e5,
  }));
  for (let behind_Pa = 0.5e5; behind_Pa < 4e5; behind_Pa += 0.1e5) {
    const with3 = (off_Pa: number) =>
      splitOf(
        pairs.map((pair, i) => (i === 2 ? { ...pair, rear_Pa: pair.front_Pa - behind_Pa - off_Pa } : pair)),
      );
    // A hundred pascals of one reading among five are worth some hundreds of the split, never bars.
    expect(Math.abs(with3(50).split_Pa - with3(-50).split_Pa)).toBeLessThan(1500);
  }
});
