import { notFound } from 'next/navigation';
import { judgedRun, saidOtherwise } from '@/core/records/judged-run';
import { retestOf } from '@/core/records/staleness';
import { unconfirmed } from '@/core/records/unconfirmed';
import { doubtsOf, recordToPrint } from '@/server/altered';
import { database } from '@/server/database';
import { today } from '@/server/http';
import { findJob, tagsOf } from '@/server/jobs';
import { preChargesOfUnit } from '@/server/pre-charges';
import { readRecord } from '@/server/record';
import { listTechnicians } from '@/server/technicians';
import { tracesOfJob } from '@/server/traces';
import { StoreTrouble } from '@/server/trouble';
import { Altered } from '@/ui/altered';
import { JobSheet } from '@/ui/job/job-sheet';
import type { Visit } from '@/ui/job/visit';

interface Place {
  params: Promise<{ id: string }>;
}

export async function generateMetadata({ params }: Place) {
  const [tag] = Object.values(await tagsOf(await database(), [(await params).id]));
  return { title: tag ?? 'Job' };
}

export default async function JobPage({ params }: Place) {
  const db = await database();
  const { id } = await params;
  const job = await findJob(db, id).catch((error: unknown) => {
    if (error instanceof StoreTrouble) return error;
    throw error;
  });
  if (job instanceof StoreTrouble) return <Altered title="Job" why={job.message} />;
  if (!job) notFound();
  const found = await recordToPrint(db, id);
  const altered = found.ok || found.why.code === 'not-found' ? null : found.why.message;
  // What was altered is shown all the same, where it is not past reading.
  const whole = found.ok ? found.value : await readRecord(db, id).catch(() => null);
  if (!whole) return altered ? <Altered title={job.body.tag} why={altered} /> : notFound();
  const { runs, ...record } = whole;
  const visits = runs.map((run): Visit => ({ run, ...judgedRun(run), otherwise: saidOtherwise(run) }));
  return (
    <JobSheet
      job={job}
      altered={altered}
      doubts={await doubtsOf(db, whole)}
      record={record}
      visits={visits}
      retest={retestOf(whole, today())}
      unconfirmed={unconfirmed(whole, today())}
      technicians={await listTechnicians(db)}
      traces={await tracesOfJob(db, id)}
      preCharges={await preChargesOfUnit(db, job.body)}
    />
  );
}
