import { notFound } from 'next/navigation';
import { database } from '@/server/database';
import { findRunWithRecord } from '@/server/reports';
import { Report } from '@/ui/report';

interface Place {
  params: Promise<{ id: string }>;
}

export const metadata = { title: 'Report' };

export default async function ReportPage({ params }: Place) {
  const found = await findRunWithRecord(await database(), (await params).id);
  if (!found) notFound();
  return <Report record={found.record} run={found.run} />;
}
