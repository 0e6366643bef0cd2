import { database } from '@/server/database';
import { readSettings } from '@/server/shelf';
import { listTechnicians } from '@/server/technicians';
import { Page } from '@/ui/page';
import { SettingsForm } from '@/ui/settings-form';

export const metadata = { title: 'Settings' };

export default async function SettingsPage() {
  const db = await database();
  const [stored, technicians] = await Promise.all([readSettings(db), listTechnicians(db)]);
  return (
    <Page title="Settings" narrow>
      <SettingsForm stored={stored} technicians={technicians.map(({ name }) => name)} />
    </Page>
  );
}
