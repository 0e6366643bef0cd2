import { FAMILIES } from '../families/registry';
import { fittedFrom, partsOnShelf } from './fitted';

const family = FAMILIES['vacuum-vehicle'];
type Vehicle = Parameters<typeof fittedFrom>[0];
const typical = family.typical as Vehicle;
const named = (name: string, change: Partial<Vehicle>): Vehicle => ({ ...typical, name, ...change });
const pump = { ...typical.source, name: 'Pump of the summit van' };
const shelf = [
  named('Mail van', {}),
  named('Mail van, second', {}),
  named('Summit van', { source: pump, known: { source: true, unit: false, load: true } }),
];

test('a part is offered once by its name, and only where its figures are its own', () => {
  expect(partsOnShelf(shelf, 'source').map(({ name, vehicle }) => [name, vehicle])).toEqual([
    [typical.source.name, 'Mail van'],
    ['Pump of the summit van', 'Summit van'],
  ]);
  expect(partsOnShelf([shelf[2]!], 'unit')).toEqual([]);
});

test('a booster with a profile of its own is offered before those of vehicles', () => {
  const own = { ...typical.unit, name: 'Single 8' };
  expect(partsOnShelf([shelf[0]!], 'unit', [own]).map(({ name, vehicle }) => [name, vehicle])).toEqual([
    ['Single 8', null],
    [typical.unit.name, 'Mail van'],
  ]);
});

test('a vehicle put together is a profile; a part not known is typical, and said so', () => {
  const [, source] = partsOnShelf(shelf, 'source');
  const made = fittedFrom(
    typical,
    { name: 'Parts van', maker: '' },
    { source: source!, unit: null, load: null },
  );
  expect(family.profile.safeParse(made).success).toBe(true);
  expect(made.source).toEqual(pump);
  expect(made.unit).toEqual(typical.unit);
  expect(made.known).toEqual({ source: true, unit: false, load: false });
});
