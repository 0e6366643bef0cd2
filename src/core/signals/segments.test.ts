/** @jest-environment node */
import fc from 'fast-check';
import { gaussian, seeded } from '../numeric/chance';
import { segmentsOf } from './segments';
import type { Channel, Trace } from './trace';

const BAR = 1e5;
const RATE_HZ = 50;

/** One thing that the hand does: goes to a level at a speed, then stays. */
interface Deed {
  readonly to: number;
  readonly speed: number;
  readonly stays_s: number;
}

/** The course of a handle that does these things in turn, and what a watcher would have written down. */
function done(deeds: readonly Deed[], sigma: number, seed: number) {
  const random = seeded(seed);
  const levels: number[] = [];
  const written: string[] = ['rest'];
  let at = 0;
  for (let i = 0; i < 2 * RATE_HZ; i += 1) levels.push(0);
  for (const { to, speed, stays_s } of deeds) {
    written.push(to > at ? 'apply' : 'release', to === 0 ? 'rest' : 'hold');
    const steps = Math.ceil((Math.abs(to - at) / speed) * RATE_HZ);
    for (let i = 1; i <= steps; i += 1) levels.push(at + ((to - at) * i) / steps);
    for (let i = 0; i < stays_s * RATE_HZ; i += 1) levels.push(to);
    at = to;
  }
  const values = Float64Array.from(levels, (level) => level * BAR + sigma * BAR * gaussian(random));
  const channel: Channel = { name: 'In', port: 'input', quantity: 'pressure', values };
  const trace: Trace = { time_s: values.map((_, i) => i / RATE_HZ), channels: [channel] };
  return { trace, channel, written };
}

/** Levels that differ by enough to be told apart, one of them always the top of the range. */
const deeds = fc
  .array(
    fc.record({
      level: fc.constantFrom(0, 8, 16, 24, 32),
      speed: fc.double({ min: 2, max: 15, noNaN: true }),
      stays_s: fc.double({ min: 1.6, max: 12, noNaN: true }),
    }),
    { minLength: 1, maxLength: 7 },
  )
  .map((list) => {
    const moves: Deed[] = [{ to: 32, speed: 8, stays_s: 2 }];
    for (const { level, speed, stays_s } of list)
      if (level !== moves.at(-1)!.to) moves.push({ to: level, speed, stays_s });
    return moves;
  });

test.each([
  ['without noise', 0],
  ['with noise', 0.1],
])('what the hand did is told in its order, %s', (_name, sigma) => {
  fc.assert(
    fc.property(deeds, fc.integer({ min: 1, max: 1e6 }), (list, seed) => {
      const { trace, channel, written } = done(list, sigma, seed);
      expect(segmentsOf(trace, channel).map(({ kind }) => kind)).toEqual(written);
    }),
    { numRuns: 80, seed: 2611 },
  );
});

test('segments follow each other without a gap, from the first reading to the last', () => {
  fc.assert(
    fc.property(deeds, fc.integer({ min: 1, max: 1e6 }), (list, seed) => {
      const { trace, channel } = done(list, 0.1, seed);
      const found = segmentsOf(trace, channel);
      expect([found[0]!.from, found.at(-1)!.to]).toEqual([0, trace.time_s.length]);
      found.slice(1).forEach((segment, i) => expect(segment.from).toBe(found[i]!.to));
    }),
    { numRuns: 40, seed: 2611 },
  );
});

test('a slow leak under a hold is a hold; a slow pull is a pull', () => {
  const course = (at: (t: number) => number): [Trace, Channel] => {
    const time_s = Float64Array.from({ length: 120 * RATE_HZ }, (_, i) => i / RATE_HZ);
    const channel: Channel = {
      name: 'In',
      port: 'input',
      quantity: 'pressure',
      values: time_s.map((t) => at(t) * BAR),
    };
    return [{ time_s, channels: [channel] }, channel];
  };
  const leak = course((t) => (t < 5 ? 0 : t < 8 ? (t - 5) * 10 : 30 - 0.01 * (t - 8)));
  expect(segmentsOf(...leak).map(({ kind }) => kind)).toEqual(['rest', 'apply', 'hold']);
  const slow = course((t) => (t < 5 ? 0 : t < 105 ? 0.3 * (t - 5) : 30));
  expect(segmentsOf(...slow).map(({ kind }) => kind)).toEqual(['rest', 'apply', 'hold']);
});

test('a hold ends where the pressure is let go, however fast that is and however seldom the logger reads', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 1, max: 100, noNaN: true }),
      fc.double({ min: 0.1, max: 4, noNaN: true }),
      fc.double({ min: 0.1, max: 4, noNaN: true }),
      fc.double({ min: 20, max: 60, noNaN: true }),
      fc.constantFrom(0, 0.05),
      fc.integer({ min: 1, max: 1e6 }),
      (rate_Hz, apply_s, release_s, held_s, sigma, seed) => {
        const [level, rest_s] = [80, 12];
        const lets = rest_s + apply_s + held_s;
        // What the handle does, written down without any sampling: rest, rise, hold that loses 0.01 bar/s, fall, rest.
        const course = (t: number) => {
          if (t < rest_s) return 0;
          if (t < rest_s + apply_s) return (level * (t - rest_s)) / apply_s;
          const held = level - 0.01 * (Math.min(t, lets) - rest_s - apply_s);
          return t < lets ? held : Math.max(0, held * (1 - (t - lets) / release_s));
        };
        const random = seeded(seed);
        const count = Math.floor((lets + release_s + rest_s) * rate_Hz);
        const time_s = Float64Array.from({ length: count }, (_, i) => i / rate_Hz);
        const values = time_s.map((t) => (course(t) + sigma * gaussian(random)) * BAR);
        const channel: Channel = { name: 'Out', port: 'output', quantity: 'pressure', values };
        const found = segmentsOf({ time_s, channels: [channel] }, channel);
        expect(found.map(({ kind }) => kind)).toEqual(['rest', 'apply', 'hold', 'release', 'rest']);
        const hold = found[2]!;
        // The fall after it is not in it: it ends within a bar of where the leak alone had brought it.
        expect(Math.abs(hold.end / BAR - (level - 0.01 * held_s))).toBeLessThan(1.5);
        // Nor do neighbours overlap or leave a reading out.
        found.forEach((one, i) => expect(one.from).toBe(i === 0 ? 0 : found[i - 1]!.to));
      },
    ),
    { numRuns: 300, seed: 13 },
  );
});
