import { notFound } from 'next/navigation';
import { database } from '@/server/database';
import { listProfiles } from '@/server/shelf';
import { LinkButton } from '@/ui/link-button';
import { Page } from '@/ui/page';
import { ProfileForm } from '@/ui/profile-form';

export const metadata = { title: 'Profile' };

export default async function ProfilePage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const profile = (await listProfiles(await database())).find((candidate) => candidate.id === id);
  if (!profile) notFound();
  return (
    <Page
      title={profile.body.name}
      narrow
      actions={<LinkButton href={`/shelf/profiles/new?copy=${id}`}>Copy</LinkButton>}
    >
      <ProfileForm kind={profile.kind} initial={profile.body} id={id} version={profile.version} />
    </Page>
  );
}
