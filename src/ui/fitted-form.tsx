'use client';

import { useRouter } from 'next/navigation';
import { useMemo } from 'react';
import { z } from 'zod';
import { FAMILIES } from '@/core/families/registry';
import type { StoredProfile } from '@/core/records/views';
import { ROLES, type Role } from '@/core/model/installation';
import { fittedFrom, partsOnShelf } from '@/core/shop/fitted';
import { SchemaForm } from './forms/schema-form';

const KIND = 'vacuum-vehicle';
/** Boosters have profiles of their own too: they are tested on a bench. */
const UNIT = 'pedal-vacuum';
type Vehicle = Parameters<typeof fittedFrom>[0];
const typical = FAMILIES[KIND].typical as Vehicle;

const NOT_KNOWN = 'not-known';
const part = (title: string) => z.string().meta({ title });
const FORM = z.strictObject({
  name: z.string().trim().min(1, 'Vehicle: a name is needed.').max(120).meta({ title: 'Vehicle' }),
  maker: z.string().trim().max(120).meta({ title: 'Maker' }),
  source: part('Vacuum from'),
  unit: part('Booster'),
  load: part('Brakes that it drives'),
});

/** Puts the profile of a vehicle together from parts that the Shelf describes, and goes on to take it in. */
export function FittedForm({ profiles }: { profiles: readonly Pick<StoredProfile, 'kind' | 'body'>[] }) {
  const router = useRouter();
  const shelf = useMemo(() => {
    const vehicles = profiles.flatMap(({ kind, body }) =>
      kind === KIND ? [body as unknown as Vehicle] : [],
    );
    const boosters = profiles.flatMap(({ kind, body }) => (kind === UNIT ? [body] : []));
    return Object.fromEntries(
      ROLES.map((role) => [role, partsOnShelf(vehicles, role, role === 'unit' ? boosters : [])]),
    ) as Record<Role, ReturnType<typeof partsOnShelf>>;
  }, [profiles]);
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
      }).pipe(FAMILIES[KIND].profile),
    [shelf],
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
