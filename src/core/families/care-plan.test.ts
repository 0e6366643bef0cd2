import { FAMILIES, FAMILY_KINDS } from './registry';
import { carePlan, monthsLater } from './care-plan';

test.each([
  ['2026-11-30', 3, '2027-02-28'],
  ['2027-11-30', 3, '2028-02-29'],
  ['2026-01-31', 1, '2026-02-28'],
  ['2026-12-15', 1, '2027-01-15'],
  ['2026-11-30', 24, '2028-11-30'],
])('%s and %d months is %s', (day, months, on) => expect(monthsLater(day, months)).toBe(on));

describe.each(FAMILY_KINDS)('the care of %s', (kind) => {
  const due = carePlan(kind, FAMILIES[kind].typical, '2026-11-30');
  test('names what and why, the soonest first, each once', () => {
    expect(due.length).toBeGreaterThan(0);
    expect(due.map(({ on }) => on)).toEqual(due.map(({ on }) => on).sort());
    expect(new Set(due.map(({ id }) => id)).size).toBe(due.length);
    for (const { what, why } of due) {
      expect(what).not.toBe('');
      expect(why).toMatch(/\.$/);
    }
  });
});

test('glycol fluid is changed after two years, mineral oil by no calendar', () => {
  const fluid = (kind: (typeof FAMILY_KINDS)[number]) =>
    carePlan(kind, FAMILIES[kind].typical, '2026-11-30').find(({ id }) => id === 'fluid');
  expect(fluid('vacuum-vehicle')).toMatchObject({ on: '2028-11-30' });
  expect(fluid('stored-pressure-vehicle')).toBeUndefined();
});
