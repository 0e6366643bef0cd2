import type { Metadata } from 'next';
import { database } from '@/server/database';
import { tagsOf } from '@/server/jobs';
import { listTraces } from '@/server/traces';
import { TracesPage } from '@/ui/traces/traces-page';

export const metadata: Metadata = { title: 'Traces' };
export const dynamic = 'force-dynamic';

export default async function Traces() {
  const db = await database();
  const traces = await listTraces(db);
  const jobs = traces.flatMap(({ body }) => body.jobId ?? []);
  return <TracesPage traces={traces} jobTags={await tagsOf(db, jobs)} />;
}
