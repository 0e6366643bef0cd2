import { database } from '@/server/database';
import { listProfiles } from '@/server/shelf';
import { FailedAssistPage } from '@/ui/works/failed-assist-page';

export const metadata = { title: 'Failed assist' };

export default async function FailedAssist() {
  return <FailedAssistPage profiles={await listProfiles(await database())} />;
}
