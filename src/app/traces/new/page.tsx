import { jobQuerySchema } from '@/core/records/job-query';
import { database } from '@/server/database';
import { searchJobs } from '@/server/job-list';
import { listProfiles } from '@/server/shelf';
import { ImportPage } from '@/ui/traces/import-page';

export const metadata = { title: 'Read a log' };
export const dynamic = 'force-dynamic';

export default async function ReadLog() {
  const db = await database();
  const [profiles, { jobs }] = await Promise.all([
    listProfiles(db),
    searchJobs(db, jobQuerySchema.parse({})),
  ]);
  return (
    <ImportPage
      profiles={profiles.map(({ id, body }) => ({ id, name: body.name }))}
      jobs={jobs.map(({ id, body }) => ({ id, tag: body.tag, profileId: body.profileId }))}
    />
  );
}
