'use client';

import { useRouter } from 'next/navigation';
import { FAMILIES, type FamilyKind } from '@/core/families/registry';
import { literalsOf } from './forms/schema-fields';
import { SchemaForm } from './forms/schema-form';

interface ProfileFormProps {
  readonly kind: FamilyKind;
  readonly initial: unknown;
  readonly id?: string;
  readonly version?: number;
}

/** A profile of one family, every field from the family's own schema. */
export function ProfileForm({ kind, initial, id, version }: ProfileFormProps) {
  const router = useRouter();
  return (
    <SchemaForm
      schema={FAMILIES[kind].profile}
      initial={initial}
      fixed={literalsOf(FAMILIES[kind].profile)}
      method={id ? 'PUT' : 'POST'}
      url={id ? `/profiles/${id}` : '/profiles'}
      version={version}
      saveLabel="Save the profile"
      onSaved={() => {
        router.push('/shelf');
        router.refresh();
      }}
    />
  );
}
