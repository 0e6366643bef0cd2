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
