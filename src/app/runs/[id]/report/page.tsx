import { notFound } from 'next/navigation';
import { doubtsOf, runToPrint } from '@/server/altered';
import { database } from '@/server/database';
import { loggedIn } from '@/server/traces';
import { Altered } from '@/ui/altered';
import { Report } from '@/ui/report';

interface Place {
  params: Promise<{ id: string }>;
}

export const metadata = { title: 'Report' };

export default async function ReportPage({ params }: Place) {
  const db = await database();
  const { id } = await params;
  const found = await runToPrint(db, id);
  if (!found.ok)
    return found.why.code === 'not-found' ? notFound() : <Altered title="Report" why={found.why.message} />;
  const { record, run } = found.value;
  return (
    <Report record={record} run={run} logged={await loggedIn(db, id)} doubts={await doubtsOf(db, record)} />
  );
}
