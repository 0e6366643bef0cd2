import type { Metadata } from 'next';
import { jobQuerySchema } from '@/core/records/job-query';
import { database } from '@/server/database';
import { searchJobs } from '@/server/job-list';
import { testers } from '@/server/list';
import { leftOutWords } from '@/server/readable';
import { LeftOut } from '@/ui/altered';
import { JobsPage } from '@/ui/jobs-page';

export const metadata: Metadata = { title: 'Jobs' };

interface Place {
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}

export default async function Jobs({ searchParams }: Place) {
  const query = jobQuerySchema.parse(await searchParams);
  const db = await database();
  const { jobs, total } = await searchJobs(db, query);
  return (
    <>
      <LeftOut words={leftOutWords()} />
      <JobsPage query={query} jobs={jobs} total={total} technicians={await testers(db)} />
    </>
  );
}
