import type { Knex } from 'knex';
import { tapedAt } from '@/core/procedure/tape';
import { findJob } from './jobs';
import { dropRecording, piecesOf, traceOf, type Kept } from './recordings';
import { findRun } from './runs';
import { workOut } from './trace-job';
import { aboutFor, keepTrace } from './traces';

/** A piece of fewer samples is none. */
const LEAST_SAMPLES = 200;

/** Files what was recorded as traces of its run, a piece each, and lets go of the recording once they are kept. */
export async function fileRecording(db: Knex, recording: Kept, now: string): Promise<void> {
  const run = await findRun(db, recording.runId);
  const job = run && (await findJob(db, run.jobId));
  const pieces =
    run && job ? (await piecesOf(db, recording.id)).filter(({ count }) => count >= LEAST_SAMPLES) : [];
  if (!run || !job) return dropRecording(db, recording.id);
  const title = run.context.procedure.steps.find(({ id }) => id === recording.step)?.title ?? recording.step;
  for (const [i, piece] of pieces.entries()) {
    const origin = {
      name: `${job.body.tag}: ${title}${i === 0 ? '' : `, part ${i + 1}`}`,
      source: 'bench',
      profileId: job.body.profileId,
      jobId: job.id,
      runId: run.id,
      tape: tapedAt(run.context.procedure, run.events, recording.step),
    } as const;
    const trace = traceOf(piece, run.context.rig);
    if (trace.channels.length > 0)
      await keepTrace(db, origin, await workOut(trace, await aboutFor(db, origin)), now);
  }
  await dropRecording(db, recording.id);
}
