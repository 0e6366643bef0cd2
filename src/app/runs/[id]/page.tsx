import { notFound } from 'next/navigation';
import { answersThatCount } from '@/core/records/answers-that-count';
import { repairBefore } from '@/core/records/repair-before';
import { database } from '@/server/database';
import { findJob } from '@/server/jobs';
import { caseOfJob } from '@/server/practice-cases';
import { readRecord } from '@/server/record';
import { findRun } from '@/server/runs';
import { faultWeights } from '@/server/weights';
import { RunScreen } from '@/ui/run/run-screen';

interface Place {
  params: Promise<{ id: string }>;
}

export const metadata = { title: 'Bench test' };

export default async function RunPage({ params }: Place) {
  const db = await database();
  const run = await findRun(db, (await params).id);
  const job = run && (await findJob(db, run.jobId));
  if (!run || !job) notFound();
  const { weights } = await faultWeights(db, run.kind);
  const record = await readRecord(db, run.jobId);
  return (
    <RunScreen
      stored={run}
      job={job}
      weights={weights}
      before={record && repairBefore(record, run.id)}
      home={record ? answersThatCount(record) : {}}
      practice={await caseOfJob(db, run.jobId)}
    />
  );
}
