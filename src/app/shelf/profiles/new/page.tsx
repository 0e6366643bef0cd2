import { FAMILIES, FAMILY_KINDS, type FamilyKind } from '@/core/families/registry';
import { database } from '@/server/database';
import { listProfiles } from '@/server/shelf';
import { KindChoice } from '@/ui/kind-choice';
import { Nothing, Page } from '@/ui/page';
import { ProfileForm } from '@/ui/profile-form';

export const metadata = { title: 'New profile' };

interface Query {
  readonly copy?: string;
  readonly kind?: string;
}

export default async function NewProfile({ searchParams }: { searchParams: Promise<Query> }) {
  const { copy, kind: asked } = await searchParams;
  const from = copy ? (await listProfiles(await database())).find(({ id }) => id === copy) : undefined;
  const kind = from?.kind ?? FAMILY_KINDS.find((one): one is FamilyKind => one === asked) ?? FAMILY_KINDS[0];
  const initial = from
    ? { ...from.body, name: `${from.body.name}, copy` }
    : { ...(FAMILIES[kind].typical as object), name: '' };
  return (
    <Page
      title={from ? `Copy of ${from.body.name}` : 'New profile'}
      narrow
      actions={from ? undefined : <KindChoice kind={kind} />}
    >
      <Nothing>
        {from
          ? 'Change what differs and save it under its own name.'
          : 'These are typical figures to start from. Replace each with what the maker says; a profile’s own figures always win.'}
      </Nothing>
      <ProfileForm key={kind} kind={kind} initial={initial} />
    </Page>
  );
}
