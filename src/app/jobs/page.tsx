import type { Metadata } from 'next';
import { database } from '@/server/database';
import { listJobs } from '@/server/jobs';
import { assessmentsOf } from '@/server/assessments';
import { JobsPage } from '@/ui/jobs-page';

export const metadata: Metadata = { title: 'Jobs' };

export default async function Jobs() {
  const db = await database();
  const jobs = await listJobs(db);
  return <JobsPage jobs={jobs} headlines={await assessmentsOf(db, jobs)} />;
}
