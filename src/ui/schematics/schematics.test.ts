import { FAMILIES } from '@/core/families/registry';
import { PLACES } from './remote-vacuum';
import { SCHEMATICS } from './registry';

describe('drawings', () => {
  test('every family has one', () =>
    expect(Object.keys(SCHEMATICS).sort()).toEqual(Object.keys(FAMILIES).sort()));
  test('the remote vacuum unit’s shows every port and every leak point, and no other', () => {
    const { ports, leakPoints } = FAMILIES['remote-vacuum'];
    expect(Object.keys(PLACES).sort()).toEqual([...ports, ...leakPoints].map(({ id }) => id).sort());
  });
  test('no two places lie on each other', () => {
    const places = Object.values(PLACES);
    places.forEach((a, i) =>
      places.slice(i + 1).forEach((b) => expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeGreaterThan(14)),
    );
  });
});
