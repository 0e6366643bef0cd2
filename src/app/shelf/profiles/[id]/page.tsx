import { Box, Button } from '@mui/material';
import { notFound } from 'next/navigation';
import { database } from '@/server/database';
import { findProfile, versionsOf } from '@/server/shelf';
import { LinkButton } from '@/ui/link-button';
import { Page, Part } from '@/ui/page';
import { History } from '@/ui/shelf/history';
import { RemoveButton } from '@/ui/shelf/remove-button';
import { ProfileForm } from '@/ui/profile-form';

export const metadata = { title: 'Profile' };

export default async function ProfilePage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const db = await database();
  const profile = await findProfile(db, id);
  if (!profile) notFound();
  return (
    <Page
      title={profile.body.name}
      narrow
      actions={
        <>
          <RemoveButton path={`/profiles/${id}`} name={profile.body.name} />
          <Button component="a" href={`/api/v1/profiles/${id}/file`} download>
            As a file
          </Button>
          <LinkButton href={`/shelf/works?profile=${id}`}>How it works</LinkButton>
          <LinkButton href={`/shelf/profiles/new?copy=${id}`}>Copy</LinkButton>
        </>
      }
    >
      <ProfileForm kind={profile.kind} initial={profile.body} id={id} version={profile.version} />
      <Box sx={{ mt: 4 }}>
        <Part title="History" note="a finished test keeps the version it was judged by">
          <History versions={await versionsOf(db, 'profile', id)} />
        </Part>
      </Box>
    </Page>
  );
}
