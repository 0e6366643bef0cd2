import type { Knex } from 'knex';
import { liveState, progress } from '@/core/procedure/live';
import { nextAction } from '@/core/procedure/next-action';
import type { OnBench } from '@/core/shop/on-bench';
import { stateOf } from '@/core/records/judged-run';
import { waitOf } from '@/core/shop/waits';
import { findJob } from './jobs';
import { readableOnes } from './readable';
import { aheadOfClock_s } from './case-of-run';
import { openRuns } from './runs';

/** Everything that is on the bench now. */
export async function benchNow(db: Knex): Promise<OnBench[]> {
  const runs = await openRuns(db);
  return readableOnes('test', runs, async (run) => {
    const job = (await findJob(db, run.jobId))!;
    const state = stateOf(run);
    const { procedure, rig } = run.context;
    const action = nextAction(procedure, state);
    return {
      runId: run.id,
      job,
      stands: 'step' in action ? action.step.title : 'Ready to close',
      progress: progress(procedure, state),
      live: liveState(procedure, state),
      wait: waitOf(run, state, job.body.tag, await aheadOfClock_s(db, run.id)),
      gauges: Object.values(rig).flatMap((gauges) => gauges.map(({ tag }) => tag)),
      startedAt: run.startedAt,
    };
  });
}
