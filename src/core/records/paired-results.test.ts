import type { Result } from '../contract/result';
import { pairedResults } from './paired-results';

const of = (id: string, step: string, item: string | null = null) => ({ id, step, item }) as Result;
const names = (before: readonly Result[], after: readonly Result[]) =>
  pairedResults(before, after).map(({ a, b }) => [a?.id ?? null, b?.id ?? null]);

test('by name, in the order before, then what is new', () =>
  expect(names([of('a', 'one'), of('b', 'two')], [of('c', 'three'), of('b', 'two'), of('a', 'one')])).toEqual(
    [
      ['a', 'a'],
      ['b', 'b'],
      [null, 'c'],
    ],
  ));
test('a result that is called otherwise now is known by what was read; what took its name is another', () =>
  expect(
    names(
      [of('lamp', 'applications', 'lamp.supply'), of('lamp', 'lamps', 'lamp')],
      [of('lamp-lights', 'applications', 'lamp.supply'), of('lamp', 'lamps', 'lamp')],
    ),
  ).toEqual([
    ['lamp', 'lamp-lights'],
    ['lamp', 'lamp'],
  ]));
test('one that was moved to another step is known by its name', () =>
  expect(names([of('a', 'one', 'x')], [of('a', 'two', 'y')])).toEqual([['a', 'a']]));
test('each stands in one pair only', () =>
  expect(names([of('a', 'one', 'x'), of('b', 'one', 'x')], [of('c', 'one', 'x')])).toEqual([
    ['a', 'c'],
    ['b', null],
  ]));
