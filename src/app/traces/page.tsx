import type { Metadata } from 'next';
import { traceQuerySchema } from '@/core/records/trace-query';
import { database } from '@/server/database';
import { testers } from '@/server/list';
import { searchTraces } from '@/server/trace-list';
import { TracesPage } from '@/ui/traces/traces-page';

export const metadata: Metadata = { title: 'Traces' };

interface Place {
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}

export default async function Traces({ searchParams }: Place) {
  const query = traceQuerySchema.parse(await searchParams);
  const db = await database();
  const { traces, total } = await searchTraces(db, query);
  return <TracesPage query={query} traces={traces} total={total} technicians={await testers(db)} />;
}
