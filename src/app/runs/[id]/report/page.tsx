import { notFound } from 'next/navigation';
import { reportContent } from '@/core/records/report';
import { judgedRun } from '@/core/records/judged-run';
import { database } from '@/server/database';
import { findJob } from '@/server/jobs';
import { findRun } from '@/server/runs';
import { Report } from '@/ui/report';

interface Place {
  params: Promise<{ id: string }>;
}

export const metadata = { title: 'Report' };

export default async function ReportPage({ params }: Place) {
  const db = await database();
  const run = await findRun(db, (await params).id);
  const job = run && (await findJob(db, run.jobId));
  if (!run || !job) notFound();
  const { state, results, assessment } = judgedRun(run);
  const content = reportContent(run.context, state, results, assessment);
  return <Report job={job} run={run} results={results} assessment={assessment} content={content} />;
}
