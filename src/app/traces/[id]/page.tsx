import { notFound } from 'next/navigation';
import { database } from '@/server/database';
import { tagsOf } from '@/server/jobs';
import { findProfile } from '@/server/shelf';
import { analysedTrace, expectedFor, listTraces } from '@/server/traces';
import { TracePage } from '@/ui/traces/trace-page';

interface Place {
  params: Promise<{ id: string }>;
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}

export const metadata = { title: 'Trace' };

export default async function Trace({ params, searchParams }: Place) {
  const db = await database();
  const { id } = await params;
  const { with: beside } = await searchParams;
  const trace = await analysedTrace(db, id);
  if (!trace) notFound();
  const other = typeof beside === 'string' ? await analysedTrace(db, beside) : null;
  const { profileId, jobId } = trace.stored.body;
  const profile = profileId ? await findProfile(db, profileId) : null;
  const tags = await tagsOf(db, jobId ? [jobId] : []);
  const choices = (await listTraces(db)).filter((one) => one.id !== id);
  return (
    <TracePage
      key={id}
      trace={trace}
      other={other}
      choices={choices.map(({ id: one, body }) => ({ id: one, name: body.name }))}
      expected={await expectedFor(db, trace)}
      profileName={profile?.body.name ?? null}
      jobTag={jobId ? (tags[jobId] ?? null) : null}
    />
  );
}
