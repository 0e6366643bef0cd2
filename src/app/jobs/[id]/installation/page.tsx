import { notFound } from 'next/navigation';
import { recordToPrint } from '@/server/altered';
import { database } from '@/server/database';
import { Altered } from '@/ui/altered';
import { InstallationPage } from '@/ui/job/installation-page';

interface Place {
  params: Promise<{ id: string }>;
}

export const metadata = { title: 'Installation sheet' };

export default async function Installation({ params }: Place) {
  const record = await recordToPrint(await database(), (await params).id);
  if (record.ok) return <InstallationPage record={record.value} />;
  return record.why.code === 'not-found' ? (
    notFound()
  ) : (
    <Altered title="Installation sheet" why={record.why.message} />
  );
}
