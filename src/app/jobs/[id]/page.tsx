import { notFound } from 'next/navigation';
import { judgedRun } from '@/core/records/judged-run';
import { database } from '@/server/database';
import { findJob } from '@/server/jobs';
import { findRun } from '@/server/runs';
import { JobSheet, type Visit } from '@/ui/job-sheet';

interface Place {
  params: Promise<{ id: string }>;
}

export async function generateMetadata({ params }: Place) {
  return { title: (await findJob(await database(), (await params).id))?.body.tag ?? 'Job' };
}

export default async function JobPage({ params }: Place) {
  const db = await database();
  const job = await findJob(db, (await params).id);
  if (!job) notFound();
  const runs = await Promise.all(job.runs.map(({ id }) => findRun(db, id)));
  const visits = runs.flatMap((run): Visit[] => (run ? [{ run, ...judgedRun(run) }] : []));
  return <JobSheet job={job} visits={visits} />;
}
