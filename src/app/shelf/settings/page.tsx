import { database } from '@/server/database';
import { readSettings } from '@/server/shelf';
import { Page } from '@/ui/page';
import { SettingsForm } from '@/ui/settings-form';

export const metadata = { title: 'Settings' };

export default async function SettingsPage() {
  const stored = await readSettings(await database());
  return (
    <Page title="Settings" narrow>
      <SettingsForm stored={stored} />
    </Page>
  );
}
