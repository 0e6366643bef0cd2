import { FAMILY_KINDS } from '@/core/families/registry';
import { database } from '@/server/database';
import { listProfiles } from '@/server/shelf';
import { faultWeights } from '@/server/weights';
import { FaultsPage } from '@/ui/shelf/faults-page';

export const metadata = { title: 'Faults' };

export default async function Faults() {
  const db = await database();
  const [profiles, ...weights] = await Promise.all([
    listProfiles(db),
    ...FAMILY_KINDS.map(async (kind) => [kind, await faultWeights(db, kind)] as const),
  ]);
  return (
    <FaultsPage
      profiles={profiles.map(({ id, kind, body }) => ({ id, kind, body }))}
      weights={Object.fromEntries(weights)}
    />
  );
}
