import fc from 'fast-check';
import { gauged as gaugedOf } from '../families/bench-items';
import { closingStep } from '../families/closing';
import type { SourceId } from '../contract/sources';
import { FAMILIES, FAMILY_KINDS, type FamilyKind } from '../families/registry';
import { runRefusalSentence } from '../procedure/admission';
import { nextAction } from '../procedure/next-action';
import { takeBackLast } from '../procedure/taking-back';
import { RIGS } from './bench';
import { runOf } from './run-of';

/** What feeds each kind, how it says that it does, and what is said of it once its source is off and it is charged still. */
const FEEDS: Record<
  FamilyKind,
  { source: SourceId; on: string; off?: string; said: string; still?: string }
> = {
  'remote-vacuum': { source: 'vacuum', on: 'on', said: 'Vacuum is on' },
  'rod-servo': { source: 'vacuum', on: 'on', said: 'Vacuum is on' },
  'pedal-vacuum': { source: 'vacuum', on: 'on', said: 'Vacuum is on' },
  'pedal-valve': { source: 'pump', on: 'on', said: 'Pump is on', still: 'It is charged' },
  'hydraulic-booster': { source: 'pump', on: 'on', said: 'Pump is on' },
  'motor-pump-booster': { source: 'power', on: 'on', off: 'isolated', said: 'Power is on' },
  'motor-pump-vehicle': { source: 'power', on: 'on', off: 'isolated', said: 'Power is on' },
  'hydraulic-vehicle': { source: 'engine', on: 'idle', said: 'Engine idles' },
  'stored-pressure': { source: 'pump', on: 'on', said: 'Pump is on' },
  'stored-pressure-vehicle': { source: 'engine', on: 'idle', said: 'Engine idles' },
  'pedal-valve-vehicle': { source: 'engine', on: 'idle', said: 'Engine idles', still: 'It is charged' },
  electromechanical: { source: 'power', on: 'on', off: 'isolated', said: 'Power is on' },
  'electromechanical-vehicle': { source: 'power', on: 'on', off: 'isolated', said: 'Power is on' },
  'by-wire-vehicle': { source: 'power', on: 'on', off: 'isolated', said: 'Power is on' },
  'vacuum-vehicle': { source: 'engine', on: 'idle', said: 'Engine idles' },
};

describe.each(FAMILY_KINDS)('%s: no line is opened because somebody believes it empty', (kind) => {
  const { ports, parts } = FAMILIES[kind];
  // Where no gauge can stand, two looks take its place: those have a test of their own.
  const gauged = gaugedOf(ports).filter(({ id }) => id in RIGS[kind]);
  const { source, on, off = 'off', said, still } = FEEDS[kind];

  test('nothing was put on yet: nothing holds anything', () => {
    const run = runOf(kind);
    expect(run.open(gauged.map(({ id }) => id))).toBeNull();
  });
  test('the source off is not enough: every gauge is read at zero first, and then it is', () => {
    const run = runOf(kind);
    // All is done but making safe: the tank of a servo is still full behind its non-return valve.
    run.upTo(`safe.${gauged[0]!.id}`);
    expect(run.state().sources[source]).toBe(off);
    const all = gauged.map(({ id }) => id);
    // Where it is known to be charged still, that is said first.
    expect(run.open(all)).toEqual(
      still ? { code: 'live-source', said: [still] } : { code: 'may-hold', ports: all },
    );
    run.doStep('make-safe');
    expect(run.open(all)).toBeNull();
  });
  test('the server’s own opening brings the step that closes it, and the run does not end before that', () => {
    const run = runOf(kind);
    run.upTo(`safe.${gauged[0]!.id}`);
    run.doStep('make-safe');
    const part = parts.find(({ opens }) => opens.length > 0);
    const closing = closingStep(run.procedure(), 'dot4', [part!], 1)!;
    expect(run.open(part!.opens, ['zeros'])).toBeNull();
    expect(run.take({ type: 'added', ...closing })).toBeNull();
    expect(nextAction(run.procedure(), run.state())).toMatchObject({ step: { closing: true } });
    expect(run.take({ type: 'finished' })).toEqual({ code: 'not-safe' });
    expect(run.take({ type: 'ended', reason: 'no time' })).toBeNull();
    expect(nextAction(run.procedure(), run.state())).toMatchObject({ step: { closing: true } });
    expect(run.take({ type: 'skipped', step: closing.step.id, item: null, reason: 'x' })).toMatchObject({
      code: 'mandatory',
    });
    // That a line was opened is not taken back.
    expect(takeBackLast(run.events())).not.toContainEqual(
      expect.objectContaining({ event: run.events().find(({ type }) => type === 'added')!.id }),
    );
    // “Not looked yet” stops the run, where elsewhere it is an answer like any other.
    run.take({ type: 'acknowledged', step: closing.step.id });
    // What is stored is not known after a line was off: it is asked for first.
    const next = nextAction(run.procedure(), run.state());
    if (next.kind === 'source') run.take({ type: 'source-set', step: next.step.id, set: next.set });
    const [first] = closing.step.items;
    expect(run.take({ type: 'observed', item: first!.id, answer: 'not-looked', note: '' })).toBeNull();
    expect(nextAction(run.procedure(), run.state()).kind).toBe('stopped');
  });
  test('a zero read to make safe is worth nothing once a source is changed or pressure is read', () => {
    const run = runOf(kind);
    run.upTo(`safe.${gauged[0]!.id}`);
    run.doStep('make-safe');
    const all = gauged.map(({ id }) => id);
    const step = run.procedure().steps.find(({ state }) => state[source] === on)!;
    expect(run.take({ type: 'source-set', step: step.id, set: { source, to: on } })).toBeNull();
    expect(run.open(all)).toEqual({ code: 'live-source', said: [said] });
    expect(run.take({ type: 'source-set', step: step.id, set: { source, to: off } })).toBeNull();
    expect(run.open(all)).toMatchObject({ code: 'may-hold' });
    expect(run.take({ type: 'finished' })).toEqual({ code: 'not-safe' });
  });
  test('whatever is tried in whatever order, a line opens only after its gauge moved and stood at zero', () => {
    const { steps } = runOf(kind).procedure();
    const choice = fc.oneof(
      fc.record({ do: fc.constant('chosen' as const), step: fc.constantFrom(...steps.map(({ id }) => id)) }),
      fc.record({ do: fc.constant('next' as const), times: fc.integer({ min: 1, max: 40 }) }),
      fc.record({
        do: fc.constant('source' as const),
        to: fc.constantFrom(on, off),
      }),
      fc.record({ do: fc.constant('open' as const), port: fc.constantFrom(...gauged.map(({ id }) => id)) }),
    );
    let opened = 0;
    let refused = 0;
    fc.assert(
      fc.property(fc.array(choice, { minLength: 8, maxLength: 30 }), (choices) => {
        const run = runOf(kind);
        let dirty = new Set<string>();
        for (const one of choices) {
          const before = run.events().length;
          if (one.do === 'chosen') run.take({ type: 'chosen', step: one.step });
          if (one.do === 'source')
            run.take({ type: 'source-set', step: steps[0]!.id, set: { source, to: one.to } });
          if (one.do === 'next') for (let i = 0; i < one.times; i += 1) stepOn(run);
          // What the events themselves say may hold something, counted apart from the state.
          for (const event of run.events().slice(before)) {
            const item = steps
              .flatMap(({ items }) => items)
              .find(({ id }) => 'item' in event && id === event.item);
            if (event.type === 'source-set' && event.set.to === on)
              dirty = new Set([
                ...dirty,
                ...gauged.filter((p) => p.quantity !== 'pressure').map(({ id }) => id),
              ]);
            if (event.type === 'captured' && item?.kind === 'reading' && item.measures !== 'zero')
              if (item.quantity === 'pressure')
                dirty = new Set([
                  ...dirty,
                  ...gauged.filter((p) => p.quantity === 'pressure').map(({ id }) => id),
                ]);
          }
          if (one.do !== 'open') continue;
          if (run.open([one.port])) {
            refused += 1;
            continue;
          }
          opened += 1;
          if (!dirty.has(one.port)) continue;
          // The last thing read on this port was a zero, in the step that makes safe, and nothing came after it.
          const past = run.events().slice(0, -1);
          const last = past.findLastIndex(
            (event) => event.type === 'captured' && event.item === `safe.${one.port}`,
          );
          expect(last).toBeGreaterThanOrEqual(0);
          expect((past[last] as { value_SI: number }).value_SI).toBe(0);
          for (const event of past.slice(last + 1)) {
            expect(event.type).not.toBe('source-set');
            if (event.type === 'captured') expect(event.item).toMatch(/^(safe|zero)\./);
          }
          dirty.delete(one.port);
        }
      }),
      { numRuns: 60, seed: 911 },
    );
    // Both happened, or nothing was tried.
    expect(Math.min(opened, refused)).toBeGreaterThan(10);
  });

  function stepOn(run: ReturnType<typeof runOf>) {
    const action = nextAction(run.procedure(), run.state());
    if (!('step' in action)) return;
    if (action.kind === 'acknowledge') run.take({ type: 'acknowledged', step: action.step.id });
    if (action.kind === 'source') run.take({ type: 'source-set', step: action.step.id, set: action.set });
    if (action.kind !== 'item') return;
    const { item, step } = action;
    if (item.kind === 'wait') run.take({ type: 'skipped', step: step.id, item: item.id, reason: 'short' });
    if (item.kind === 'observation')
      run.take({ type: 'observed', item: item.id, answer: item.answers[0].id, note: '' });
    if (item.kind !== 'reading') return;
    const high = run.rig[item.port]!.at(-1)!;
    const value_SI = item.measures === 'zero' ? 0 : 0.4 * high.fullScale_Pa;
    run.take({
      type: 'captured',
      item: item.id,
      value_SI,
      typed: '1',
      by: 'typed',
      instrument: item.gauge ?? high.tag,
      confirmedUnlikely: false,
    });
  }
});

describe('steps in any order that is safe', () => {
  const chosen = (run: ReturnType<typeof runOf>, step: string) => run.take({ type: 'chosen', step });
  test('a step is chosen where what it needs is done, and the usual order goes on behind it', () => {
    const run = runOf('remote-vacuum');
    expect(chosen(run, 'hold')).toMatchObject({ code: 'needs' });
    run.upTo('ratio.1.input');
    expect(chosen(run, 'loss-released')).toBeNull();
    expect(nextAction(run.procedure(), run.state())).toMatchObject({
      kind: 'source',
      step: { id: 'loss-released' },
    });
    expect(runRefusalSentence({ code: 'needs', steps: ['Bypass, assist off'] })).toBe(
      'First comes: bypass, assist off.',
    );
    run.upTo('loss-released.end');
    // A wait that nothing may disturb: no pedal during a decay.
    expect(chosen(run, 'ratio')).toBeNull();
    run.upTo('ratio.1.output');
    expect(nextAction(run.procedure(), run.state())).toMatchObject({ step: { id: 'ratio' } });
  });
  test('while a wait runs, nothing else is done on the bench', () => {
    const run = runOf('rod-servo');
    run.upTo('static.wait');
    expect(nextAction(run.procedure(), run.state())).toMatchObject({ item: { id: 'static.wait' } });
    expect(chosen(run, 'dry')).toMatchObject({ code: 'waiting', step: 'Static: valve released' });
  });
  test('a reading without its source, its cautions or what comes before it is refused', () => {
    const run = runOf('remote-vacuum');
    const capture = (item: string) =>
      run.take({
        type: 'captured',
        item,
        value_SI: 20e5,
        typed: '20',
        by: 'typed',
        instrument: 'IN-H',
        confirmedUnlikely: false,
      });
    expect(capture('bypass.1.input')).toMatchObject({ code: 'needs' });
    run.upTo('rest.supply');
    expect(capture('bypass.1.input')).toMatchObject({ code: 'source', set: { source: 'vacuum', to: 'off' } });
    run.take({ type: 'source-set', step: 'release', set: { source: 'vacuum', to: 'on' } });
    expect(capture('rest.supply')).toEqual({ code: 'cautions', step: 'Supply on' });
  });
});

describe('what was chosen, and what waits', () => {
  test('a step that was chosen and done is not asked for again before its turn, though its zeros have lapsed', () => {
    const run = runOf('remote-vacuum');
    run.upTo('ratio.1.input');
    expect(run.take({ type: 'chosen', step: 'make-safe' })).toBeNull();
    run.doStep('make-safe');
    expect(nextAction(run.procedure(), run.state())).toMatchObject({
      kind: 'source',
      set: { source: 'vacuum', to: 'on' },
    });
    run.take({ type: 'source-set', step: 'ratio', set: { source: 'vacuum', to: 'on' } });
    expect(nextAction(run.procedure(), run.state())).toMatchObject({ step: { id: 'ratio' } });
  });
  test('a wait that runs comes before whatever was struck meanwhile, and a reading read again waits for it', () => {
    const run = runOf('remote-vacuum');
    run.upTo('hold.wait');
    const earlier = run.state().captures.find(({ item }) => item === 'ratio.2.output')!;
    expect(run.take({ type: 'struck', capture: earlier.id })).toBeNull();
    expect(nextAction(run.procedure(), run.state())).toMatchObject({ item: { id: 'hold.wait' } });
    expect(run.take({ type: 'reopened', item: 'ratio.3.output' })).toBeNull();
    expect(nextAction(run.procedure(), run.state())).toMatchObject({ item: { id: 'hold.wait' } });
    const again = run.take({
      type: 'captured',
      item: 'ratio.3.output',
      value_SI: 72e5,
      typed: '72',
      by: 'typed',
      instrument: 'OUT-H',
      confirmedUnlikely: false,
    });
    expect(again).toMatchObject({ code: 'waiting', step: 'Hold under pressure' });
  });
});

test('where no gauge can stand, a line opens only once it was looked at that what is stored is used up and let out', () => {
  const run = runOf('hydraulic-vehicle');
  run.upTo('safe.front');
  expect(run.open(['accumulator'])).toMatchObject({ code: 'may-hold', ports: ['accumulator'] });
  run.doStep('make-safe');
  expect(run.open(['accumulator'])).toBeNull();
});
