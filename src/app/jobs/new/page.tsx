import type { Metadata } from 'next';
import { database } from '@/server/database';
import { listProfiles } from '@/server/shelf';
import { IntakeForm } from '@/ui/intake-form';
import { LinkButton } from '@/ui/link-button';
import { Nothing, Page } from '@/ui/page';

export const metadata: Metadata = { title: 'Take in a unit' };

interface Query {
  /** A profile that was just made for it. */
  readonly profile?: string;
}

export default async function Intake({ searchParams }: { searchParams: Promise<Query> }) {
  const { profile } = await searchParams;
  const profiles = await listProfiles(await database());
  return (
    <Page
      title="Take in a unit or a vehicle"
      narrow
      actions={<LinkButton href="/shelf/profiles/fitted">A vehicle from its parts</LinkButton>}
    >
      {profiles.length === 0 ? (
        <>
          <Nothing>A unit is tested against a profile, and there is none on the Shelf yet.</Nothing>
          <LinkButton href="/shelf/profiles/new" variant="contained">
            Add a profile
          </LinkButton>
        </>
      ) : (
        <IntakeForm profiles={profiles} chosen={profile} />
      )}
    </Page>
  );
}
