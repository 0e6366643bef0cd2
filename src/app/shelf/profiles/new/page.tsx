import { FAMILIES, FAMILY_KINDS } from '@/core/families/registry';
import { database } from '@/server/database';
import { listProfiles } from '@/server/shelf';
import { Nothing, Page } from '@/ui/page';
import { ProfileForm } from '@/ui/profile-form';

export const metadata = { title: 'New profile' };

export default async function NewProfile({ searchParams }: { searchParams: Promise<{ copy?: string }> }) {
  const { copy } = await searchParams;
  const from = copy ? (await listProfiles(await database())).find(({ id }) => id === copy) : undefined;
  const kind = from?.kind ?? FAMILY_KINDS[0];
  const initial = from
    ? { ...from.body, name: `${from.body.name}, copy` }
    : { ...(FAMILIES[kind].typical as object), name: '' };
  return (
    <Page title={from ? `Copy of ${from.body.name}` : 'New profile'} narrow>
      <Nothing>
        {from
          ? 'Change what differs and save it under its own name.'
          : 'These are typical figures to start from. Replace each with what the maker says; a profile’s own figures always win.'}
      </Nothing>
      <ProfileForm kind={kind} initial={initial} />
    </Page>
  );
}
