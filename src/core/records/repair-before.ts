import type { RunContext } from '../contract/run-context';
import type { RunState } from '../contract/run-state';
import { contextWith } from '../procedure/exchange';
import type { JobRecord } from './job-record';
import { stateOf } from './judged-run';
import { disturbs, partOf } from './staleness';
import type { StoredRun } from './views';

/** A test before a repair, and what was repaired. */
export interface RepairBefore {
  readonly context: RunContext<unknown>;
  readonly run: RunState;
  /** Parts and lines of the family that were changed, opened or moved in between. */
  readonly parts: readonly string[];
}

/**
 * What was repaired between two tests of a job, and what the first of them had found. Work on a gauge, on something that the family
 * does not know, or that was taken back, is none.
 *
 * @returns null where nothing was repaired in between
 */
export function repairBetween(
  { work }: Pick<JobRecord, 'work'>,
  before: StoredRun,
  after: Pick<StoredRun, 'startedAt'>,
): RepairBefore | null {
  const from = before.finishedAt;
  if (from === null) return null;
  const parts = work.flatMap((noted) => {
    const part =
      noted.at >= from && noted.at <= after.startedAt && disturbs(noted)
        ? partOf(before.kind, noted.what)
        : null;
    return part && part.kind !== 'gauge' ? [part.id] : [];
  });
  if (parts.length === 0) return null;
  return {
    context: contextWith(before.context, before.events),
    run: stateOf(before),
    parts: [...new Set(parts)],
  };
}

/** The same for a run of a job and the last test finished before it. */
export function repairBefore(record: Pick<JobRecord, 'work' | 'runs'>, runId: string): RepairBefore | null {
  const at = record.runs.findIndex(({ id }) => id === runId);
  const run = record.runs[at];
  const before = record.runs.slice(0, Math.max(0, at)).findLast(({ finishedAt }) => finishedAt !== null);
  return run && before && before.kind === run.kind ? repairBetween(record, before, run) : null;
}
