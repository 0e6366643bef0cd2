import fc from 'fast-check';
import { gaussian, seeded } from '../numeric/chance';
import { printSentence } from '../quantities/sentence';
import type { Estimate } from './estimate';
import { forceCurve, pistonArea_m2 } from './force-curve';
import type { Channel, Trace } from './trace';

const BAR = 1e5;

interface Shape {
  readonly begins_Pa: number;
  readonly lift_Pa: number;
  readonly full_N: number;
  readonly top_Pa: number;
}

/** A pull drawn from its own lines: nothing, a straight rise, a level. The truth is what it was drawn from. */
function pull(shape: Shape, seed = 1, more: { noise_N?: number; noise_Pa?: number; end_N?: number } = {}) {
  const { begins_Pa, lift_Pa, full_N, top_Pa } = shape;
  const random = seeded(seed);
  const count = 1500;
  const truth = Float64Array.from({ length: count }, (_, i) => (top_Pa * i) / (count - 1));
  const force = truth.map((p) => full_N * Math.min(1, Math.max(0, (p - begins_Pa) / (lift_Pa - begins_Pa))));
  const noisy = (values: Float64Array, sigma: number) => values.map((v) => v + sigma * gaussian(random));
  const channel = (
    name: string,
    port: string,
    quantity: Channel['quantity'],
    values: Float64Array,
  ): Channel => ({
    name,
    port,
    quantity,
    values,
  });
  const input = channel('Fluid', 'input', 'pressure', noisy(truth, more.noise_Pa ?? 1500));
  const output = channel(
    'Rod',
    'output',
    'force',
    noisy(force, more.noise_N ?? 2).map((f) => Math.min(f, more.end_N ?? Infinity)),
  );
  const trace: Trace = {
    time_s: Float64Array.from({ length: count }, (_, i) => i / 100),
    channels: [input, output],
  };
  return forceCurve(trace, input, output, { from: 0, to: count });
}

const SHAPE: Shape = { begins_Pa: 2 * BAR, lift_Pa: 8 * BAR, full_N: 1200, top_Pa: 12 * BAR };
const value = (estimate: Estimate) => {
  if (!estimate.told) throw new Error(printSentence(estimate.why, 'mixed'));
  return estimate;
};

describe('force against fluid pressure', () => {
  test('gives back the lines it was drawn from', () => {
    const curve = pull(SHAPE)!;
    expect(value(curve.begins).value / BAR).toBeCloseTo(2, 1);
    expect(value(curve.fullLift).value / BAR).toBeCloseTo(8, 1);
    expect(value(curve.fullForce).value).toBeCloseTo(1200, -1);
    expect(curve.corners[0]![1]).toBe(0);
    expect(curve.corners.at(-1)![1]).toBeCloseTo(1200, -1);
    expect(curve.points.length).toBeGreaterThan(100);
  });
  test('of any pull: within half a per cent of the range, and with limits that are no wider than they must be', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.5, max: 3, noNaN: true }),
        fc.double({ min: 3, max: 7, noNaN: true }),
        fc.double({ min: 300, max: 2500, noNaN: true }),
        fc.integer({ min: 1, max: 1e6 }),
        (begins_bar, range_bar, full_N, seed) => {
          const lift_bar = begins_bar + range_bar;
          const curve = pull(
            { begins_Pa: begins_bar * BAR, lift_Pa: lift_bar * BAR, full_N, top_Pa: 1.4 * lift_bar * BAR },
            seed,
          )!;
          expect(Math.abs(value(curve.begins).value / BAR - begins_bar)).toBeLessThan(0.05);
          expect(Math.abs(value(curve.fullLift).value / BAR - lift_bar)).toBeLessThan(0.05);
          expect(Math.abs(value(curve.fullForce).value / full_N - 1)).toBeLessThan(0.01);
          expect(value(curve.fullForce).u).toBeLessThan(0.01 * full_N);
        },
      ),
      { numRuns: 40 },
    );
  });
  test('95 % limits hold the truth 90 to 100 % of the time over 200 seeds', () => {
    const held = { begins: 0, lift: 0, force: 0 };
    for (let seed = 1; seed <= 200; seed += 1) {
      const curve = pull(SHAPE, seed)!;
      const holds = (estimate: Estimate, truth: number) =>
        Number(Math.abs(value(estimate).value - truth) < 1.96 * value(estimate).u);
      held.begins += holds(curve.begins, SHAPE.begins_Pa);
      held.lift += holds(curve.fullLift, SHAPE.lift_Pa);
      held.force += holds(curve.fullForce, SHAPE.full_N);
    }
    for (const count of Object.values(held)) expect(count).toBeGreaterThanOrEqual(180);
  });
  test('short of full lift it says how much further; without any force there is no curve', () => {
    const short = pull({ ...SHAPE, top_Pa: 6 * BAR })!;
    expect(short.fullForce.told).toBe(false);
    const wanted = short.fullLift.told ? '' : printSentence(short.fullLift.wanted!, 'mixed');
    expect(wanted).toMatch(/Pull on to more than [56]\.\d bar/);
    expect(value(short.begins).value / BAR).toBeCloseTo(2, 1);
    expect(pull({ ...SHAPE, full_N: 0 })).toBeNull();
  });
  test('a load cell at the end of its range is said, and not taken for full lift', () => {
    const clipped = pull(SHAPE, 3, { end_N: 700 })!;
    expect(clipped.notes.map((note) => printSentence(note, 'mixed')).join(' ')).toMatch(
      /^Rod stood at the end of its range, 700/,
    );
    expect(clipped.fullLift.told).toBe(false);
  });
  test('the spring keeps a part of the push: 1 214.086 N at a load 30 times as stiff are 1 254.556 N, so 0.02 m²', () => {
    const rod = { preload_N: 100, giving: 1 + 2 / 60, pushArea_m2: 0 };
    expect(pistonArea_m2(1214.086, 12 * BAR, 67_727.78, rod)).toBeCloseTo(0.02, 7);
  });
});
