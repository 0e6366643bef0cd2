import { FAMILIES } from '../families/registry';
import { fittedFrom, isWhole, partsOnShelf } from './fitted';

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
  expect(partsOnShelf(shelf, 'source', 'vacuum-supply').map(({ name, vehicle }) => [name, vehicle])).toEqual([
    [typical.source.name, 'Mail van'],
    ['Pump of the summit van', 'Summit van'],
  ]);
  expect(partsOnShelf([shelf[2]!], 'unit', 'pedal-vacuum')).toEqual([]);
});

test('a part of another kind is no choice, and one on a bench is as good as one in a vehicle', () => {
  const bench = FAMILIES['motor-pump-booster'].typical as Vehicle;
  expect(isWhole(bench)).toBe(true);
  expect(isWhole(typical.unit)).toBe(false);
  expect(partsOnShelf([...shelf, bench], 'unit', 'pedal-vacuum')).toHaveLength(1);
  expect(partsOnShelf([...shelf, bench], 'unit', 'motor-pump-booster')).toEqual([
    { vehicle: bench.name, name: bench.unit.name, body: bench.unit },
  ]);
});

test('a booster with a profile of its own is offered before those of vehicles', () => {
  const own = { ...typical.unit, name: 'Single 8' };
  expect(
    partsOnShelf([shelf[0]!], 'unit', 'pedal-vacuum', [own]).map(({ name, vehicle }) => [name, vehicle]),
  ).toEqual([
    ['Single 8', null],
    [typical.unit.name, 'Mail van'],
  ]);
});

test('a vehicle put together is a profile; a part not known is typical, and said so', () => {
  const [, source] = partsOnShelf(shelf, 'source', 'vacuum-supply');
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
