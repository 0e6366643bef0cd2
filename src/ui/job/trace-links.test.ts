import type { TraceRecord } from '@/core/records/trace-record';
import type { Stored } from '@/core/records/views';
import { earlierOf } from './trace-links';

const trace = (id: string, name: string, minute: number, runId: string | null): Stored<TraceRecord> => ({
  id,
  version: 1,
  body: {
    name,
    source: runId ? 'bench' : 'file',
    madeAt: `2026-11-23T15:${String(minute).padStart(2, '0')}:00.000Z`,
    rows: 0,
    duration_s: 0,
    channels: [],
    sha256: '0'.repeat(64),
    layout: null,
    troubles: [],
    troubleCount: 0,
    profileId: null,
    jobId: null,
    runId,
    notes: [],
  },
});

describe('the trace before a repair', () => {
  const all = [
    trace('a', 'GF-1: Boost ratio', 1, 'first'),
    trace('b', 'GF-1: Release', 2, 'first'),
    trace('c', 'from a van', 3, null),
    trace('d', 'GF-1: Boost ratio', 4, 'second'),
    trace('e', 'from a van again', 5, null),
    trace('f', 'GF-1: Boost ratio', 6, 'third'),
  ];
  const before = (id: string) =>
    earlierOf(
      all.find((one) => one.id === id)!,
      all,
    )?.id ?? null;
  test('of a step is the last one of that step made earlier', () =>
    expect(['a', 'd', 'f'].map(before)).toEqual([null, 'a', 'd']));
  test('of a file is the file before it, and of a step done once there is none', () =>
    expect(['c', 'e', 'b'].map(before)).toEqual([null, 'c', null]));
});
