/** @jest-environment node */
import { clockSetBack, setBackOnPaper, setBackWords } from './clock';

const event = (id: string, time: string) => ({ id, at: `2026-11-23T${time}Z` });

describe('a clock that was set back', () => {
  test('is told where the times of a run fall by half a minute or more', () => {
    const events = [
      event('a', '08:00:00.000'),
      event('b', '09:30:00.000'),
      // A screen whose clock was set right by less than that.
      event('c', '09:29:30.001'),
      event('d', '08:29:30.001'),
      event('e', '08:29:31.000'),
      event('f', '08:29:01.000'),
    ];
    expect(clockSetBack(events)).toEqual([
      { event: 'd', at: '2026-11-23T08:29:30.001Z', by_s: 3600 },
      { event: 'f', at: '2026-11-23T08:29:01.000Z', by_s: 30 },
    ]);
    expect(clockSetBack([])).toEqual([]);
  });
  test('in words, on the tape and on paper', () => {
    expect(setBackWords({ by_s: 4000 })).toMatch(
      /^The clock of this machine was set back by 1 h 7 min here\./,
    );
    expect(setBackOnPaper({ by_s: 3600 }, '08:29:30')).toMatch(
      /by 1 h 0 min during this test, before 08:29:30\./,
    );
  });
});
