/** @jest-environment node */
import fc from 'fast-check';
import { seeded } from '@/core/numeric/chance';
import { envelopeOf, packEnvelope, readEnvelope } from '@/core/signals/overview';
import { columnsFor } from './envelope';

const random = seeded(5);
const time_s = Float64Array.from({ length: 5000 }, (_, i) => i / 100);
const values = Float64Array.from(time_s, (t) => Math.sin(t) + 0.1 * random());
values[3333] = 77;
const trace = {
  time_s,
  channels: [{ name: 'p', port: 'output', quantity: 'pressure' as const, values }],
};
const whole = readEnvelope(packEnvelope(envelopeOf(trace, 0, 49.99, 1000)).buffer as ArrayBuffer);

test('an envelope comes to the screen as it left the server', () => {
  expect([whole.from_s, whole.to_s, whole.buckets, whole.least.length]).toEqual([0, 49.99, 1000, 1]);
  expect(Math.max(...whole.greatest[0]!)).toBe(77);
});

test('however far out the view is, the spike is in a column', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 1500 }),
      fc.double({ min: 0, max: 33, noNaN: true }),
      fc.double({ min: 33.6, max: 50, noNaN: true }),
      (most, from, to) => {
        const { count, high } = columnsFor(whole, 0, [from, to], most);
        expect(count).toBeLessThanOrEqual(most + 3);
        expect(Math.max(...high.subarray(0, count))).toBe(77);
      },
    ),
  );
});

test('columns touch: a steep rise has no gap', () => {
  const { count, low, high } = columnsFor(whole, 0, [0, 50], 200);
  for (let i = 1; i < count; i += 1) {
    expect(low[i]!).toBeLessThanOrEqual(high[i - 1]!);
    expect(high[i]!).toBeGreaterThanOrEqual(low[i - 1]!);
  }
});

test('what was not logged has no column, and an empty envelope none at all', () => {
  const gap = {
    ...trace,
    channels: [{ ...trace.channels[0]!, values: values.map((v, i) => (i > 2500 ? NaN : v)) }],
  };
  const seen = readEnvelope(packEnvelope(envelopeOf(gap, 0, 49.99, 1000)).buffer as ArrayBuffer);
  const { count, at_s } = columnsFor(seen, 0, [0, 50], 500);
  expect(Math.max(...at_s.subarray(0, count))).toBeLessThan(25.2);
  expect(readEnvelope(new Float64Array(3).buffer).least).toEqual([]);
});
