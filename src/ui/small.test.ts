import fc from 'fast-check';
import { niceStep } from './ladder';
import { day, time } from './stamp';
import { clock } from './use-now';

describe('a ladder’s steps', () => {
  test.each([
    [10, 1],
    [160, 20],
    [30, 5],
    [2320, 200],
    [0.6, 0.1],
  ])('to %d in steps of %d', (full, step) => expect(niceStep(full)).toBeCloseTo(step, 9));
  test('any full scale gets a readable number of ticks, on round figures', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.01, max: 1e5, noNaN: true }), (full) => {
        const step = niceStep(full);
        const lead = Number((step / 10 ** Math.floor(Math.log10(step) + 1e-9)).toFixed(6));
        return full / step >= 4 && full / step <= 16 && [1, 2, 5, 10].includes(lead);
      }),
    );
  });
});

describe('times', () => {
  test.each([
    [65, '1:05'],
    [59.2, '1:00'],
    [0.4, '0:01'],
    [-3, '0:00'],
  ])('%d s left is %s', (seconds, text) => expect(clock(seconds)).toBe(text));
  test('a day and a time of day are the bench’s own, not Greenwich’s', () => {
    const local = new Date(2026, 10, 3, 4, 5, 6).toISOString();
    expect(`${day(local)} ${time(local)}`).toBe('2026-11-03 04:05:06');
  });
});
