/** @jest-environment node */
import fc from 'fast-check';
import { gaussian, seeded } from '../numeric/chance';
import { blocksOf } from './blocks';
import { kinkedLine, plainLine, type Cloud } from './kinked-line';
import { leastSquares, varianceOf } from './least-squares';
import { grainOf, median } from './noise';
import { envelopeOf } from './overview';
import { channelAt, indexAt, wholeOf, type Channel, type Trace } from './trace';

const course = (count: number, at: (i: number) => number, rate_Hz = 100): Trace => ({
  time_s: Float64Array.from({ length: count }, (_, i) => i / rate_Hz),
  channels: [
    {
      name: 'p',
      port: 'output',
      quantity: 'pressure',
      values: Float64Array.from({ length: count }, (_, i) => at(i)),
    },
  ],
});
const only = ({ channels }: Trace): Channel => channels[0]!;

describe('noise', () => {
  test.each([
    ['on a level', () => 0],
    ['on a ramp', (i: number) => 3 * i],
    ['on a slow swing', (i: number) => 500 * Math.sin(i / 300)],
  ])('of 20 %s is found to be 20', (_name, under) => {
    const random = seeded(7);
    const trace = course(20_000, (i) => under(i) + 20 * gaussian(random));
    expect(grainOf(only(trace).values, wholeOf(trace)).sigma / 20).toBeCloseTo(1, 1);
  });
  test('one spike in fifty does not move it, nor do gaps', () => {
    const random = seeded(8);
    const trace = course(20_000, (i) => (i % 50 === 0 ? 1e6 : i % 33 === 0 ? NaN : 20 * gaussian(random)));
    expect(grainOf(only(trace).values, wholeOf(trace)).sigma / 20).toBeCloseTo(1, 0);
  });
  test('a logger that writes in steps leaves step/√12; nothing at all leaves nothing', () => {
    const stepped = course(5000, (i) => 10 * Math.round(i / 700));
    expect(grainOf(only(stepped).values, wholeOf(stepped)).sigma).toBeCloseTo(10 / Math.sqrt(12), 6);
    const still = course(100, () => 5);
    expect(grainOf(only(still).values, wholeOf(still)).sigma).toBe(0);
  });
  test('the middle of a list', () => {
    expect([median([3, 1, 2]), median([4, 1, 2, 3])]).toEqual([2, 2.5]);
  });
});

describe('blocks', () => {
  test('are means, with the noise of a mean', () => {
    const random = seeded(9);
    const trace = course(10_000, (i) => i + 30 * gaussian(random));
    const { means, time_s, sigma, first } = blocksOf(trace, trace.channels, wholeOf(trace), 100);
    expect([means[0]!.length, first[1]]).toEqual([100, 100]);
    expect(time_s[0]).toBeCloseTo(0.495, 9);
    expect(sigma[0]! / 3).toBeCloseTo(1, 0);
    // The mean of the first hundred of a ramp is 49.5.
    expect(Math.abs(means[0]![0]! - 49.5)).toBeLessThan(12);
  });
  test('a spike is taken for its neighbours, a hole of more than half is a hole', () => {
    const random = seeded(10);
    const trace = course(1000, (i) => (i === 505 ? 1e7 : i >= 200 && i < 260 ? NaN : 100 + gaussian(random)));
    const { means } = blocksOf(trace, trace.channels, wholeOf(trace), 10);
    expect(means[0]![5]).toBeCloseTo(100, 0);
    expect(Number.isNaN(means[0]![2])).toBe(true);
  });
  test('an end stop is the greatest value held to the last digit, under noise only', () => {
    const random = seeded(11);
    const clipped = course(2000, (i) => Math.min(800, i + 5 * gaussian(random)));
    expect(blocksOf(clipped, clipped.channels, wholeOf(clipped), 50).clip[0]).toBe(800);
    const level = course(2000, () => 800);
    expect(blocksOf(level, level.channels, wholeOf(level), 50).clip[0]).toBe(Infinity);
  });
});

describe('least squares', () => {
  test('a line through four points, worked by hand', () => {
    // x 0 1 2 3, y 1 3 4 6: slope Σ(x−1.5)(y−3.5)/5 = 8/5, intercept 3.5 − 1.6·1.5 = 1.1, χ² = 0.2
    const x = [0, 1, 2, 3];
    const fitted = leastSquares([[1, 1, 1, 1], x], [1, 3, 4, 6], [1, 1, 1, 1])!;
    expect(fitted.parameters[0]).toBeCloseTo(1.1, 12);
    expect(fitted.parameters[1]).toBeCloseTo(1.6, 12);
    expect(fitted.chi2).toBeCloseTo(0.2, 12);
    // Var(slope) = 1/Σ(x − x̄)² = 1/5; χ² is below its freedom, so nothing is narrowed.
    expect(fitted.covariance[1]![1]).toBeCloseTo(0.2, 12);
    expect(varianceOf(fitted.covariance, [1, 1.5])).toBeCloseTo(0.25, 12);
  });
  test('a point of no weight is not there', () => {
    const with_ = leastSquares([[1, 1, 1]], [2, 4, 1000], [1, 1, 0])!;
    expect(with_.parameters[0]).toBeCloseTo(3, 12);
    expect(with_.freedom).toBe(1);
  });
  test('scatter beyond the weights widens the doubt', () => {
    const fitted = leastSquares([[1, 1, 1, 1]], [0, 10, 0, 10], [1, 1, 1, 1])!;
    // χ² = 100 over 3: the variance of the mean grows from 1/4 by 100/3.
    expect(fitted.covariance[0]![0]).toBeCloseTo(100 / 12, 9);
  });
  test('what cannot be told apart is not', () => {
    expect(
      leastSquares(
        [
          [1, 1, 1],
          [2, 2, 2],
        ],
        [1, 2, 3],
        [1, 1, 1],
      ),
    ).toBeNull();
    expect(leastSquares([[1], [2]], [1], [1])).toBeNull();
    expect(leastSquares([[0, 0]], [1, 2], [1, 1])).toBeNull();
  });
});

describe('a line with a kink', () => {
  const cloud = (knee: number, before: number, beyond: number, sigma: number, seed = 1): Cloud => {
    const random = seeded(seed);
    const x = Float64Array.from({ length: 300 }, (_, i) => i / 3);
    const y = x.map(
      (v) => 5 + before * Math.min(v, knee) + beyond * Math.max(0, v - knee) + sigma * gaussian(random),
    );
    return { x, y, u_x: 0, u_y: sigma || 1e-6 };
  };
  test('is found wherever it lies', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 15, max: 85, noNaN: true }),
        fc.double({ min: 1, max: 4, noNaN: true }),
        fc.double({ min: -0.5, max: 0.6, noNaN: true }),
        (knee, before, beyond) => {
          const found = kinkedLine(cloud(knee, before, beyond, 0))!;
          expect(Math.abs(found.knee - knee)).toBeLessThan(1e-3);
          expect(found.slope).toBeCloseTo(before, 4);
          expect(found.beyond).toBeCloseTo(beyond, 4);
          expect(found.intercept).toBeCloseTo(5, 4);
        },
      ),
      { numRuns: 40, seed: 2611 },
    );
  });
  test('a straight line has none, under any noise', () => {
    for (let seed = 1; seed <= 40; seed += 1) expect(kinkedLine(cloud(50, 2, 2, 1, seed))).toBeNull();
  });
  test('points that belong to something else are left out', () => {
    const spoiled = cloud(40, 3, 1, 0.2);
    for (let i = 10; i < 300; i += 25) spoiled.y[i] = -400;
    expect(kinkedLine(spoiled)!.knee).toBeCloseTo(40, 0);
    expect(plainLine({ ...cloud(1e9, 2, 2, 0.1), u_x: 0 })!.slope).toBeCloseTo(2, 2);
  });
  test('too few points are neither', () => {
    const few = { x: Float64Array.of(1), y: Float64Array.of(2), u_x: 0, u_y: 1 };
    expect([kinkedLine(few), plainLine(few)]).toEqual([null, null]);
  });
});

describe('an envelope', () => {
  test('holds every reading between its least and its greatest, whatever the part', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: -100, max: 100, noNaN: true }), { minLength: 5, maxLength: 400 }),
        fc.integer({ min: 1, max: 60 }),
        (values, buckets) => {
          const trace = course(values.length, (i) => values[i]!);
          const end = trace.time_s.at(-1)!;
          const { least, greatest } = envelopeOf(trace, 0, end, buckets);
          const seen = (list: Float32Array) => [...list].filter(Number.isFinite);
          // A nought is a nought, whatever its sign.
          expect(Math.abs(Math.min(...seen(least[0]!)) - Math.min(...values.map(Math.fround)))).toBe(0);
          expect(Math.abs(Math.max(...seen(greatest[0]!)) - Math.max(...values.map(Math.fround)))).toBe(0);
        },
      ),
      { examples: [[[-0, 0, 0, 0, 0], 1]] },
    );
  });
  test('a gap is a gap', () => {
    const trace = course(100, (i) => (i >= 50 ? NaN : i));
    const { least } = envelopeOf(trace, 0, 0.99, 10);
    expect([...least[0]!].map(Number.isFinite)).toEqual([...Array(5).fill(true), ...Array(5).fill(false)]);
  });
});

test('a moment is found by its time', () => {
  const trace = course(1000, (i) => i);
  fc.assert(
    fc.property(fc.double({ min: -1, max: 12, noNaN: true }), (at) => {
      const found = indexAt(trace, at);
      const plain = trace.time_s.findIndex((t) => t >= at);
      expect(found).toBe(plain < 0 ? 1000 : plain);
    }),
  );
  expect(channelAt(trace, 'output')?.name).toBe('p');
  expect(channelAt(trace, 'nowhere')).toBeUndefined();
});
