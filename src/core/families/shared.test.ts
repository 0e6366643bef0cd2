import { EMPTY_RUN } from '../procedure/run';
import { contextWith, INHG, truthWith, bench } from '../scenarios/bench';
import { printSentence } from '../quantities/sentence';
import { notTaken, type Result } from '../contract/result';
import { assessBy, assessRun } from './assess-run';
import { fluidAfter, fluidLook, gauged, look, readingOn, stoppingAt, zeroItems } from './bench-items';
import { safeItems } from './making-safe';
import { lossRate } from './loss-rate';
import { limit } from './profile-fields';
import { supplyHealth } from './supply-health';
import { FAMILIES } from './registry';

const result = (id: string, verdict: Result['verdict'], more: Partial<Result> = {}): Result => ({
  ...notTaken({ id, name: `The ${id}`, step: 'step', item: null, about: 'unit', quantity: 'ratio' }),
  verdict,
  ...more,
});
const words = (of: {
  reasons: Parameters<typeof printSentence>[0][] | readonly Parameters<typeof printSentence>[0][];
}) => of.reasons.map((reason) => printSentence(reason, 'mixed')).join(' ');
const NONE = { supply: [], decisive: ['ratio'], excused: [] };

describe('a run in plain words', () => {
  const weak = result('need', 'fails', { about: 'supply' });
  test('one failure of the unit makes it faulty, whatever else is open', () => {
    const found = assessRun(
      [result('ratio', 'fails'), result('crack', 'close'), result('hold', 'not-taken')],
      NONE,
    );
    expect(found.call).toBe('faulty');
    expect(words(found)).toMatch(
      /Outside its limits: the ratio\. Too close to call: the crack\. Not taken: the hold\./,
    );
  });
  test('a failure that something else explains is no finding against it', () => {
    const results = [result('ratio', 'meets'), result('lag', 'fails'), weak];
    expect(assessRun(results, NONE).call).toBe('faulty');
    expect(assessRun(results, { ...NONE, excused: ['lag'] }).call).toBe('weak-supply');
  });
  test('too close to call is settled before anything is called healthy', () => {
    expect(assessRun([result('ratio', 'meets'), result('crack', 'close')], NONE).call).toBe('open');
  });
  test('a weak supply is told from a weak unit only by what decides it', () => {
    expect(assessRun([weak, result('ratio', 'not-taken')], NONE).call).toBe('incomplete');
    expect(assessRun([weak, result('ratio', 'meets'), result('hold', 'not-taken')], NONE).call).toBe(
      'weak-supply',
    );
  });
  test('not complete is said as far as it goes; complete and met is met, and nothing more is claimed', () => {
    expect(assessRun([result('ratio', 'not-taken')], NONE).headline).toBe('Nothing judged yet');
    expect(assessRun([result('ratio', 'meets'), result('hold', 'not-taken')], NONE).headline).toBe(
      'So far within limits, not complete',
    );
    expect(assessRun([result('ratio', 'meets')], NONE).headline).toBe('The unit met every limit tested');
  });
  test('what falls short is said with what it should be, and not where either is missing', () => {
    const short = { ...weak, value: 15 * INHG, u: 0.1 * INHG, limits: { low: 16 * INHG } };
    const rules = {
      room: 'rest.supply',
      decisive: [],
      excuses: {},
      shortfalls: { need: { words: 'It reads {value}, not {low}.' } },
    };
    const said = (of: Result) =>
      words(
        assessBy(FAMILIES['remote-vacuum'], rules, contextWith(), EMPTY_RUN, [of, result('ratio', 'meets')]),
      );
    expect(said(short)).toBe('It reads 15.00 ± 0.20 inHg, not 16.0 inHg.');
    expect(said({ ...short, limits: null })).toBe('');
    expect(said({ ...short, value: null })).toBe('');
    expect(said({ ...short, id: 'supply-health' })).toMatch(
      /^The supply would make 15.00 ± 0.20 inHg at sea level/,
    );
  });
});

describe('items of a bench test', () => {
  const { ports } = FAMILIES['rod-servo'];
  test('a reading has the quantity of its port; on a port with nothing to read it is a mistake', () => {
    expect(readingOn(ports, 'a', 'output', 'output', 'Read.')).toMatchObject({ quantity: 'force' });
    expect(() => readingOn(ports, 'a', 'nowhere', 'output', 'Read.')).toThrow('nothing is read on “nowhere”');
  });
  test('every gauge is vented and made safe by reading; a stopwatch has no zero', () => {
    const rig = benchRig();
    expect(gauged(ports).map(({ id }) => id)).toEqual(['input', 'output', 'supply']);
    expect(zeroItems(ports, rig).map(({ gauge }) => gauge)).toEqual(['FL-1', 'LC-1', 'VAC-S']);
    const safe = safeItems(ports, rig);
    expect(safe.map(({ id }) => id)).toEqual(['safe.input', 'safe.output', 'safe.supply']);
    for (const item of safe) expect(item).toMatchObject({ gate: 'zero', measures: 'zero' });
  });
  test('where no gauge can be fitted, two looks that nobody gets past show that nothing is left', () => {
    const looks = safeItems(ports, {});
    // A force stands nowhere once its pressure is gone.
    expect(looks.map(({ id }) => id)).toEqual([
      'safe.input.spent',
      'safe.input.flow',
      'safe.supply.spent',
      'safe.supply.flow',
    ]);
    for (const item of looks) {
      if (item.kind !== 'observation') throw new Error('not a look');
      expect(item.answers.slice(1).map(({ stops }) => stops?.goesOn)).toEqual(['mended', 'mended']);
    }
    expect(looks[0]).toMatchObject({ prompt: expect.stringMatching(/isolated.*40 times/) as string });
    expect(looks[1]).toMatchObject({ prompt: expect.stringMatching(/closed hose.*stopped/) as string });
  });
  test('what is looked at can always be answered with “could not look”', () => {
    const looks = [
      look('a', 'A', 'A?', 'Good', ['bad', 'Bad']),
      fluidLook('dot5'),
      ...fluidAfter('dot4', 'Hoses'),
    ];
    for (const item of looks) {
      if (item.kind !== 'observation') throw new Error('not a look');
      expect(item.answers.map(({ finds }) => finds)).toEqual(['good', 'bad', 'unknown']);
    }
    expect(fluidLook('dot5').prompt).toContain('DOT 5 (silicone)');
  });
  test('the proof limit stands wherever the input is set, and nowhere else', () => {
    const step = {
      id: 's',
      title: 's',
      instruction: '',
      cautions: [],
      state: { vacuum: 'off' as const },
      needs: [],
      items: [
        readingOn(ports, 'a', 'input', 'input', 'Set.'),
        readingOn(ports, 'b', 'input', 'zero', 'Vented.'),
        readingOn(ports, 'c', 'output', 'output', 'Read.'),
      ],
    };
    expect(stoppingAt(step, 6e6).items.map((item) => item.kind === 'reading' && item.stopAt_Pa)).toEqual([
      6e6,
      undefined,
      undefined,
    ]);
  });
});

function benchRig() {
  const gauge = (tag: string, quantity: 'pressure' | 'force' | 'depression' | 'duration') => ({
    ...contextWith().shelf[0]!,
    tag,
    quantity,
  });
  return {
    input: [gauge('FL-1', 'pressure')],
    output: [gauge('LC-1', 'force')],
    supply: [gauge('VAC-S', 'depression')],
    clock: [gauge('SW-1', 'duration')],
  };
}

describe('loss over a wait, and the supply’s health', () => {
  const { context, run } = bench(truthWith());
  const [start, end] = ['loss-released.start', 'loss-released.end'].map((id) =>
    run.captures.find(({ item }) => item === id)!,
  );
  const read = (capture: typeof start, value_SI: number) => ({
    value_SI,
    instrument: contextWith().rig.supply![0]!,
    count: 1,
    scatter_SI: 0,
    zeroed: true,
    captures: [capture!],
  });
  const head = {
    id: 'loss',
    name: 'Loss',
    step: 'loss-released',
    item: null,
    about: 'unit',
    quantity: 'depressionRate',
  } as const;
  const LIMIT = { value: INHG / 60, source: 'x' };
  const seconds = (Date.parse(end!.at) - Date.parse(start!.at)) / 1000;
  test('is counted by the clock of the captures: 0.5 inHg over their time', () => {
    const found = lossRate(context, read(start, 20 * INHG), read(end, 19.5 * INHG), head, LIMIT, 60);
    expect(found.value).toBeCloseTo((0.5 * INHG) / seconds, 6);
    expect(found.notes).toEqual([]);
  });
  test('a wait cut short says so; two readings at one moment tell nothing', () => {
    const short = lossRate(context, read(start, 20 * INHG), read(end, 19.5 * INHG), head, LIMIT, 600);
    expect(printSentence(short.notes[0]!, 'mixed')).toMatch(/^Held \d+ s instead of 600 s/);
    const none = lossRate(context, read(start, 20 * INHG), read(start, 19 * INHG), head, LIMIT, 60);
    expect(none.verdict).toBe('not-taken');
    expect(lossRate(context, null, read(end, 19 * INHG), head, LIMIT, 60).verdict).toBe('not-taken');
  });
  const AT_SUPPLY = { step: 'supply-on', item: 'rest.supply' };
  test('a pump at 1 600 m that makes 14.8 inHg is as good as one that makes 18 at the sea: 18·24.66/29.92', () => {
    const high = { ...context, conditions: { ...context.conditions, barometer_Pa: 83_510 } };
    const found = supplyHealth(high, EMPTY_RUN, read(start, 14.84 * INHG), AT_SUPPLY);
    expect(found.value! / INHG).toBeCloseTo(18, 1);
    expect(supplyHealth(high, EMPTY_RUN, null, AT_SUPPLY).verdict).toBe('not-taken');
    const dead = supplyHealth(high, EMPTY_RUN, read(start, 0.1 * INHG), AT_SUPPLY);
    expect([dead.verdict, dead.value]).toEqual(['not-taken', null]);
    expect(dead.notes[0]!.text).toMatch(/no health to refer/);
  });
  test('a limit without a source is refused', () => {
    const parsed = limit('Residual', 'pressure', 0, 1e6).safeParse({ value: 1e4, source: ' ' });
    expect(parsed.error?.issues[0]?.message).toBe('Residual: say where the limit comes from.');
  });
});
