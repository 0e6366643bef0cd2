/** @jest-environment node */
import { LONGEST_GAP_S } from '@/core/shop/live';
import { channelTrouble, canTell } from './protocol';
import { SampleClock } from './sample-clock';

const STILL = /stands still/;
const JUMPS = /runs back or leaps/;
const TAKEN = { isLater: true, trouble: null };

describe('the clock of a logger', () => {
  test('that goes on is taken, from whatever it begins at', () => {
    const clock = new SampleClock();
    expect([-5, 0, 0.001, 7].map((t) => clock.read(t, 0))).toEqual(Array(4).fill(TAKEN));
  });
  test('that stands still is taken once; from the twentieth time on that is said', () => {
    const clock = new SampleClock();
    const read = Array.from({ length: 21 }, () => clock.read(7, 0));
    expect(read.map(({ isLater }) => isLater)).toEqual([true, ...Array<boolean>(20).fill(false)]);
    expect(read.findIndex(({ trouble }) => trouble !== null)).toBe(20);
    expect(read[20]!.trouble).toMatch(STILL);
    expect(clock.read(7.01, 0)).toEqual(TAKEN);
    // It is counted anew.
    expect(clock.read(7.01, 0)).toEqual({ isLater: false, trouble: null });
  });
  test('leaps by more than ten minutes only: such a gap is a new beginning, that gap itself is none', () => {
    const clock = new SampleClock();
    let t = 0;
    const leap = (by: number) => clock.read((t += by), 0);
    leap(0);
    for (let i = 0; i < 10; i += 1) expect(leap(LONGEST_GAP_S)).toEqual(TAKEN);
    expect([1, 2, 3].map(() => leap(LONGEST_GAP_S + 0.5).isLater)).toEqual([true, true, true]);
    expect(leap(LONGEST_GAP_S + 0.5)).toEqual({
      isLater: false,
      trouble: expect.stringMatching(JUMPS) as string,
    });
  });
  test('may begin anew three times in ten seconds; once the first of them is ten seconds past, once more', () => {
    const clock = new SampleClock();
    clock.read(100, 0);
    const back = (now_ms: number) => clock.read(100 - now_ms / 1e6 - 1, now_ms).isLater;
    expect([0, 1000, 2000, 3000].map(back)).toEqual([true, true, true, false]);
    expect(back(9_999)).toBe(false);
    // Of the five, those at 3 and at 9.999 s are within ten seconds of 12.5: with this one, three.
    expect(back(12_500)).toBe(true);
  });
});

describe('what a channel can be and tell', () => {
  const channel = (low: number, high: number, tag = 'A') => ({ tag, unit: 'BAR', low, high });
  test('its ends stand the right way round, and no farther than a billion of thousands', () => {
    expect(channelTrouble([channel(-1e12, 1e12)])).toBeNull();
    expect(channelTrouble([channel(-1.1e12, 0)])).toMatch(/no range/);
    expect(channelTrouble([channel(0, 1.1e12)])).toMatch(/no range/);
    expect(channelTrouble([channel(1, 1)])).toMatch(/no range/);
    expect(channelTrouble([channel(NaN, 1)])).toMatch(/no range/);
    expect(channelTrouble([channel(0, 1, 'A'), channel(0, 1, 'B'), channel(0, 1, 'B')])).toMatch(
      /two channels named B/,
    );
  });
  test('a quarter of its range beyond each end', () => {
    // From −5 to 25 are 30: a quarter is 7.5.
    const told = [-12.5, -12.51, 32.5, 32.51, 0, NaN].map((value) => canTell(channel(-5, 25), value));
    expect(told).toEqual([true, false, true, false, true, false]);
  });
});
