import type { Member } from './member';
import type { Motion, Moving } from './motion';
import { overTime } from './over-time';
import { Running } from './running';

/**
 * Two tanks fed by one pump over two circuits: each circuit is a node of its own. What a tank holds rises as
 * 1 − e^(−t/τ) of the pump's pressure, τ = 1 s and 2 s.
 */
const plain = { parameters: [], inputs: [], readings: [], healthy: () => ({ values: [], tolerances: [] }) };
const line = (circuit: string) =>
  ({ id: `line-${circuit}`, name: circuit, coupling: 'pumped', circuit }) as const;
const out = { id: 'out', name: 'Out', coupling: 'fluid' } as const;
const nothing = () => ({
  span: () => [0, 0] as const,
  through: () => 0,
  atRest: () => ({ effort: 0, passes: 0 }),
  read: () => [],
});
const member = (fedBy: Member<never>['fedBy'], feeds: Member<never>['feeds']) =>
  ({ ...plain, fedBy, feeds, with: nothing }) as unknown as Member<never>;
const members = {
  source: member([], [line('front'), line('rear')]),
  unit: member([line('front'), line('rear')], [out]),
  load: member([out], []),
};

const still: Moving = { atRest: () => [] };
const pump = (owns: readonly string[]): Motion => ({
  states: [],
  commands: [
    {
      kind: 'level',
      id: 'set',
      name: 'Set',
      quantity: 'pressure',
      most: 10,
      usual: 0,
      speed: { id: 'pace', usual: 1e9, most: 1e9 },
    },
  ],
  owns,
  with: (_p, { nodes }) => ({
    ...still,
    efforts: (_y, at) => {
      for (const node of nodes) node.effort = at.hands.set as number;
    },
  }),
});
const tanks: Motion = {
  states: ['front', 'rear'].map((id) => ({ id, name: id, quantity: 'pressure', scale: 1 })),
  commands: [],
  owns: ['out'],
  with: (_p, { from, nodes }) => ({
    atRest: () => [0, 0],
    rates: (y, dy) => {
      [1, 2].forEach((tau_s, i) => {
        nodes[i]!.passed = (nodes[i]!.effort - y[from + i]!) / tau_s;
        dy[from + i] = nodes[i]!.passed;
      });
    },
    shown: (y, _at, shown) => {
      shown[0] = y[from]!;
      shown[1] = y[from + 1]!;
    },
  }),
};
const load: Motion = { states: [], commands: [], owns: [], with: () => still };
const joinedOf = (source: Motion, unit: Motion, atLoad?: Motion) =>
  overTime({
    source: { ...members.source, motion: source },
    unit: { ...members.unit, motion: unit },
    load: { ...members.load, ...(atLoad && { motion: atLoad }) },
  });
const both = ['line-front', 'line-rear'];

test('members meet at several nodes: each circuit of a pump fills its own tank', () => {
  const model = joinedOf(pump(both), tanks, load)!;
  const bench = new Running(model, [], { barometer_Pa: 1e5, temperature_K: 293 }, 2);
  bench.set({ set: 5 });
  bench.advance(1.5);
  const [front, rear] = bench.read() as [number, number];
  expect(front).toBeCloseTo(5 * (1 - Math.exp(-1.5)), 3);
  expect(rear).toBeCloseTo(5 * (1 - Math.exp(-0.75)), 3);
});

test('a node without an owner, or with two, is named', () => {
  const joined =
    (owns: readonly string[], unit: Motion = tanks) =>
    () =>
      joinedOf(pump(owns), unit, load);
  expect(joined(['line-front'])).toThrow('owns: the node “line-rear” has 0 owners');
  expect(joined(both, { ...tanks, owns: ['out', 'line-rear'] })).toThrow(
    'owns: the node “line-rear” has 2 owners',
  );
});

test('where one member is known at rest only, so is the whole', () => {
  expect(joinedOf(pump(both), tanks)).toBeNull();
});
