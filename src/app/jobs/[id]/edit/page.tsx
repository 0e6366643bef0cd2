import { notFound } from 'next/navigation';
import { database } from '@/server/database';
import { findJob } from '@/server/jobs';
import { listProfiles } from '@/server/shelf';
import { IntakeForm } from '@/ui/intake-form';
import { Page } from '@/ui/page';

export default async function EditJob({ params }: { params: Promise<{ id: string }> }) {
  const db = await database();
  const job = await findJob(db, (await params).id);
  if (!job) notFound();
  return (
    <Page title={`Change ${job.body.tag}`} narrow>
      <IntakeForm profiles={await listProfiles(db)} job={job} />
    </Page>
  );
}
