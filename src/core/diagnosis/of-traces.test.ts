/** @jest-environment node */
import { bench, BAR, contextWith, family, outcome, truthWith } from '../scenarios/bench';
import { Diagnostician } from './diagnose';
import { evidenceOf, type StepTrace } from './of-run';

const context = contextWith();
const whole = bench(truthWith(), context).events;
const without = (...items: string[]) =>
  outcome(
    context,
    whole.filter((event) => !('item' in event && items.includes(event.item ?? ''))),
  ).run;
const gauge = context.rig['input']![0]!;
const logged = (crack_bar: number | null, result = 'crack'): StepTrace => ({
  record: { tape: { step: 'ratio' }, channels: [{ name: gauge.tag, port: 'input' }] },
  stretches: [
    {
      results: [
        {
          id: result,
          estimate:
            crack_bar === null ? { told: false } : { told: true, value: crack_bar * BAR, u: 0.05 * BAR },
        },
      ],
    },
  ],
});
const told = (run: ReturnType<typeof without>, ...traces: StepTrace[]) =>
  evidenceOf(family, context, run, traces).flatMap((one) =>
    one.kind === 'reading' && one.of === 'crack.input' ? [one] : [],
  );

test('what a trace tells of a reading that nobody took counts, within its own limits and its gauge’s', () => {
  const [one, ...more] = told(without('crack.input'), logged(3.1));
  expect(more).toEqual([]);
  expect(one).toMatchObject({
    value: 3.1 * BAR,
    off: null,
    shared: { gauge: expect.stringContaining(gauge.tag) },
  });
  expect(one!.random).toBeGreaterThanOrEqual(0.05 * BAR);
});
test('beside a capture of the same it never counts', () => {
  const read = told(without());
  expect(read).toHaveLength(1);
  expect(told(without(), logged(3.1))).toEqual(read);
});
test('the newest that tells it counts, once', () => {
  const found = told(without('crack.input'), logged(3.1), logged(3.3), logged(null));
  expect(found.map(({ value }) => value)).toEqual([3.3 * BAR]);
});
test.each([
  ['it could not tell', without('crack.input'), logged(null)],
  ['it is another number', without('crack.input'), logged(3.1, 'jump-in')],
  ['the vacuum was never read', without('crack.input', 'rest.supply', 'full.supply'), logged(3.1)],
])('nothing is made of it where %s', (_name, run, trace) => {
  expect(told(run, trace)).toEqual([]);
});
test('a trace alone turns what it may be: a crack at twice its pressure speaks for a valve that sticks', () => {
  const diagnostician = new Diagnostician(family, context.profile, { complaint: true, weights: {} });
  const chance = (trace: StepTrace) => {
    const evidence = evidenceOf(family, context, without('crack.input', 'residual.output'), [trace]);
    const { ranked } = diagnostician.posterior(evidence.filter(({ id }) => id.endsWith('logged')));
    return ranked.find(({ cause }) => cause.id === 'valve-sticking')!.chance;
  };
  expect(chance(logged(6))).toBeGreaterThan(3 * chance(logged(3)));
});
