import type { Knex } from 'knex';
import { z } from 'zod';
import { loggerReads } from '@/core/practice/simulated-gauges';
import type { StoredRun } from '@/core/records/views';
import { findJob } from './jobs';
import { link } from './live';
import { fileRecording } from './live-filing';
import type { Link } from './live-link';
import { done, invalid, type Outcome } from './outcome';
import { Recording } from './recordings';
import { findRun } from './runs';
import { readSettings } from './shelf';
import { missing } from './store';

export const recordSchema = z.strictObject({
  step: z.string().min(1).max(80).nullable(),
  /** Takes the bench over from the run that has it. */
  take: z.boolean().optional(),
});

/**
 * Says which step of a run is being done: what the logger sends from now on is its trace. The trace of the step
 * before is kept with the run; a null step ends the last one, and lets the bench go. The bench belongs to one run: another
 * records nothing before it takes it over, and what was recorded until then stays with the run that had it.
 */
export async function recordStep(
  db: Knex,
  runId: string,
  input: unknown,
  now: string,
): Promise<Outcome<{ recording: boolean }>> {
  const parsed = recordSchema.safeParse(input);
  if (!parsed.success) return invalid(parsed.error.issues);
  const run = await findRun(db, runId);
  if (!run) return missing('run');
  const line = await link(db);
  const { logger } = (await readSettings(db)).body;
  if (!line || !loggerReads(logger, run.context.shelf)) return done({ recording: false });
  return line.inTurn(() => recordNow(db, line, run, parsed.data, now));
}

async function recordNow(
  db: Knex,
  line: Link,
  run: StoredRun,
  { step, take }: z.infer<typeof recordSchema>,
  now: string,
): Promise<Outcome<{ recording: boolean }>> {
  const { owner } = line.status;
  const others = owner !== null && owner.run !== run.id && !(await findRun(db, owner.run))?.finishedAt;
  if (others && !take) return done({ recording: false });
  const before = line.recording;
  if (before?.runId === run.id && before.step === step) return done({ recording: true });
  line.recording = step === null ? null : await Recording.begin(db, run.id, step, now);
  const job = step === null ? null : await findJob(db, run.jobId);
  line.give(job && { run: run.id, tag: job.body.tag });
  if (before) {
    await before.flush();
    await fileRecording(db, before, now);
  }
  return done({ recording: step !== null });
}
