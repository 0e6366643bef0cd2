import { FAMILIES } from '../families/registry';
import { stepsToRepeat, workload, type Workload } from '../procedure/retest';
import type { Part } from '../twin/family';
import type { Noted, JobRecord } from './job-record';
import type { Work } from './entries';
import type { StoredRun } from './views';

/** What has to be tested again since parts were changed, and why. */
export interface Retest extends Workload {
  /** The finished run whose other readings still count. */
  readonly run: StoredRun;
  readonly stepIds: readonly string[];
  readonly rezero: boolean;
  /** What made readings stale, in words. */
  readonly why: string;
}

/** Work that can have moved a reading: a part refused was not touched. */
export const disturbs = ({ what, withdrawn }: Noted<Work>) => !withdrawn && what.did !== 'refused';

/** The part or line that work was done on; null where the family does not know it. */
export const partOf = (kind: StoredRun['kind'], work: Work): Part | null =>
  FAMILIES[kind].parts.find(({ id }) => id === work.part) ?? null;

/**
 * The shortest re-test that restores a full verdict after the last finished run: the steps that the work done since
 * can have affected, and what those need. Gauges are vented again on another day.
 *
 * @param day ISO date on which the re-test would be done
 * @returns null where nothing has become stale, or no run is finished
 */
export function retestOf(record: JobRecord, day: string): Retest | null {
  const run = record.runs.at(-1);
  if (!run?.finishedAt) return null;
  const since = record.work.filter((work) => disturbs(work) && work.at > run.finishedAt!);
  if (since.length === 0) return null;
  const parts = since.map(({ what }) => partOf(run.kind, what));
  const { procedure } = run.context;
  // Work on something the family does not know can have moved anything.
  const disturbed = parts.flatMap((part) => part?.disturbs ?? procedure.steps.map(({ id }) => id));
  const rezero = day !== run.context.conditions.day || parts.some((part) => part?.kind === 'gauge');
  const stepIds = stepsToRepeat(procedure, disturbed, rezero);
  const why = since.map(({ what }, i) => parts[i]?.name ?? what.part).join(', ');
  return { run, stepIds, rezero, why, ...workload(procedure, stepIds) };
}
