import { notFound } from 'next/navigation';
import { database } from '@/server/database';
import { readRecord } from '@/server/record';
import { InstallationPage } from '@/ui/job/installation-page';

interface Place {
  params: Promise<{ id: string }>;
}

export const metadata = { title: 'Installation sheet' };

export default async function Installation({ params }: Place) {
  const record = await readRecord(await database(), (await params).id);
  if (!record) notFound();
  return <InstallationPage record={record} />;
}
