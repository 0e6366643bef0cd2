import { notFound } from 'next/navigation';
import { database } from '@/server/database';
import { portChoices } from '@/server/instrument-choices';
import { listInstruments } from '@/server/shelf';
import { InstrumentForm } from '@/ui/instrument-form';
import { LinkButton } from '@/ui/link-button';
import { Page } from '@/ui/page';

export const metadata = { title: 'Instrument' };

export default async function InstrumentPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const all = await listInstruments(await database());
  const stored = all.find((candidate) => candidate.id === id);
  if (!stored) notFound();
  return (
    <Page
      title={stored.body.tag}
      narrow
      actions={<LinkButton href={`/shelf/instruments/new?copy=${id}`}>Copy</LinkButton>}
    >
      <InstrumentForm
        initial={stored.body}
        id={id}
        version={stored.version}
        ports={portChoices()}
        tags={all.map(({ body }) => body.tag)}
      />
    </Page>
  );
}
