import { database } from '@/server/database';
import { listProfiles } from '@/server/shelf';
import { FaultsPage } from '@/ui/shelf/faults-page';

export const metadata = { title: 'Faults' };

export default async function Faults() {
  const profiles = await listProfiles(await database());
  return <FaultsPage profiles={profiles.map(({ id, kind, body }) => ({ id, kind, body }))} />;
}
