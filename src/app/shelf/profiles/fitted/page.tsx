import { FAMILIES, FAMILY_KINDS } from '@/core/families/registry';
import { database } from '@/server/database';
import { listProfiles } from '@/server/shelf';
import { FittedForm } from '@/ui/fitted-form';
import { KindChoice } from '@/ui/kind-choice';
import { Nothing, Page } from '@/ui/page';

/** What is put together: a vehicle is whole without a bench. */
const VEHICLES = FAMILY_KINDS.filter((kind) => FAMILIES[kind].setting === 'vehicle');

export const metadata = { title: 'Put a vehicle together' };

export default async function Fitted({
  searchParams,
}: {
  searchParams: Promise<{ readonly kind?: string }>;
}) {
  const { kind: asked } = await searchParams;
  const kind = VEHICLES.find((one) => one === asked) ?? VEHICLES[0]!;
  const profiles = await listProfiles(await database());
  return (
    <Page
      title="Put a vehicle together"
      narrow
      actions={<KindChoice kind={kind} kinds={VEHICLES} label="Kind of brake" />}
    >
      <Nothing>
        Say what is fitted: what feeds the booster or valve, the booster or valve itself, and what it drives.
        Where a part is not known, typical figures stand in with wide tolerances, and nothing fails by them.
      </Nothing>
      <FittedForm key={kind} vehicle={kind} profiles={profiles} />
    </Page>
  );
}
