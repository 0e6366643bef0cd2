import { notFound } from 'next/navigation';
import { findComparison } from '@/server/comparisons';
import { database } from '@/server/database';
import { FittingPlanPage } from '@/ui/fitting/fitting-plan-page';

export const metadata = { title: 'Fitting plan' };

interface Place {
  params: Promise<{ id: string }>;
  searchParams: Promise<{ candidate?: string }>;
}

export default async function FittingPlan({ params, searchParams }: Place) {
  const stored = await findComparison(await database(), (await params).id);
  const at = Number((await searchParams).candidate ?? 0);
  if (!stored?.body.candidates[at]) notFound();
  return <FittingPlanPage stored={stored} at={at} />;
}
