import { database } from '@/server/database';
import { portChoices } from '@/server/instrument-choices';
import { listInstruments } from '@/server/shelf';
import { InstrumentForm } from '@/ui/instrument-form';
import { Page } from '@/ui/page';

export const metadata = { title: 'New instrument' };

export default async function NewInstrument({ searchParams }: { searchParams: Promise<{ copy?: string }> }) {
  const { copy } = await searchParams;
  const all = await listInstruments(await database());
  const from = all.find(({ id }) => id === copy)?.body;
  const initial = from
    ? { ...from, tag: '' }
    : { quantity: 'pressure' as const, usualPort: null, tiedTo: null };
  return (
    <Page title={from ? `Copy of ${from.tag}` : 'New instrument'} narrow>
      <InstrumentForm initial={initial} ports={portChoices()} tags={all.map(({ body }) => body.tag)} />
    </Page>
  );
}
