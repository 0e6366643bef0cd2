import { Box } from '@mui/material';
import { notFound } from 'next/navigation';
import { database } from '@/server/database';
import { portChoices } from '@/server/instrument-choices';
import { today } from '@/server/http';
import { listInstruments, versionsOf } from '@/server/shelf';
import { InstrumentForm } from '@/ui/instrument-form';
import { LinkButton } from '@/ui/link-button';
import { Page, Part } from '@/ui/page';
import { CalibrationForm } from '@/ui/shelf/calibration-form';
import { History } from '@/ui/shelf/history';
import { RemoveButton } from '@/ui/shelf/remove-button';

export const metadata = { title: 'Instrument' };

export default async function InstrumentPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const db = await database();
  const all = await listInstruments(db);
  const stored = all.find((candidate) => candidate.id === id);
  if (!stored) notFound();
  return (
    <Page
      title={stored.body.tag}
      narrow
      actions={
        <>
          <RemoveButton path={`/instruments/${id}`} name={stored.body.tag} />
          <LinkButton href={`/shelf/instruments/new?copy=${id}`}>Copy</LinkButton>
        </>
      }
    >
      <InstrumentForm
        initial={stored.body}
        id={id}
        version={stored.version}
        ports={portChoices()}
        tags={all.map(({ body }) => body.tag)}
        key={stored.version}
      />
      <Box sx={{ mt: 4 }}>
        <Part title="Record a calibration">
          <CalibrationForm stored={stored} today={today()} />
        </Part>
        <Part title="History">
          <History versions={await versionsOf(db, 'instrument', id)} />
        </Part>
      </Box>
    </Page>
  );
}
