import type { DayView } from '@/core/planning/day-view';
import { placeOn, scaleOf } from './day-scale';

/** A day with one job, begun and done at some minutes from midnight; somebody is here from eight to five. */
const view = (now_min: number, from_min: number, until_min: number) =>
  ({
    now_min,
    body: { technicians: [{ id: 'a', name: 'A', here: true, from: '08:00', until: '17:00' }] },
    tasks: [{ id: 'job' }],
    plan: { placed: [{ task: 'job', from_min }], finish_min: { job: until_min } },
  }) as unknown as DayView;

describe('a day is drawn', () => {
  test.each([
    ['from the half hour that runs to when the last one goes home', view(614, 620, 700), 600, 1020],
    ['on to the end of a job that takes longer', view(614, 620, 1075), 600, 1080],
    ['without what is done on another day', view(960, 965, 1440 + 530), 960, 1080],
    // 17:20, and the job begins at 08:10 on the next day.
    ['as tomorrow, once nothing more is done today', view(1040, 1440 + 490, 1440 + 560), 1920, 2460],
    ['for two hours at least', view(1000, 1001, 1010), 990, 1110],
  ])('%s', (_, day, from, until) => expect(scaleOf(day)).toEqual({ from, until }));
  test('and without any job it is today', () => {
    const idle = { ...view(614, 0, 0), tasks: [], plan: { placed: [], finish_min: {} } };
    expect(scaleOf(idle as unknown as DayView)).toEqual({ from: 600, until: 1020 });
  });
});

test('what is beyond a scale stands at its end', () => {
  const scale = { from: 600, until: 800 };
  expect([500, 600, 650, 800, 2000].map((at) => placeOn(scale, at))).toEqual([0, 0, 25, 100, 100]);
});
