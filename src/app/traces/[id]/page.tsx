import { notFound } from 'next/navigation';
import { database } from '@/server/database';
import { tagsOf } from '@/server/jobs';
import { findProfile } from '@/server/shelf';
import { analysedTrace, analysisOf, expectedFor, findTrace, listTraces } from '@/server/traces';
import { Altered } from '@/ui/altered';
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
  const stored = await findTrace(db, id);
  const analysis = stored && (await analysisOf(db, id));
  if (!stored || !analysis) notFound();
  if (!analysis.ok) return <Altered title={stored.body.name} why={analysis.why.message} />;
  const trace = { stored, analysis: analysis.value };
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
