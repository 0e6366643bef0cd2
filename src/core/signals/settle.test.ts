/** @jest-environment node */
import { gaussian, seeded } from '../numeric/chance';
import { Settling } from './settle';

/** Feeds a course at 50 Hz and gives back whether it had settled after each second. */
function watch(at: (t: number) => number, seconds: number, sigma = 0): boolean[] {
  const random = seeded(4);
  const settling = new Settling({ over_s: 1.2, step: 0.01 });
  const seen: boolean[] = [];
  for (let i = 0; i <= seconds * 50; i += 1) {
    settling.add(i / 50, at(i / 50) + sigma * gaussian(random));
    if (i > 0 && i % 50 === 0) seen.push(settling.settled());
  }
  return seen;
}

describe('a pointer stands still', () => {
  test('once the time is full, and not before', () => {
    expect(watch(() => 5, 4)).toEqual([false, true, true, true]);
  });
  test('under noise too', () => {
    expect(
      watch(() => 5, 30, 0.2)
        .slice(1)
        .filter(Boolean).length,
    ).toBeGreaterThan(25);
  });
  test('never on a ramp, however slow its steps are to be seen', () => {
    expect(watch((t) => 0.1 * t, 6)).not.toContain(true);
    expect(watch((t) => 2 * t, 6, 0.1)).not.toContain(true);
  });
  test('not in the moment of a jump, before noise could be told from it', () => {
    const random = seeded(6);
    const settling = new Settling({ over_s: 1.2, step: 0.01 });
    for (let i = 0; i < 200; i += 1) settling.add(i / 50, 0.02 * gaussian(random));
    expect(settling.settled()).toBe(true);
    for (let i = 200; i < 205; i += 1) {
      settling.add(i / 50, 7 + 0.02 * gaussian(random));
      expect(settling.settled()).toBe(false);
    }
  });
  test('after a move once it has died away', () => {
    const seen = watch((t) => 10 * (1 - Math.exp(-t / 0.3)), 6);
    expect([seen[0], seen.at(-1)]).toEqual([false, true]);
  });
  test('what is not logged is left out, and time that jumps back begins anew', () => {
    const settling = new Settling({ over_s: 1, step: 0.01 });
    for (let i = 0; i < 100; i += 1) settling.add(10 + i / 50, i % 3 === 0 ? NaN : 7);
    expect([settling.settled(), settling.mean()]).toEqual([true, 7]);
    settling.add(0, 7);
    expect(settling.settled()).toBe(false);
  });
});
