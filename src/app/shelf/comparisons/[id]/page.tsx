import { notFound } from 'next/navigation';
import { findComparison } from '@/server/comparisons';
import { database } from '@/server/database';
import { ComparisonPage } from '@/ui/fitting/comparison-page';

export const metadata = { title: 'Fitting comparison' };

export default async function Comparison({ params }: { params: Promise<{ id: string }> }) {
  const stored = await findComparison(await database(), (await params).id);
  if (!stored) notFound();
  return <ComparisonPage key={stored.version} stored={stored} />;
}
