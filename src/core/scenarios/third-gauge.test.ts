/** @jest-environment node */
import type { RunEvent } from '../contract/events';
import { contextWith as withAdded } from '../procedure/exchange';
import { instrumentsOf, gateRule } from '../procedure/measured-item';
import { progress } from '../procedure/live';
import { seeded } from '../numeric/chance';
import { rehearse, type BenchTruth } from '../procedure/rehearse';
import { admitEvent } from '../procedure/admission';
import { nextAction } from '../procedure/next-action';
import { reduceRun } from '../procedure/run';
import { printSentence } from '../quantities/sentence';
import { BAR, contextWith, family, gauges, outcome, rig, truthWith } from '../scenarios/bench';

const reference = {
  ...gauges.outHigh,
  tag: 'REF',
  usualPort: null,
  step_Pa: 0.02 * BAR,
  accuracy: { kind: 'percent-of-span', percent: 0.1 } as const,
};
const context = contextWith({
  rig: { ...rig, input: [gauges.inHigh], output: [gauges.outHigh] },
  shelf: [...Object.values(rig).flat(), reference],
});
const [IN, OUT] = [gauges.inHigh.tag, gauges.outHigh.tag];
const options = { random: seeded(5), startAt: '2026-11-23T08:00:00.000Z' };

const stateOf = (of: typeof context, events: readonly RunEvent[]) =>
  reduceRun(of.procedure, events, gateRule(instrumentsOf(of.rig, of.shelf)));

/** A run up to an item, with the exchange added there, gone on to its end. */
function settled(truth: BenchTruth, until = 'supply-on.supply') {
  const first = rehearse(family, context, truth, { ...options, until });
  const due = family.settling!(context, stateOf(context, first))!;
  const added: RunEvent = {
    id: '00000000-0000-4000-8000-0000000000aa',
    at: options.startAt,
    type: 'added',
    ...due,
  };
  const whole = withAdded(context, [added]);
  const from = [...first, added];
  const events = [...from, ...rehearse(family, whole, truth, { ...options, from })];
  return { due, from, whole, events, ...outcome(whole, events) };
}
const said = (result: { notes: readonly Parameters<typeof printSentence>[0][] }) =>
  result.notes.map((note) => printSentence(note, 'metric')).join(' ');

const items = context.procedure.steps.flatMap(({ items: all }) => all.map(({ id }) => id));
const UNTIL = items[items.findIndex((id) => id.startsWith('seep-low'))]!;

describe('a third gauge tells which of two that disagree is wrong', () => {
  test.each([
    ['output gauge', { [OUT]: { scale: 1.08 } }, new RegExp(`REF agrees with ${IN}: ${OUT} is out`)],
    ['input gauge', { [IN]: { scale: 0.92 } }, new RegExp(`REF agrees with ${OUT}: ${IN} is out`)],
    ['neither', { [IN]: { scale: 0.95 }, [OUT]: { scale: 1.05 } }, /REF agrees with neither/],
  ])('%s', (_name, wrong, words) => {
    const { byId, run } = settled(truthWith({ gauges: wrong }), UNTIL);
    expect(said(byId(`exchange.${OUT}.REF`))).toMatch(words);
    expect(run.finished).toBe(true);
  });
  test('the scale that it finds has the truth within its U, and U is wider than the bypass alone gives', () => {
    // The output gauge reads 8 % too much, the third one is true: output over third is 1.08.
    const { byId } = settled(truthWith({ gauges: { [OUT]: { scale: 1.08 } } }), UNTIL);
    const found = byId(`exchange.${OUT}.REF`);
    expect(Math.abs(found.value! - 1.08)).toBeLessThan(2 * found.u!);
    expect(found.u!).toBeGreaterThan(byId('cross-check').u!);
  });
  test('two that agree are nothing to be settled, and no step can be added for them', () => {
    const first = rehearse(family, context, truthWith(), { ...options, until: UNTIL });
    expect(family.settling!(context, stateOf(context, first))).toBeNull();
  });
  test('once the output gauge is cleared, its outputs carry no doubt of the pair', () => {
    const wrong = truthWith({ gauges: { [IN]: { scale: 0.92 } } });
    const before = outcome(context, rehearse(family, context, wrong, options)).byId('full-output');
    const after = settled(wrong, UNTIL).byId('full-output');
    expect(said(before)).toMatch(/one of them is out of class/);
    expect(said(after)).not.toMatch(/out of class/);
    expect(after.u!).toBeLessThan(before.u!);
  });
});

describe('the exchange itself', () => {
  const wrong = truthWith({ gauges: { [OUT]: { scale: 1.08 } } });
  test('no gauge comes off before both lines are read at zero: a reading that is not keeps the gate shut', () => {
    const { due, from, whole } = settled(wrong, UNTIL);
    const gates = due.step.items.filter((item) => item.kind === 'reading' && item.gate);
    expect(gates.map((item) => item.kind === 'reading' && item.port)).toEqual(['input', 'output']);
    const zeros = { type: 'acknowledged', step: due.step.id, id: from[0]!.id, at: options.startAt } as const;
    const pressed: RunEvent = {
      id: '00000000-0000-4000-8000-0000000000ab',
      at: options.startAt,
      type: 'captured',
      item: gates[0]!.id,
      value_SI: 12 * BAR,
      typed: '12',
      by: 'typed',
      instrument: IN,
      confirmedUnlikely: true,
    };
    const state = stateOf(whole, [...from, zeros, pressed]);
    expect(nextAction(whole.procedure, state)).toMatchObject({ kind: 'item', item: { id: gates[0]!.id } });
  });
  test('taken back, it is no step of the run any more, and the run closes without it', () => {
    const { from, whole, due } = settled(wrong, UNTIL);
    const added = from.at(-1)!;
    const back: RunEvent = {
      id: '00000000-0000-4000-8000-0000000000ac',
      at: options.startAt,
      type: 'taken-back',
      event: added.id,
    };
    expect(admitEvent(whole.procedure, stateOf(whole, from), back, from)).toBeNull();
    const events = [...from, back];
    const rest = rehearse(family, whole, wrong, { ...options, from: events });
    const state = stateOf(whole, [...events, ...rest]);
    expect(state.finished).toBe(true);
    expect(rest.some((event) => 'item' in event && event.item?.startsWith('exchange.'))).toBe(false);
    const { done, of } = progress(whole.procedure, state);
    expect(done).toBe(of);
    expect(family.results(whole, state).map(({ id }) => id)).not.toContain(due.step.id);
  });
  test('the same step is added to the procedure once, however often its event is met', () => {
    const { from, whole } = settled(wrong, UNTIL);
    expect(withAdded(whole, from).procedure.steps).toEqual(whole.procedure.steps);
    const places = whole.procedure.steps.map(({ id }) => id);
    expect(places.indexOf(`exchange.${OUT}.REF`)).toBe(places.indexOf('bypass') + 1);
  });
});
