import { notFound } from 'next/navigation';
import { FAMILIES, SIMULATED, type FamilyKind } from '@/core/families/registry';
import { database } from '@/server/database';
import { findProfile } from '@/server/shelf';
import { WorksPage } from '@/ui/works/works-page';

export const metadata = { title: 'How it works' };

/** A kind with its typical figures, or a profile of the Shelf. */
export default async function Works({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}) {
  const { kind, profile } = await searchParams;
  if (typeof profile === 'string') {
    const found = await findProfile(await database(), profile);
    if (!found) notFound();
    return <WorksPage key={profile} kind={found.kind} profile={found.body} name={found.body.name} />;
  }
  const known = SIMULATED.find((one) => one === kind) ?? SIMULATED[0]!;
  return (
    <WorksPage key={known} kind={known satisfies FamilyKind} profile={FAMILIES[known].typical} name={null} />
  );
}
