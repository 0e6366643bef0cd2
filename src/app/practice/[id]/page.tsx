import { notFound } from 'next/navigation';
import { database } from '@/server/database';
import { findCase } from '@/server/practice-cases';
import { CasePage } from '@/ui/practice/case-page';

interface Place {
  params: Promise<{ id: string }>;
}

export const metadata = { title: 'Practice case' };

export default async function Case({ params }: Place) {
  const found = await findCase(await database(), (await params).id);
  if (!found) notFound();
  return <CasePage stored={found} />;
}
