import { FAMILIES, FAMILY_KINDS } from '@/core/families/registry';
import { database } from '@/server/database';
import { listProfiles } from '@/server/shelf';
import { FittedForm } from '@/ui/fitted-form';
import { Nothing, Page } from '@/ui/page';

/** What is put together: a vehicle is whole without a bench. */
const VEHICLE = FAMILY_KINDS.find((kind) => FAMILIES[kind].setting === 'vehicle')!;

export const metadata = { title: 'Put a vehicle together' };

export default async function Fitted() {
  const profiles = await listProfiles(await database());
  return (
    <Page title="Put a vehicle together" narrow>
      <Nothing>
        Say what is fitted: what makes the vacuum, the booster, and what it drives. Where a part is not known,
        typical figures stand in with wide tolerances, and nothing fails by them.
      </Nothing>
      <FittedForm vehicle={VEHICLE} profiles={profiles} />
    </Page>
  );
}
