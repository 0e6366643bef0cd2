import fc from 'fast-check';
import { bench, contextWith, family, gauges, truthWith, BAR, INHG } from '../scenarios/bench';
import type { RunEvent } from '../contract/events';
import { instrumentsOf, measuredItem, gateRule } from './measured-item';
import { outsideReach } from './reach';
import { measured } from '../metrology/uncertainty';
import { admitEvent, runRefusalSentence } from './admission';
import { nextAction } from './next-action';
import { applyEvent, countedCaptures, reduceRun, waitStart } from './run';
import { type RunState } from '../contract/run-state';

const context = contextWith();
const { procedure } = context;
const instruments = instrumentsOf(context.rig);
const gate = gateRule(instruments);
const { events } = bench(truthWith());
const after = (itemId: string) =>
  events.slice(
    0,
    events.findIndex((e) => 'item' in e && e.item === itemId),
  );
const stateBefore = (itemId: string) => reduceRun(procedure, after(itemId), gate);

let count = 0;
type Body = RunEvent extends infer E ? (E extends RunEvent ? Omit<E, 'id' | 'at'> : never) : never;
const event = (body: Body): RunEvent =>
  ({
    id: `00000000-0000-4000-8000-${String(++count).padStart(12, '0')}`,
    at: '2026-11-23T09:00:00.000Z',
    ...body,
  }) as RunEvent;
const capture = (item: string, value_SI: number, instrument: string) =>
  event({ type: 'captured', item, value_SI, by: 'typed', typed: '', instrument, confirmedUnlikely: false });
const play = (state: RunState, ...more: RunEvent[]) =>
  more.reduce((s, e) => applyEvent(procedure, s, e, gate), state);

describe('a run', () => {
  test('begins with the cautions and ends only when made safe', () => {
    expect(nextAction(procedure, reduceRun(procedure, [], gate))).toMatchObject({
      kind: 'acknowledge',
      step: { id: 'cautions' },
    });
    expect(nextAction(procedure, reduceRun(procedure, events.slice(0, -1), gate)).kind).toBe('finish');
    expect(reduceRun(procedure, events, gate).finished).toBe(true);
  });

  test('asks for the source before a step that needs it, and shows its cautions with it', () => {
    const state = stateBefore('rest.supply');
    const before = { ...state, sources: { vacuum: 'off' } as const };
    expect(nextAction(procedure, before)).toMatchObject({
      kind: 'source',
      set: { source: 'vacuum', to: 'on' },
      step: { id: 'supply-on' },
    });
  });

  test('cautions come again when the source has changed', () => {
    const state = stateBefore('hold.input');
    expect(state.acknowledged).toContain('hold');
    const changed = play(
      state,
      event({ type: 'source-set', step: 'ratio', set: { source: 'vacuum', to: 'off' } }),
      event({ type: 'source-set', step: 'ratio', set: { source: 'vacuum', to: 'on' } }),
    );
    expect(nextAction(procedure, changed)).toMatchObject({ kind: 'acknowledge', step: { id: 'hold' } });
  });

  test('a struck reading is kept, no longer counts, and is asked for again', () => {
    const state = play(stateBefore('rest.supply'), capture('rest.supply', 20 * INHG, 'VAC-S'));
    const struck = play(state, event({ type: 'struck', capture: state.captures.at(-1)!.id }));
    expect(struck.captures).toHaveLength(state.captures.length);
    expect(countedCaptures(struck, 'rest.supply')).toEqual([]);
    expect(nextAction(procedure, struck)).toMatchObject({ kind: 'item', item: { id: 'rest.supply' } });
  });

  test('a repeat keeps both readings and averages them', () => {
    const once = play(stateBefore('rest.supply'), capture('rest.supply', 20 * INHG, 'VAC-S'));
    const twice = play(
      once,
      event({ type: 'reopened', item: 'rest.supply' }),
      capture('rest.supply', 19 * INHG, 'VAC-S'),
    );
    expect(measuredItem(instruments, twice, 'rest.supply')).toMatchObject({ count: 2 });
    expect(measuredItem(instruments, twice, 'rest.supply')!.value_SI / INHG).toBeCloseTo(19.5, 9);
  });

  test('readings by different gauges are never averaged: the better one counts', () => {
    const state = play(
      stateBefore('hold.end'),
      capture('hold.end', 7 * BAR, 'OUT-H'),
      capture('hold.end', 7.4 * BAR, 'OUT-L'),
    );
    expect(measuredItem(instruments, state, 'hold.end')).toMatchObject({
      instrument: gauges.outLow,
      count: 1,
    });
  });

  test('a step skipped with a reason is passed over, and can still be read later', () => {
    const state = play(
      stateBefore('seep-low.bleed-screw'),
      event({ type: 'skipped', step: 'seep-low', item: null, reason: 'No light' }),
    );
    expect(nextAction(procedure, state)).toMatchObject({ step: { id: 'supply-on' } });
    const back = play(state, event({ type: 'observed', item: 'seep-low.switch', answer: 'good', note: '' }));
    expect(back.skipped['seep-low.switch']).toBeUndefined();
    expect(back.skipped['seep-low.end-cap']).toBe('No light');
  });

  test('a wait after a reading starts at that reading and survives as data', () => {
    const state = stateBefore('hold.wait');
    const start = countedCaptures(state, 'hold.start')[0]!;
    expect(waitStart(procedure, state, 'hold.wait')).toBe(start.at);
    expect(waitStart(procedure, state, 'residual.wait')).toBeNull();
  });

  test('repeating a hold from its start opens its wait again', () => {
    const done = stateBefore('seep-high.bleed-screw');
    expect(done.waits['hold.wait']?.endedAt).toBeTruthy();
    expect(play(done, event({ type: 'reopened', item: 'hold.start' })).waits['hold.wait']).toBeUndefined();
  });
});

describe('make safe', () => {
  const state = stateBefore('safe.input');
  test('the gate stays shut on a gauge that is not at zero, and the reading is kept', () => {
    const shut = play(state, capture('safe.input', 3 * BAR, 'IN-H'));
    expect(shut.captures.at(-1)).toMatchObject({ gateShut: true });
    expect(nextAction(procedure, shut)).toMatchObject({ item: { id: 'safe.input' } });
    expect(nextAction(procedure, play(shut, capture('safe.input', 0, 'IN-H')))).toMatchObject({
      item: { id: 'safe.output' },
    });
  });
  test('a gauge’s own vented zero counts as zero', () => {
    const offset = play(reduceRun(procedure, [], gate), capture('zero.IN-H', 2 * BAR, 'IN-H'));
    expect(gate(capture('safe.input', 2 * BAR, 'IN-H') as never, offset, 'zero')).toBe(true);
    expect(gate(capture('safe.input', 0, 'IN-H') as never, offset, 'zero')).toBe(false);
  });
  test('it cannot be skipped, and the run cannot be finished without it', () => {
    const skip = event({ type: 'skipped', step: 'make-safe', item: null, reason: 'late' });
    expect(admitEvent(procedure, state, skip)).toMatchObject({ code: 'mandatory' });
    expect(admitEvent(procedure, state, event({ type: 'finished' }))).toEqual({ code: 'not-safe' });
  });
});

describe('what is not taken into a run', () => {
  const state = stateBefore('rest.supply');
  test.each([
    [capture('no-such', 1, 'VAC-S'), 'unknown-item'],
    [capture('hold.wait', 1, 'VAC-S'), 'wrong-kind'],
    [event({ type: 'observed', item: 'fluid', answer: 'perhaps', note: '' }), 'unknown-answer'],
    [event({ type: 'struck', capture: '00000000-0000-4000-8000-999999999999' }), 'unknown-capture'],
    [event({ type: 'wait-ended', item: 'residual.wait' }), 'not-started'],
    [event({ type: 'skipped', step: 'nowhere', item: null, reason: 'x' }), 'unknown-item'],
  ])('%#: %j', (bad, code) => {
    const refusal = admitEvent(procedure, state, bad);
    expect(refusal?.code).toBe(code);
    expect(runRefusalSentence(refusal!)).toMatch(/\.$/);
  });
  test('anything, once the run is finished', () => {
    expect(admitEvent(procedure, reduceRun(procedure, events, gate), events[3]!)).toEqual({
      code: 'finished',
    });
  });
});

test('any order of admitted events gives a run that still says what comes next', () => {
  const pool = events.filter((e) => e.type !== 'finished');
  fc.assert(
    fc.property(fc.array(fc.constantFrom(...pool), { maxLength: 60 }), (some) => {
      let state = reduceRun(procedure, [], gate);
      for (const e of some)
        if (!admitEvent(procedure, state, e)) state = applyEvent(procedure, state, e, gate);
      const action = nextAction(procedure, state);
      return !state.finished && action.kind !== 'done' && family.results(context, state).length > 20;
    }),
    { numRuns: 40 },
  );
});

describe('unlikely readings', () => {
  const state = stateBefore('full.output');
  const item = procedure.steps.flatMap((s) => s.items).find(({ id }) => id === 'full.output')!;
  const reach = (bar: number) =>
    item.kind === 'reading'
      ? outsideReach(family, context, state, item, measured([bar * BAR], gauges.outHigh))
      : null;
  test('what any fault could show is taken; what none could is asked about', () => {
    expect([100, 85, 60, 30].map((bar) => reach(bar))).toEqual([null, null, null, null]);
    expect(reach(150)).not.toBeNull();
    expect(reach(1)).not.toBeNull();
  });
});
