'use client';

import { useRouter } from 'next/navigation';
import { useMemo } from 'react';
import { FAMILIES } from '@/core/families/registry';
import { jobSchema, type Job } from '@/core/records/job';
import type { StoredJob, StoredProfile } from '@/core/records/views';
import { SchemaForm } from './forms/schema-form';

interface IntakeFormProps {
  readonly profiles: readonly Pick<StoredProfile, 'id' | 'kind' | 'body'>[];
  /** The profile that is chosen to begin with; the first one where none is named. */
  readonly chosen?: string;
  /** A job to be changed; absent when a unit is taken in. */
  readonly job?: Pick<StoredJob, 'id' | 'version' | 'body'>;
}

/** Takes in a unit: tag, kind, profile, the complaint in the customer's words, the fluid found in it. */
export function IntakeForm({ profiles, chosen, job }: IntakeFormProps) {
  const router = useRouter();
  const choices = useMemo(
    () => ({
      profileId: profiles.map(({ id, kind, body }) => ({
        value: id,
        label: [body.name, FAMILIES[kind].name].join(' · '),
      })),
    }),
    [profiles],
  );
  // The profile says what kind of unit it is.
  const schema = useMemo(
    () =>
      FORM.transform((form) => ({
        ...form,
        kind: profiles.find(({ id }) => id === form.profileId)?.kind,
      })).pipe(jobSchema),
    [profiles],
  );
  const blank: Partial<Job> = {
    profileId: profiles.some(({ id }) => id === chosen) ? chosen : profiles[0]?.id,
    fluid: 'unknown',
    promisedOn: null,
  };
  return (
    <SchemaForm
      schema={schema}
      formShape={FORM}
      initial={job?.body ?? blank}
      method={job ? 'PUT' : 'POST'}
      url={job ? `/jobs/${job.id}` : '/jobs'}
      version={job?.version}
      saveLabel={job ? 'Save' : 'Take it in'}
      choices={choices}
      longFields={LONG}
      onSaved={({ id }) => {
        router.push(`/jobs/${id}`);
        router.refresh();
      }}
    />
  );
}

const LONG = ['complaint'];
const FORM = jobSchema.omit({ kind: true });
