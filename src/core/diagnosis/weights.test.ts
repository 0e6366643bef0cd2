/** @jest-environment node */
import { anyCounts, weightsFrom, type WeightEntry } from './weights';

const written = (fault: string, weight: number | null, day: number) => ({
  at: `2026-11-0${day}T08:00:00.000Z`,
  entry: {
    type: 'weighed',
    fault,
    weight,
    by: 'A. Technician',
    why: 'Seen often here',
  } satisfies WeightEntry,
});

test('the last change of a fault counts, empty gives back the family’s own, and every change is kept', () => {
  const { weights, changes } = weightsFrom([
    written('hose-blocked', 12, 1),
    written('check-leak', 0, 2),
    written('hose-blocked', 20, 3),
    written('check-leak', null, 4),
  ]);
  expect(weights).toEqual({ 'hose-blocked': 20 });
  expect(changes.map(({ fault, weight, at }) => [fault, weight, at.slice(8, 10)])).toEqual([
    ['check-leak', null, '04'],
    ['hose-blocked', 20, '03'],
    ['check-leak', 0, '02'],
    ['hose-blocked', 12, '01'],
  ]);
});

test('where every fault is left out none counts', () => {
  const faults = [
    { id: 'a', prior: 3 },
    { id: 'b', prior: 1 },
  ] as never;
  expect(anyCounts({ faults }, { a: 0 })).toBe(true);
  expect(anyCounts({ faults }, { a: 0, b: 0 })).toBe(false);
});
