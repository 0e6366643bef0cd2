import { FAMILIES } from '../families/registry';
import { benchOf } from '../scenarios/bench';
import { repairBefore, repairBetween } from './repair-before';
import type { JobRecord } from './job-record';
import type { StoredRun } from './views';

const context = benchOf('remote-vacuum').contextWith();
const test1 = {
  id: 'first',
  kind: 'remote-vacuum',
  context,
  events: [],
  startedAt: '2026-11-23T08:00:00.000Z',
  finishedAt: '2026-11-23T10:00:00.000Z',
} as unknown as StoredRun;
const test2 = {
  ...test1,
  id: 'second',
  startedAt: '2026-11-24T08:00:00.000Z',
  finishedAt: null,
} as StoredRun;

const work = (part: string, at: string, did = 'replaced', withdrawn = false) =>
  ({
    id: part + at,
    place: 1,
    at,
    withdrawn,
    what: { part, did, reason: '', provenance: 'new', serial: '' },
  }) as never;
const between = (...done: JobRecord['work'][number][]) =>
  repairBetween({ work: done }, test1, test2)?.parts ?? null;
const named = (kind: 'part' | 'line' | 'gauge') =>
  FAMILIES['remote-vacuum'].parts.filter((one) => one.kind === kind).map(({ id }) => id);
const [PART, OTHER] = named('part') as [string, string];
const [LINE] = named('line') as [string];
const [GAUGE] = named('gauge') as [string];

describe('what was repaired between two tests', () => {
  test('parts and lines that were changed, opened or moved, each once, from the end of one to the beginning of the other', () => {
    expect(
      between(
        work(PART, test1.finishedAt!),
        work(PART, '2026-11-23T12:00:00.000Z'),
        work(LINE, test2.startedAt, 'opened'),
      ),
    ).toEqual([PART, LINE]);
  });
  test.each([
    ['before the first was over', work(PART, '2026-11-23T09:59:59.999Z')],
    ['after the second began', work(PART, '2026-11-24T08:00:00.001Z')],
    ['taken back', work(PART, '2026-11-23T12:00:00.000Z', 'replaced', true)],
    ['refused', work(PART, '2026-11-23T12:00:00.000Z', 'refused')],
    ['on a gauge', work(GAUGE, '2026-11-23T12:00:00.000Z')],
    ['on something that the family does not know', work('flux-capacitor', '2026-11-23T12:00:00.000Z')],
  ])('nothing, where work was %s', (_, one) => expect(between(one)).toBeNull());
  test('nothing, behind a test that is not finished', () =>
    expect(repairBetween({ work: [work(PART, '2026-11-23T12:00:00.000Z')] }, test2, test1)).toBeNull());
});

describe('the repair before a run', () => {
  const record = (runs: readonly StoredRun[]) => ({ runs, work: [work(OTHER, '2026-11-23T12:00:00.000Z')] });
  test('is behind the last test that was finished before it', () => {
    const open = { ...test2, id: 'open' } as StoredRun;
    expect(repairBefore(record([test1, open, test2]), 'second')?.parts).toEqual([OTHER]);
  });
  test('is none before the first, of another kind, or of a run that is not there', () => {
    expect(repairBefore(record([test1, test2]), 'first')).toBeNull();
    expect(repairBefore(record([{ ...test1, kind: 'rod-servo' } as StoredRun, test2]), 'second')).toBeNull();
    expect(repairBefore(record([test1]), 'third')).toBeNull();
  });
});
