import { notFound } from 'next/navigation';
import { database } from '@/server/database';
import { findRunWithRecord } from '@/server/record';
import { loggedIn } from '@/server/traces';
import { Report } from '@/ui/report';

interface Place {
  params: Promise<{ id: string }>;
}

export const metadata = { title: 'Report' };

export default async function ReportPage({ params }: Place) {
  const db = await database();
  const { id } = await params;
  const found = await findRunWithRecord(db, id);
  if (!found) notFound();
  return <Report record={found.record} run={found.run} logged={await loggedIn(db, id)} />;
}
