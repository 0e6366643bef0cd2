import type { Knex } from 'knex';
import { liesOnBench } from './practice-bench';

const casesOfRun = (db: Knex, runId: string) =>
  db<{ ahead_ms: number; ended_at: string | null }>('practice_cases')
    .join('runs', 'runs.job_id', 'practice_cases.job_id')
    .where('runs.id', runId);

/** By how much the clock of a run is ahead of the machine's, s: in a practice case waits are passed. None for any other run. */
export async function aheadOfClock_s(db: Knex, runId: string): Promise<number> {
  const row = (await casesOfRun(db, runId).first('ahead_ms')) as { ahead_ms: number } | undefined;
  return (row?.ahead_ms ?? 0) / 1000;
}

/** Whether a practice case that is not over lies on the simulated bench. */
export async function isCaseOnBench(db: Knex): Promise<boolean> {
  const run = liesOnBench()?.run;
  return (
    run !== undefined && (await casesOfRun(db, run).whereNull('ended_at').first('ended_at')) !== undefined
  );
}
