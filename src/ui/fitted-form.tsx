'use client';

import { useRouter } from 'next/navigation';
import { useMemo } from 'react';
import { z } from 'zod';
import { FAMILIES, type FamilyKind } from '@/core/families/registry';
import type { StoredProfile } from '@/core/records/views';
import { ROLES, type Role } from '@/core/model/installation';
import { fittedFrom, isWhole, partsOnShelf, type Fitted } from '@/core/shop/fitted';
import { SchemaForm } from './forms/schema-form';

const NOT_KNOWN = 'not-known';
const part = (title: string) => z.string().meta({ title });
const FORM = z.strictObject({
  name: z.string().trim().min(1, 'Vehicle: a name is needed.').max(120).meta({ title: 'Vehicle' }),
  maker: z.string().trim().max(120).meta({ title: 'Maker' }),
  source: part('What feeds it'),
  unit: part('Booster or unit'),
  load: part('What it drives'),
});

interface FittedFormProps {
  /** The kind of vehicle that is put together. */
  readonly vehicle: FamilyKind;
  readonly profiles: readonly Pick<StoredProfile, 'kind' | 'body'>[];
}

/** Puts the profile of a vehicle together from parts that the Shelf describes, and goes on to take it in. */
export function FittedForm({ vehicle: ofVehicle, profiles }: FittedFormProps) {
  const router = useRouter();
  const family = FAMILIES[ofVehicle];
  const typical = family.typical as Fitted;
  const shelf = useMemo(() => {
    const bodies = profiles.map(({ body }) => body as object);
    const alone = (bodies as Fitted[Role][]).filter((body) => !isWhole(body));
    return Object.fromEntries(
      ROLES.map((role) => {
        const { kind } = typical[role];
        const own = alone.filter((body) => body.kind === kind);
        return [role, partsOnShelf(bodies.filter(isWhole), role, kind, own)];
      }),
    ) as Record<Role, ReturnType<typeof partsOnShelf>>;
  }, [profiles, typical]);
  const choices = useMemo(
    () =>
      Object.fromEntries(
        ROLES.map((role) => [
          role,
          [
            { value: NOT_KNOWN, label: 'Not known' },
            ...shelf[role].map(({ name, vehicle }) => ({
              value: name,
              label: vehicle === null ? name : `${name} · as in ${vehicle}`,
            })),
          ],
        ]),
      ),
    [shelf],
  );
  const schema = useMemo(
    () =>
      FORM.transform(({ name, maker, ...chosen }): unknown => {
        const found = (role: Role) => shelf[role].find((one) => one.name === chosen[role]) ?? null;
        return fittedFrom(
          typical,
          { name, maker },
          { source: found('source'), unit: found('unit'), load: found('load') },
        );
      }).pipe(family.profile),
    [shelf, family, typical],
  );
  return (
    <SchemaForm
      schema={schema}
      formShape={FORM}
      initial={{ name: '', maker: '', source: NOT_KNOWN, unit: NOT_KNOWN, load: NOT_KNOWN }}
      method="POST"
      url="/profiles"
      saveLabel="Put it together"
      choices={choices}
      columns={1}
      onSaved={({ id }) => {
        router.push(`/jobs/new?profile=${id}`);
        router.refresh();
      }}
    />
  );
}
