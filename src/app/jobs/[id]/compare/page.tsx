import { notFound } from 'next/navigation';
import { resultsBetween } from '@/core/documents/before-after';
import { contextWith } from '@/core/procedure/exchange';
import { stateOf } from '@/core/records/judged-run';
import { repairBetween } from '@/core/records/repair-before';
import { recordToPrint } from '@/server/altered';
import { movedBetweenTests } from '@/server/before-after';
import { database } from '@/server/database';
import { findJob } from '@/server/jobs';
import { faultWeights } from '@/server/weights';
import { Altered } from '@/ui/altered';
import { ComparePage } from '@/ui/job/compare-page';

interface Place {
  params: Promise<{ id: string }>;
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}

export const metadata = { title: 'Before and after' };

export default async function Compare({ params, searchParams }: Place) {
  const db = await database();
  const { id } = await params;
  const job = await findJob(db, id);
  const whole = await recordToPrint(db, id);
  if (!whole.ok && whole.why.code !== 'not-found')
    return <Altered title="Before and after" why={whole.why.message} />;
  const record = whole.ok ? whole.value : null;
  const finished = record?.runs.filter(({ finishedAt }) => finishedAt) ?? [];
  if (!job || finished.length < 2) notFound();
  const asked = await searchParams;
  const pick = (name: string, otherwise: number) =>
    finished.find((run) => run.id === asked[name]) ?? finished.at(otherwise)!;
  const [before, after] = [pick('before', 0), pick('after', -1)];
  const repair = repairBetween(record!, before, after);
  const { weights } = await faultWeights(db, before.kind);
  return (
    <ComparePage
      job={job}
      runs={finished.map(({ id: run, startedAt }) => ({ id: run, startedAt }))}
      before={before.id}
      after={after.id}
      results={resultsBetween(before, after)}
      // Told as it comes: the page does not wait for it.
      moved={movedBetweenTests(before, after)}
      repaired={
        repair && {
          kind: after.kind,
          weights,
          before: repair,
          after: { context: contextWith(after.context, after.events), state: stateOf(after) },
        }
      }
    />
  );
}
