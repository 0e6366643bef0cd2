import type { Knex } from 'knex';
import { FAMILIES } from '@/core/families/registry';
import type { StoredJob, StoredRun } from '@/core/records/views';
import type { Assessment, Result } from '@/core/twin/result';
import { findRun, stateOf } from './runs';

/** A run judged: its results and what they come to. */
export function judgedRun(run: StoredRun): { results: Result[]; assessment: Assessment } {
  const family = FAMILIES[run.kind];
  const state = stateOf(run);
  const results = family.results(run.context, state);
  return { results, assessment: family.assess(run.context, state, results) };
}

/** The last run of each job in a line; jobs without a run are left out. */
export async function assessmentsOf(db: Knex, jobs: readonly StoredJob[]): Promise<Record<string, string>> {
  const lines: Record<string, string> = {};
  for (const job of jobs) {
    const last = job.runs.at(-1);
    const run = last && (await findRun(db, last.id));
    if (!run) continue;
    lines[job.id] = run.finishedAt ? judgedRun(run).assessment.headline : 'On the bench';
  }
  return lines;
}
