import type { Metadata } from 'next';
import { database } from '@/server/database';
import { jobQuerySchema } from '@/core/records/job-query';
import { searchJobs } from '@/server/job-list';
import { JobsPage } from '@/ui/jobs-page';

export const metadata: Metadata = { title: 'Jobs' };

interface Place {
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}

export default async function Jobs({ searchParams }: Place) {
  const query = jobQuerySchema.parse(await searchParams);
  const { jobs, total } = await searchJobs(await database(), query);
  return <JobsPage query={query} jobs={jobs} total={total} />;
}
