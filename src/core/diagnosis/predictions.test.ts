/** @jest-environment node */
import type { Family } from '../contract/family';
import { toyFault } from '../scenarios/toy-fault';
import { moving } from '../model/vectors';
import { libraryOf } from './causes';
import { ParticleSet } from './particles';
import { Predictions } from './predictions';

/** A twin: what is read is the first number up to 100, less what the second loses through the third. The others do nothing. */
const [A, B, C] = (['a', 'b', 'c'] as const).map((id) => ({ id, name: id, quantity: 'ratio' }) as const);
const IDLE = Array.from(
  { length: 12 },
  (_, i) => ({ id: `idle${i}`, name: 'Idle', quantity: 'ratio' }) as const,
);
const parameters = [A!, B!, C!, ...IDLE];
const moves = moving(parameters);
/** The first shows below 100 only: from half of the fault's range on. */
const faults = [
  toyFault(
    'low',
    1,
    moves(({ a = 0 }, severity) => ({ a: a - 100 * severity })),
  ),
  toyFault(
    'leaks',
    1,
    moves(({ c = 0 }, severity) => ({ c: c + severity })),
  ),
];

function toy() {
  let asked = 0;
  const twin: Pick<Family, 'faults' | 'healthy' | 'readings' | 'views'> = {
    faults,
    healthy: () => ({
      values: [150, 20, 0, ...IDLE.map(() => 5)],
      tolerances: [2, 1, 0.001, ...IDLE.map(() => 1)],
    }),
    readings: [A!],
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
  const { slopes, bends } = predictions.along(state, 0, of);
  set.spread.forEach((_, way) => {
    for (const k of of) {
      const lead = set.particles[k]!.lead;
      const [down, up] = set.moved(set.particles[lead]!, way);
      const [lower, at, upper] = [down, set.particles[lead]!.parameters, up].map(
        (one) => steady(one, [])[0]!,
      );
      expect(slopes[way]![set.leadPlaces[k]!]).toBe((upper! - lower!) / 2);
      expect(bends[way]![set.leadPlaces[k]!]).toBe(upper! + lower! - 2 * at!);
    }
  });
});

test('ways that do nothing are asked all at once, up and down, and no more', () => {
  const { set, alone, pairs, predictions, count } = toy();
  expect(set.spread).toHaveLength(15);
  predictions.along(state, 0, alone);
  const before = count();
  predictions.along(state, 0, pairs);
  // What it shows as it is, twelve together up and down, and three by themselves.
  const each = 1 + 2 + 2 * 3;
  expect(count() - before).toBe(each * new Set(pairs.map((k) => set.particles[k]!.lead)).size);
});

test('a way that matters to one fault alone is found, though no unit before it felt it', () => {
  const { set, alone, predictions } = toy();
  const healthy = alone.slice(0, 1);
  const slopeAlongA = (of: readonly number[]) => {
    const { slopes } = predictions.along(state, 0, of);
    return of.map((k) => slopes[0]![set.leadPlaces[k]!]!);
  };
  expect(slopeAlongA(healthy)).toEqual([0]);
  // The worst of the first fault lies below 100: there a standard deviation of the first number is all of what is read.
  const low = alone.filter((k) => set.particles[k]!.cause.faults[0]?.id === faults[0]!.id);
  expect(slopeAlongA(low).at(-1)).toBeCloseTo(set.spread[0]![0]!);
});

test('a reading that is no number is no sign that a way does nothing', () => {
  const { twin, set, pairs } = toy();
  const unread = new Predictions({ ...twin, views: [{ inputs: [], steady: () => [NaN] }] }, set);
  expect(unread.along(state, 0, pairs).slopes[3]![set.leadPlaces[pairs[0]!]!]).toBeNaN();
});
