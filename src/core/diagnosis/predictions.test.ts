/** @jest-environment node */
import type { Family } from '../contract/family';
import { toyFault } from '../scenarios/toy-fault';
import { healthyUnit, moving } from '../model/vectors';
import { libraryOf } from './causes';
import { ParticleSet } from './particles';
import { Predictions } from './predictions';

/** A twin of four numbers: what is read is the first up to 100, less what the second loses through the third. The fourth does nothing. */
const parameters = [
  { id: 'a', name: 'A', quantity: 'ratio' },
  { id: 'b', name: 'B', quantity: 'ratio' },
  { id: 'c', name: 'C', quantity: 'ratio' },
  { id: 'd', name: 'D', quantity: 'ratio' },
] as const;
const moves = moving(parameters);
/** The first shows below 100 only: from half of the fault's range on. */
const faults = [
  toyFault(
    'low',
    1,
    moves(({ a }, severity) => ({ a: a - 100 * severity })),
  ),
  toyFault(
    'leaks',
    1,
    moves(({ c }, severity) => ({ c: c + severity })),
  ),
];

function toy() {
  let asked = 0;
  const twin: Pick<Family, 'faults' | 'healthy' | 'readings' | 'views'> = {
    faults,
    healthy: () => healthyUnit(parameters, { a: 150, b: 20, c: 0, d: 5 }, { a: 2, b: 1, c: 0.001, d: 1 }),
    readings: [parameters[0]],
    views: [
      {
        inputs: [],
        steady: ([a = 0, b = 0, c = 0]: readonly number[]) => {
          asked += 1;
          return [Math.min(100, a) - (c > 0.01 ? b * c : 0)];
        },
      },
    ],
  };
  const library = libraryOf(twin, null, { complaint: true, weights: {} });
  const set = new ParticleSet(twin, null);
  const alone = [library.healthy, ...library.singles].flatMap((cause) => set.of(cause, { one: 15, two: 3 }));
  const pairs = library.pairs.flatMap((cause) => set.of(cause, { one: 15, two: 3 }));
  return { twin, set, alone, pairs, predictions: new Predictions(twin, set), count: () => asked };
}
const state = { view: 0, inputs: [] };

test('how a reading changes with each way is what it is one standard deviation up and down, for a pair of faults too', () => {
  const { twin, set, alone, pairs, predictions } = toy();
  const [{ steady }] = twin.views;
  const of = [...alone, ...pairs];
  set.spread.forEach((_, way) => {
    const [slope, bend] = [predictions.spread(state, 0, way, of), predictions.bend(state, 0, way, of)];
    for (const k of of) {
      const lead = set.particles[k]!.lead;
      const [down, up] = set.moved(set.particles[lead]!, way);
      const [lower, at, upper] = [down, set.particles[lead]!.parameters, up].map(
        (one) => steady(one, [])[0]!,
      );
      expect(slope[set.leadPlaces[k]!]).toBe((upper! - lower!) / 2);
      expect(bend[set.leadPlaces[k]!]).toBe(upper! + lower! - 2 * at!);
    }
  });
});

test('a pair of faults is not asked along a way that does nothing by the healthy unit and by either fault', () => {
  const { set, alone, pairs, predictions, count } = toy();
  const askedAlong = (way: number) => {
    predictions.spread(state, 0, way, alone);
    const before = count();
    const found = predictions.spread(state, 0, way, pairs);
    return { asked: count() - before, found: found[set.leadPlaces[pairs[0]!]!] };
  };
  const [a, b, , d] = set.spread.map((_, way) => askedAlong(way));
  expect(a!.asked).toBeGreaterThan(0);
  expect(b!.asked).toBeGreaterThan(0);
  expect(d).toEqual({ asked: 0, found: 0 });
});

test('a reading that is no number by a guide is no sign that a way does nothing', () => {
  const { twin, set, pairs } = toy();
  const unread = new Predictions({ ...twin, views: [{ inputs: [], steady: () => [NaN] }] }, set);
  expect(unread.spread(state, 0, 3, pairs)[set.leadPlaces[pairs[0]!]!]).toBeNaN();
});
