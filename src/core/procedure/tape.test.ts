import { printSentence } from '../quantities/sentence';
import { bench, BAR, contextWith, family, INHG, truthWith } from '../scenarios/bench';
import { waitOf } from '../shop/waits';
import type { StoredRun } from '../records/views';
import type { RunEvent } from '../contract/events';
import { contradiction, liveState, missingNeeds, progress } from './live';
import { instrumentsOf, gateRule } from './measured-item';
import { EMPTY_RUN, reduceRun } from './run';
import { tapedAt, tapeOf } from './tape';

const context = contextWith();
const { procedure } = context;
const gate = gateRule(instrumentsOf(context.rig));
const { events } = bench(truthWith());
const upTo = (itemId: string) =>
  events.slice(
    0,
    events.findIndex((e) => 'item' in e && e.item === itemId),
  );
const stateOf = (list: readonly RunEvent[]) => reduceRun(procedure, list, gate);
const tape = (list: readonly RunEvent[]) => tapeOf(procedure, stateOf(list), list);

describe('the tape', () => {
  test('has a line for everything that happened, in order, under its step', () => {
    const lines = tape(events);
    const titles = lines.flatMap((line) => (line.kind === 'step' ? [line.title] : []));
    expect(titles).toEqual(procedure.steps.map(({ title }) => title));
    const readings = lines.flatMap((line) => (line.kind === 'reading' ? [line.capture.item] : []));
    expect(readings).toEqual(events.flatMap((e) => (e.type === 'captured' ? [e.item] : [])));
    expect(lines.filter(({ kind }) => kind === 'look')).toHaveLength(
      events.filter((e) => e.type === 'observed').length,
    );
  });
  test('what was logged stands where its step ended, wherever that is', () => {
    const place = (step: string) => tapedAt(procedure, events, step);
    expect(place('never begun').events).toBe(events.length);
    const lines = tapeOf(procedure, stateOf(events), events, [
      { id: 'late', ...place(procedure.steps.at(-1)!.id) },
      { id: 'bypass', ...place('bypass') },
    ]);
    const at = lines.findIndex(({ kind }) => kind === 'logged');
    expect(lines[at]).toEqual({ kind: 'logged', id: 'bypass' });
    const headings = lines.slice(0, at).flatMap((line) => (line.kind === 'step' ? [line.title] : []));
    expect(headings.at(-1)).toBe('Bypass, assist off');
    expect(lines.at(-1)).toEqual({ kind: 'logged', id: 'late' });
    const others = lines.filter(({ kind }) => kind !== 'logged');
    expect(others.map(({ kind }) => kind)).toEqual(tape(events).map(({ kind }) => kind));
  });
  test('keeps a struck reading, marked', () => {
    const list = upTo('bypass.2.input');
    const last = list.findLast((e) => e.type === 'captured')!;
    const struck: RunEvent = {
      id: '00000000-0000-4000-8000-00000000aaaa',
      at: last.at,
      type: 'struck',
      capture: last.id,
    };
    const line = tape([...list, struck]).find((l) => l.id === last.id);
    expect(line).toMatchObject({ kind: 'reading', capture: { struck: true } });
  });
  test('a clock that was set back is a mark across the tape, before the first that was done by it', () => {
    const list = upTo('bypass.2.input');
    const at = new Date(Date.parse(list.at(-1)!.at) - 3600_000).toISOString();
    const later: RunEvent = { ...list.at(-1)!, id: '00000000-0000-4000-8000-00000000aaaa', at };
    const lines = tape([...list, later]);
    expect(lines.at(-2)).toMatchObject({
      kind: 'clock',
      words: expect.stringMatching(/by 1 h 0 min/) as string,
    });
    expect(lines.at(-1)!.id).toBe(later.id);
    expect(tape(list).some(({ kind }) => kind === 'clock')).toBe(false);
  });
  test('a wait says how long it really was', () => {
    const waits = tape(events).flatMap((line) =>
      line.kind === 'wait' ? [[line.prompt, Math.round(line.seconds)]] : [],
    );
    expect(waits).toEqual([
      ['Settling', 10],
      ['Holding', 60],
      ['Input fully released', 5],
      ['Vacuum shut in', 60],
      ['Vacuum shut in', 60],
    ]);
  });
  test('a skip gives its reason, a whole step by its title', () => {
    const skip: RunEvent = {
      id: '00000000-0000-4000-8000-00000000bbbb',
      at: '2026-11-23T09:00:00.000Z',
      type: 'skipped',
      step: 'seep-low',
      item: null,
      reason: 'No light',
    };
    expect(tape([...upTo('seep-low.bleed-screw'), skip]).at(-1)).toMatchObject({
      kind: 'skip',
      what: 'Seep look',
      reason: 'No light',
    });
  });
});

describe('what is live', () => {
  test('nothing, before anything happened', () => {
    expect(liveState(procedure, EMPTY_RUN)).toEqual({
      sources: { vacuum: 'off' },
      supply_Pa: null,
      input: 'released',
      inputPort: 'input',
      inputQuantity: 'pressure',
      supplyQuantity: 'depression',
      mayStand: false,
      spent: false,
    });
  });
  test('an input that was set stays applied until a step leaves it released', () => {
    const during = liveState(procedure, stateOf(upTo('bypass.3.input')));
    expect(during.input).toBeCloseTo(45 * BAR, -5);
    expect(liveState(procedure, stateOf(upTo('seep-low.bleed-screw'))).input).toBe('released');
  });
  test('the supply is shown while it is on, and not after it is shut', () => {
    const on = liveState(procedure, stateOf(upTo('ratio.1.input')));
    expect(on.sources.vacuum).toBe('on');
    expect(on.supply_Pa! / INHG).toBeCloseTo(20, 6);
    expect(liveState(procedure, stateOf(upTo('loss-released.start'))).supply_Pa).toBeNull();
    // Behind the closed valve the unit still holds its vacuum: that is live until it is vented and read at zero.
    const shutIn = liveState(procedure, stateOf(upTo('loss-released.wait')));
    expect(shutIn.sources.vacuum).toBe('off');
    expect(shutIn.supply_Pa! / INHG).toBeCloseTo(20, 6);
  });
  test('a unit under hold pressure is live; made safe, nothing is', () => {
    expect(liveState(procedure, stateOf(upTo('hold.end'))).input).toBeCloseTo(22 * BAR, -5);
    expect(liveState(procedure, stateOf(events))).toEqual({
      sources: { vacuum: 'off' },
      supply_Pa: null,
      input: 'released',
      inputPort: 'input',
      inputQuantity: 'pressure',
      supplyQuantity: 'depression',
      mayStand: false,
      spent: true,
    });
  });
  describe('and where the bench contradicts it', () => {
    const on = liveState(procedure, stateOf(upTo('ratio.1.input')));
    const off = liveState(procedure, stateOf(upTo('bypass.2.input')));
    const said = (live: typeof on, inHg: number | null) => {
      const supply = inHg === null ? undefined : { value: inHg * INHG, settled: true, step: 100 };
      const words = contradiction(live, supply ? { supply } : {});
      return words && printSentence(words, 'mixed');
    };
    test('a supply that is on and gone is said, with both figures', () => {
      expect(said(on, 0)).toMatch(
        /has the vacuum on, last read at 20\.\d+ inHg; the gauge shows 0\.00? inHg/,
      );
    });
    test('a vacuum that is off and still there is said', () =>
      expect(said(off, 19.9)).toMatch(/has the vacuum off and vented; the gauge shows 19\.9\d* inHg/));
    test.each([
      ['a weaker supply is none', on, 15],
      ['nor is a vented one that is off', off, 0.2],
      [
        'nor a vacuum that the run has shut in',
        liveState(procedure, stateOf(upTo('loss-released.wait'))),
        19,
      ],
      ['nor what no gauge shows', on, null],
    ])('%s', (_name, live, inHg) => expect(said(live, inHg)).toBeNull());
  });
  test('what was read before lines were off says nothing of the bench now', () => {
    const disturbed: RunEvent = {
      id: '00000000-0000-4000-8000-0000000000dd',
      at: events.at(-1)!.at,
      type: 'disturbed',
      steps: ['cautions', 'make-safe'],
      rezero: false,
      why: 'Taken up again on another day',
    };
    const carried = events.filter(({ type }) => type !== 'finished');
    expect(liveState(procedure, stateOf([...carried, disturbed]))).toEqual({
      sources: { vacuum: 'off' },
      supply_Pa: null,
      input: 'released',
      inputPort: 'input',
      inputQuantity: 'pressure',
      supplyQuantity: 'depression',
      mayStand: false,
      spent: false,
    });
  });
  test('a loss test uses up the vacuum, and the next step charges again', () => {
    expect(liveState(procedure, stateOf(upTo('charge.input'))).spent).toBe(false);
    const shut = events.findIndex((e) => e.type === 'captured' && e.item === 'loss-released.end');
    expect(liveState(procedure, stateOf(events.slice(0, shut + 1))).spent).toBe(true);
  });
  test('a step that builds on a skipped one says which', () => {
    const ratio = procedure.steps.find(({ id }) => id === 'ratio')!;
    const skipped = {
      ...EMPTY_RUN,
      skipped: Object.fromEntries(
        procedure.steps.find(({ id }) => id === 'bypass')!.items.map(({ id }) => [id, 'no']),
      ),
    };
    expect(missingNeeds(procedure, skipped, ratio)).toEqual(['Bypass, assist off']);
    expect(missingNeeds(procedure, EMPTY_RUN, ratio)).toEqual([]);
  });
  test('progress counts items, and ends whole', () => {
    expect(progress(procedure, EMPTY_RUN).done).toBe(0);
    const { done, of } = progress(procedure, stateOf(events));
    expect(done).toBe(of);
  });
});

describe('a running wait', () => {
  const stored = (list: readonly RunEvent[]): StoredRun => ({
    id: 'r',
    jobId: 'j',
    kind: 'remote-vacuum',
    context,
    events: list,
    continues: null,
    startedAt: '',
    finishedAt: null,
    judged: null,
  });
  const wait = (list: readonly RunEvent[]) => waitOf(stored(list), stateOf(list), 'T-1');
  test('ends its planned time after the reading that began it', () => {
    const list = upTo('hold.wait');
    const start = list.findLast((e) => e.type === 'captured')!;
    const found = wait(list)!;
    expect(Date.parse(found.endsAt) - Date.parse(start.at)).toBe(60_000);
    expect(found).toMatchObject({ tag: 'T-1', prompt: 'Holding' });
  });
  test('is none before it is started, nor at a reading', () => {
    expect(wait(upTo('residual.wait'))).toBeNull();
    expect(wait(upTo('ratio.1.input'))).toBeNull();
  });
  test('the family has a wait for every hold', () => {
    expect(
      family
        .procedure(family.typical, context.rig)
        .steps.flatMap((s) => s.items)
        .filter((i) => i.kind === 'wait'),
    ).toHaveLength(5);
  });
});
