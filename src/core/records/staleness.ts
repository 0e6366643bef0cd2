import { FAMILIES } from '../families/registry';
import { closingStep } from '../families/closing';
import type { Settling } from '../contract/family';
import { stepsToRepeat, workload, type Workload } from '../procedure/retest';
import type { Part } from '../contract/family';
import type { Noted, JobRecord } from './job-record';
import type { Work } from './entries';
import type { StoredRun } from './views';

/** What has to be tested again since parts were changed, and why. */
export type Retest = Disturbance & Workload;

/** Work that can have moved a reading: a part refused was not touched. */
export const disturbs = ({ what, withdrawn }: Noted<Work>) => !withdrawn && what.did !== 'refused';

/** The part or line that work was done on; null where the family does not know it. */
export const partOf = (kind: StoredRun['kind'], work: Work): Part | null =>
  FAMILIES[kind].parts.find(({ id }) => id === work.part) ?? null;

/** Why some work cannot have been done on a unit of a profile; null where it can. */
export const impossible = ({ kind, body }: JobRecord['profile'], work: Work): string | null =>
  work.did === 'rebuilt' ? (partOf(kind, work)?.neverRebuilt?.(body) ?? null) : null;

/** What some work did to the readings of a run: the steps to be done again, and why. */
export interface Disturbance {
  readonly steps: string[];
  readonly rezero: boolean;
  readonly why: string;
  /** Ports of which a line was opened. */
  readonly opens: string[];
  /** What closes them again; null where nothing was opened. */
  readonly closing: Settling | null;
}

/**
 * The steps that some work can have affected, and what those need. The gauges are vented again on another day, and
 * where one was moved. Work on something the family does not know can have moved anything.
 *
 * @param day ISO date on which the steps would be done again
 * @returns null where the work moved no reading
 */
export function disturbance(run: StoredRun, work: readonly Noted<Work>[], day: string): Disturbance | null {
  const { procedure, conditions } = run.context;
  const parts = work.filter(disturbs).map(({ what }) => ({ what, part: partOf(run.kind, what) }));
  if (parts.length === 0) return null;
  const disturbed = parts.flatMap(({ part }) => part?.disturbs ?? procedure.steps.map(({ id }) => id));
  const rezero = day !== conditions.day || parts.some(({ part }) => part?.kind === 'gauge');
  const steps = stepsToRepeat(procedure, disturbed, rezero);
  const gauged = Object.keys(run.context.rig);
  const opened = parts.map(({ what, part }) => part ?? { name: what.part, opens: gauged });
  return {
    steps,
    rezero,
    why: opened.map(({ name }) => name).join(', '),
    opens: [...new Set(opened.flatMap(({ opens }) => opens))],
    closing: closingStep(procedure, FAMILIES[run.kind].fluid(run.context.profile), opened, run.events.length),
  };
}

/**
 * The shortest re-test that restores a full verdict after the last finished run.
 *
 * @param day ISO date on which the re-test would be done
 * @returns null where nothing has become stale, or no run is finished
 */
export function retestOf(record: Pick<JobRecord, 'runs' | 'work' | 'testedTo'>, day: string): Retest | null {
  const run = record.runs.at(-1);
  if (!run?.finishedAt) return null;
  const since = record.work.filter(({ place }) => place > record.testedTo);
  const found = disturbance(run, since, day);
  return found && { ...found, ...workload(run.context.procedure, found.steps) };
}
