import { carePlan } from '@/core/families/care-plan';
import { careCalendarOf } from '@/server/calendar';
import { findJob } from '@/server/jobs';
import { answerFile } from '@/server/http';
import { done } from '@/server/outcome';
import { findRun } from '@/server/runs';
import { missing } from '@/server/store';

interface Place {
  params: Promise<{ id: string }>;
}

export const GET = (_request: Request, { params }: Place) =>
  answerFile('text/calendar; charset=utf-8', async (db) => {
    const run = await findRun(db, (await params).id);
    const job = run && (await findJob(db, run.jobId));
    if (!run || !job) return missing('run');
    const from = (run.finishedAt ?? run.startedAt).slice(0, 10);
    const due = carePlan(run.kind, run.context.profile, from);
    const { tag } = job.body;
    return done({ name: `care-${tag}.ics`, body: careCalendarOf(tag, job.profileName, due) });
  });
