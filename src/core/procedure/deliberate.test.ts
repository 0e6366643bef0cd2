/** @jest-environment node */
import fc from 'fast-check';
import { zeroItems } from '../families/bench-items';
import { FAMILIES, type FamilyKind } from '../families/registry';
import { measured, readingUncertainty_SI } from '../metrology/uncertainty';
import { namedGaps } from '../documents/report';
import { BAR, benchOf, gauges } from '../scenarios/bench';
import { checkCapture, secondLook, shortWay, type Candidate } from './check-capture';
import type { RunEvent } from '../contract/events';
import { instrumentsOf, gateRule } from './measured-item';
import { findItem, type ReadingItem } from '../contract/steps';
import { seeded, uuidFrom } from '../numeric/chance';
import { rehearse } from './rehearse';
import { admitEvent } from './admission';
import { nextAction } from './next-action';
import { reduceRun } from './run';
import { takeBackLast } from './taking-back';
import { type RunState } from '../contract/run-state';

const remote = benchOf('remote-vacuum');
const { contextWith, truthWith, bench } = remote;
const context = contextWith();
const { procedure } = context;
const gate = gateRule(instrumentsOf(context.rig, context.shelf));
const whole = bench(truthWith()).events;
const stateOf = (events: readonly RunEvent[]) => reduceRun(procedure, events, gate);
const upTo = (item: string) =>
  whole.slice(
    0,
    whole.findIndex((event) => 'item' in event && event.item === item),
  );
const nextItem = (state: RunState) => {
  const action = nextAction(procedure, state);
  return action.kind === 'item' ? action.item.id : action.kind;
};
let count = 0;
const id = () => `00000000-0000-4000-8000-${String(++count).padStart(12, '0')}`;
const at = (seconds: number) => new Date(Date.parse(whole.at(-1)!.at) + seconds * 1000).toISOString();
type Made = RunEvent extends infer E ? (E extends RunEvent ? Omit<E, 'id' | 'at'> : never) : never;
const made = (event: Made, seconds = 0): RunEvent => ({ id: id(), at: at(seconds), ...event }) as RunEvent;
const read = (item: string, value_SI: number, seconds = 0, instrument = 'OUT-H') =>
  made(
    { type: 'captured', item, value_SI, typed: '1', by: 'typed', instrument, confirmedUnlikely: false },
    seconds,
  );
const answer = (item: string, given: string) => made({ type: 'observed', item, answer: given, note: '' });

describe('what hangs on a reading is asked for again when that is done anew', () => {
  const held = upTo('seep-high.end-cap');
  const start = held.findLast((event) => event.type === 'captured' && event.item === 'hold.start')!;
  test('a start struck: the start, the wait and the end, in that order', () => {
    const struck = [...held, made({ type: 'struck', capture: start.id })];
    expect(nextItem(stateOf(struck))).toBe('hold.start');
    const again = [...struck, read('hold.start', 70 * BAR)];
    expect(nextItem(stateOf(again))).toBe('hold.wait');
    const waited = [...again, made({ type: 'wait-ended', item: 'hold.wait' }, 60)];
    expect(nextItem(stateOf(waited))).toBe('hold.end');
    const ended = stateOf([...waited, read('hold.end', 69 * BAR, 61)]);
    expect(nextItem(ended)).toMatch(/^seep-high/);
    // The end of the hold that was struck no longer counts: only the new one is judged.
    const end = ended.captures.filter(({ item }) => item === 'hold.end');
    expect(end.map(({ stale }) => stale)).toEqual([true, false]);
  });
  test('a reopened hold is waited for and read again', () => {
    const reopened = [...held, made({ type: 'reopened', item: 'hold.start' }), read('hold.start', 70 * BAR)];
    expect(nextItem(stateOf(reopened))).toBe('hold.wait');
    const waited = [...reopened, made({ type: 'wait-ended', item: 'hold.wait' }, 60)];
    expect(nextItem(stateOf(waited))).toBe('hold.end');
  });
  test('an end read two seconds after its start tells nothing: it is kept, and asked for again', () => {
    const before = upTo('hold.start');
    const early = made({ type: 'wait-ended', item: 'hold.wait', early: true }, 1);
    const soon = [...before, read('hold.start', 70 * BAR, 0), early, read('hold.end', 70 * BAR, 2)];
    expect(nextItem(stateOf(soon))).toBe('hold.end');
    expect(nextItem(stateOf([...soon, read('hold.end', 70 * BAR, 3)]))).toBe('hiss-held');
  });
  test('a wait ends before its time only with a confirmation', () => {
    const waiting = [...upTo('hold.start'), read('hold.start', 70 * BAR, 0)];
    const end = (seconds: number, early?: true) =>
      admitEvent(
        procedure,
        stateOf(waiting),
        made({ type: 'wait-ended', item: 'hold.wait', ...(early ? { early } : {}) }, seconds),
      )?.code ?? null;
    expect(end(58)).toBe('not-over');
    expect(end(58, true)).toBeNull();
    expect(end(60)).toBeNull();
    // By a clock that was set back it never ends, early or not: it is begun anew.
    expect([end(-29), end(-30), end(-30, true)]).toEqual(['not-over', 'clock-back', 'clock-back']);
  });
});

describe('an answer with a consequence stops the test', () => {
  const before = upTo('threads');
  const damaged = [...before, answer('threads', 'damaged')];
  test('no reading is taken, no reason lets it go on; mending and looking again does', () => {
    expect(nextAction(procedure, stateOf(damaged))).toMatchObject({
      kind: 'stopped',
      item: { id: 'threads' },
    });
    const zero = read('zero.IN-L', 0, 0, 'IN-L');
    expect(admitEvent(procedure, stateOf(damaged), zero)).toMatchObject({ code: 'stopped' });
    const reason = made({ type: 'gone-on', item: 'threads', reason: 'In a hurry' });
    expect(admitEvent(procedure, stateOf(damaged), reason)).toMatchObject({ code: 'stopped' });
    const again = [...damaged, made({ type: 'reopened', item: 'threads' })];
    expect(nextItem(stateOf(again))).toBe('threads');
    expect(nextItem(stateOf([...again, answer('threads', 'damaged')]))).toBe('stopped');
    expect(nextItem(stateOf([...again, answer('threads', 'good')]))).toMatch(/^switch|^zero/);
  });
  test('where a reason is enough, the test goes on with it, until it is looked at again', () => {
    const eased = {
      ...procedure,
      steps: procedure.steps.map((step) => ({
        ...step,
        items: step.items.map((item) =>
          item.id === 'threads' && item.kind === 'observation'
            ? {
                ...item,
                answers: item.answers.map((one) =>
                  one.stops ? { ...one, stops: { ...one.stops, goesOn: 'reason' as const } } : one,
                ) as unknown as typeof item.answers,
              }
            : item,
        ),
      })),
    };
    const state = reduceRun(eased, damaged, gate);
    const reason = made({ type: 'gone-on', item: 'threads', reason: 'Plugged for the test' });
    expect(admitEvent(eased, state, reason)).toBeNull();
    expect(nextAction(eased, reduceRun(eased, [...damaged, reason], gate)).kind).toBe('item');
    const reopened = [...damaged, reason, made({ type: 'reopened', item: 'threads' })];
    const bad = reduceRun(eased, [...reopened, answer('threads', 'damaged')], gate);
    expect(nextAction(eased, bad).kind).toBe('stopped');
  });
  test('ended there, everything not done is not taken for that reason, and the unit is still made safe', () => {
    const ended = [...damaged, made({ type: 'ended', reason: 'Thread stripped' })];
    let state = stateOf(ended);
    const asked: string[] = [];
    const events = [...ended];
    for (let i = 0; i < 40 && nextItem(state) !== 'finish'; i += 1) {
      const action = nextAction(procedure, state);
      if (action.kind === 'acknowledge') events.push(made({ type: 'acknowledged', step: action.step.id }));
      else if (action.kind === 'item') {
        asked.push(action.item.id);
        events.push(read(action.item.id, 0));
      }
      state = stateOf(events);
    }
    expect(asked).toEqual(['safe.input', 'safe.output', 'safe.supply', 'safe.activation']);
    const gaps = namedGaps(context, state, remote.family.results(context, state));
    expect(gaps.find(({ what }) => what === 'Residual output after release')!.why).toMatch(/Thread stripped/);
  });
  test.each(Object.keys(FAMILIES) as FamilyKind[])(
    '%s: other fluid, weeping before pressure goes up, and what holds the rod are mended, never reasoned away',
    (kind) => {
      const { steps } = benchOf(kind).contextWith().procedure;
      const stops = steps.flatMap(({ items }) =>
        items.flatMap((item) =>
          item.kind === 'observation'
            ? item.answers.flatMap(({ stops: stop }) => (stop ? [[item.id, stop.goesOn]] : []))
            : [],
        ),
      );
      const wanted = {
        'remote-vacuum': ['fluid', 'threads', 'seep-first'],
        'rod-servo': ['fluid', 'blocked', 'seep-valve'],
        'pedal-vacuum': ['mounted', 'seep'],
        'pedal-valve': ['fluid', 'emptied', 'still'],
        'hydraulic-booster': ['emptied', 'clamped', 'hoses'],
        'motor-pump-booster': ['fluid', 'emptied', 'clamped'],
        'motor-pump-vehicle': ['fluid', 'chocked', 'emptied', 'good.dry', 'good.pedal'],
        'hydraulic-vehicle': ['fluid', 'chocked', 'emptied', 'hoses', 'good.dry', 'good.pedal'],
        'pedal-valve-vehicle': ['fluid', 'chocked', 'emptied', 'lowered', 'good.dry', 'good.pedal'],
        'stored-pressure': ['fluid', 'emptied', 'clamped'],
        'stored-pressure-vehicle': [
          'fluid',
          'chocked',
          'emptied',
          'rams',
          'springs.stands',
          'springs.bled',
          'springs.lowered',
          'springs.back',
          'good.dry',
          'good.pedal',
        ],
        electromechanical: ['fluid', 'fuse-out', 'clamped'],
        'electromechanical-vehicle': ['fluid', 'chocked', 'fuse-out', 'good.dry', 'good.pedal'],
        'by-wire-vehicle': [
          'fluid',
          'chocked',
          'high-voltage',
          'asleep',
          'test-state',
          'good.dry',
          'good.pedal',
        ],
        'vacuum-vehicle': ['fluid', 'chocked', 'good.dry', 'good.pedal'],
      }[kind];
      expect(stops.map(([item]) => item)).toEqual(expect.arrayContaining(wanted));
      expect(new Set(stops.map(([, goesOn]) => goesOn))).toEqual(new Set(['mended']));
    },
  );
});

describe('the last thing done is taken back, whatever it was', () => {
  const back = (events: readonly RunEvent[]) => [
    ...events,
    ...takeBackLast(events).map((event) => made(event as Made)),
  ];
  test('a reading is struck, and the one before it next', () => {
    const two = upTo('bypass.2.input');
    const looked = two.filter(({ type }) => type === 'observed').at(-1)!;
    // Last was the look at low pressure; then the output, then the input of the first line.
    expect(two.at(-1)).toBe(looked);
    const once = back(two);
    expect(once.at(-1)).toMatchObject({ type: 'taken-back', event: looked.id });
    expect(nextItem(stateOf(once))).toBe('seep-first');
    expect(nextItem(stateOf(back(once)))).toBe('bypass.1.output');
    expect(nextItem(stateOf(back(back(once))))).toBe('bypass.1.input');
  });
  test('a source turned, cautions understood and a skip are taken back too', () => {
    const on = upTo('rest.supply');
    expect(on.at(-1)!.type).toBe('source-set');
    expect(stateOf(on).sources.vacuum).toBe('on');
    expect(nextItem(stateOf(back(on)))).toBe('source');
    expect(stateOf(back(on)).sources.vacuum).toBe('off');
    const understood = upTo('fluid');
    expect(understood.at(-1)!.type).toBe('acknowledged');
    expect(nextItem(stateOf(back(understood)))).toBe('acknowledge');
    const skipped = [...on, made({ type: 'skipped', step: 'supply-on', item: 'rest.supply', reason: 'x' })];
    expect(nextItem(stateOf(back(skipped)))).toBe('rest.supply');
  });
  test('several events of one deed go together; a wait that ran its time does not', () => {
    const deed = id();
    const two = [
      ...upTo('seep-low.end-cap'),
      { ...answer('seep-low.end-cap', 'good'), deed },
      { ...answer('seep-low.bleed', 'good'), deed },
    ];
    expect(takeBackLast(two)).toHaveLength(2);
    const waited = upTo('hold.start');
    expect(waited.at(-1)).toMatchObject({ type: 'wait-ended' });
    expect(takeBackLast(waited)[0]).toMatchObject({ type: 'struck' });
    expect(takeBackLast([])).toEqual([]);
  });
  test('what was taken back, carried over or never done cannot be taken back', () => {
    const two = upTo('bypass.2.input');
    const [first] = two;
    const state = stateOf(two);
    const take = (event: string, events: readonly RunEvent[] = two) =>
      admitEvent(procedure, state, made({ type: 'taken-back', event }), events)?.code ?? null;
    expect(take(first!.id)).toBeNull();
    expect(take(id())).toBe('unknown-event');
    expect(take(first!.id, [...two, made({ type: 'taken-back', event: first!.id })])).toBe('unknown-event');
    const disturbed = made({ type: 'disturbed', steps: ['bypass'], rezero: false, why: 'x' });
    expect(take(first!.id, [...two, disturbed])).toBe('unknown-event');
  });
});

describe('a capture', () => {
  const state = stateOf(upTo('bypass.1.input'));
  const item = (name: string) => findItem(procedure, name)!.item as ReadingItem;
  const check = (candidate: Candidate, on = state) => {
    const problem = checkCapture(remote.family, context, on, candidate);
    return problem && `${problem.asks ? 'asks' : 'refuses'}: ${problem.say('metric')}`;
  };
  const zero = (bar: number, gauge = gauges.inLow) =>
    check({ item: item(`zero.${gauge.tag}`), gauge, value_SI: bar * BAR, by: 'typed' });
  test('of a vented gauge beyond its class is asked about, far off refused', () => {
    // IN-L: 10 bar, class 0.6, so 0.06 bar; a tenth of its span is 1 bar.
    expect(zero(0.05)).toBeNull();
    expect(zero(0.1)).toMatch(/^asks: IN-L shows 0\.1 bar vented, beyond its class/);
    expect(zero(4.1)).toMatch(/^refuses: IN-L shows 4\.1\d? bar vented: it is not vented, or broken/);
  });
  test('at a gate is refused on a gauge whose cock may be shut', () => {
    const safe = (gauge: typeof gauges.inLow) =>
      check({ item: item('safe.input'), gauge, value_SI: 0, by: 'typed' });
    expect(safe(gauges.inLow)).toMatch(/^refuses: Read IN-H: the cock of IN-L may be shut/);
    expect(safe(gauges.inHigh)).toBeNull();
  });
  test('by a gauge that another fluid has wetted is refused, on lines of fluid alone', () => {
    const wet = { ...gauges.inHigh, fluid: 'mineral' } as const;
    const bypass = (gauge: Candidate['gauge']) =>
      check({
        item: item('bypass.1.input'),
        gauge,
        value_SI: item('bypass.1.input').target_Pa!,
        by: 'typed',
      });
    expect(bypass(wet)).toMatch(/^refuses: IN-H and its hose hold Mineral oil, and this unit takes DOT 4/);
    // Glycol fluids mix with one another.
    expect(bypass({ ...wet, fluid: 'dot5.1' })).toBeNull();
    expect(zero(0, wet)).toMatch(/must not meet/);
    const vacuum = { ...gauges.supply, fluid: 'mineral' } as const;
    expect(check({ item: item('zero.VAC-S'), gauge: vacuum, value_SI: 0, by: 'typed' })).toBeNull();
  });
  test('by a sensor of the vehicle carries no error of a gauge, and shows nothing to be empty', () => {
    const own = { ...gauges.inHigh, accuracy: { kind: 'own-sensor' } } as const;
    // Only its step of 0.2 bar counts: 0.2/√12 = 0.0577 bar.
    expect(readingUncertainty_SI(measured([20 * BAR], own)) / BAR).toBeCloseTo(0.05774, 5);
    expect(check({ item: item('safe.input'), gauge: own, value_SI: 0, by: 'typed' })).toMatch(
      /^refuses: IN-H is the vehicle’s own/,
    );
    const rig = { ...context.rig, input: [own, gauges.inLow] };
    expect(zeroItems(remote.family.ports, rig).map(({ gauge }) => gauge)).not.toContain('IN-H');
  });
  test('by one key is the aim or zero, in no gate and no safety step', () => {
    expect(shortWay(context, state, item('bypass.1.input'))).toEqual({
      by: 'at-aim',
      value_SI: item('bypass.1.input').target_Pa,
    });
    expect(shortWay(context, state, item('zero.IN-L'))).toEqual({ by: 'at-zero', value_SI: 0 });
    for (const name of ['safe.input', 'bypass.1.output', 'crack.input', 'full.supply', 'loss-released.end'])
      expect(shortWay(context, state, item(name))).toBeNull();
    const lied: Candidate = {
      item: item('bypass.1.input'),
      gauge: gauges.inHigh,
      value_SI: 99 * BAR,
      by: 'at-aim',
    };
    expect(check(lied)).toMatch(/^refuses: .*cannot be said by one key/);
  });
  test('far from its aim, from what the same gauge shows, or of a gauge that moves is looked at twice', () => {
    const aim = item('bypass.2.input').target_Pa!;
    const look = (value_SI: number, by: Candidate['by'], live: Parameters<typeof secondLook>[1] = null) =>
      secondLook({ item: item('bypass.2.input'), gauge: gauges.inHigh, value_SI, by }, live)?.say('metric') ??
      null;
    expect(look(aim, 'typed')).toBeNull();
    expect(look(aim + 10 * BAR, 'typed')).toMatch(/far from the aim/);
    expect(look(aim, 'typed', { value_SI: aim + 30 * BAR, settled: true })).toMatch(/You typed/);
    expect(look(aim, 'gauge', { value_SI: aim, settled: false })).toMatch(/still moving/);
    expect(look(aim, 'gauge', { value_SI: aim, settled: true })).toBeNull();
  });
  test('of a moment that is over is not held against what the gauge shows by now', () => {
    const jump: Candidate = {
      item: { ...item('bypass.2.output'), moment: 'by-hand' },
      gauge: gauges.outHigh,
      value_SI: 70 * BAR,
      by: 'typed',
    };
    expect(secondLook(jump, { value_SI: 151 * BAR, settled: true })).toBeNull();
  });
});

test.each(Object.keys(FAMILIES) as FamilyKind[])(
  '%s: strikes, skips, repeats, takings back and early ends at random always come to a complete run or to named gaps',
  (kind) => {
    const { family, contextWith: contextOf, truthWith: truthOf } = benchOf(kind);
    const ctx = contextOf();
    const opens = gateRule(instrumentsOf(ctx.rig, ctx.shelf));
    const reduce = (events: readonly RunEvent[]) => reduceRun(ctx.procedure, events, opens);
    const meddle = fc.tuple(
      fc.constantFrom('strike', 'skip', 'reopen', 'undo', 'early', 'bad-look'),
      fc.nat({ max: 999 }),
      fc.nat({ max: 999 }),
    );
    fc.assert(
      fc.property(
        fc.array(meddle, { minLength: 1, maxLength: 8 }),
        fc.nat({ max: 99_999 }),
        (deeds, seed) => {
          const random = seeded(seed);
          let events: RunEvent[] = [];
          let time = Date.parse('2026-11-23T08:00:00.000Z');
          const push = (event: Made) => {
            time += 4_000;
            const whole = { id: uuidFrom(random), at: new Date(time).toISOString(), ...event } as RunEvent;
            if (!admitEvent(ctx.procedure, reduce(events), whole, events)) events = [...events, whole];
          };
          const items = ctx.procedure.steps.flatMap(({ items: all }) => all);
          const goOn = (until?: string) => {
            const more = rehearse(family, ctx, truthOf(), {
              random,
              startAt: new Date(time).toISOString(),
              from: events,
              until,
            });
            events = [...events, ...more.filter(({ type }) => type !== 'finished')];
            time = Math.max(time, Date.parse(events.at(-1)?.at ?? '') || time);
          };
          for (const [what, where, which] of deeds) {
            const item = items[where % items.length]!;
            goOn(item.id);
            const captures = reduce(events).captures.filter(({ struck }) => !struck);
            const some = captures[which % Math.max(1, captures.length)];
            const step = ctx.procedure.steps[which % ctx.procedure.steps.length]!;
            if (what === 'strike' && some) push({ type: 'struck', capture: some.id });
            if (what === 'reopen') push({ type: 'reopened', item: items[which % items.length]!.id });
            if (what === 'undo') for (const event of takeBackLast(events)) push(event as Made);
            if (what === 'skip') push({ type: 'skipped', step: step.id, item: null, reason: 'No time' });
            if (what === 'early') {
              const waits = items.filter(({ kind: of }) => of === 'wait');
              // Not every test has a wait.
              if (waits.length > 0)
                push({ type: 'wait-ended', item: waits[which % waits.length]!.id, early: true });
            }
            if (what === 'bad-look' && item.kind === 'observation')
              push({ type: 'observed', item: item.id, answer: item.answers[1].id, note: '' });
          }
          goOn();
          const state = reduce(events);
          expect(nextAction(ctx.procedure, state).kind).toBe('finish');
          for (const { why } of namedGaps(ctx, { ...state, finished: true }, family.results(ctx, state)))
            expect(why).not.toBe('Could not be worked out from what was read');
        },
      ),
      { numRuns: 40, seed: 8 },
    );
  },
);
