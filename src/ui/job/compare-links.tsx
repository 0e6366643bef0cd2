'use client';

import type { StoredJob } from '@/core/records/views';
import { LinkButton } from '../link-button';
import type { Visit } from './visit';

/** Before and after: offered as soon as there are two finished tests. */
export function CompareLinks({ job, visits }: { job: StoredJob; visits: readonly Visit[] }) {
  const finished = visits.filter(({ run }) => run.finishedAt);
  if (finished.length < 2) return null;
  return (
    <LinkButton href={`/jobs/${job.id}/compare`} variant="outlined">
      Before and after
    </LinkButton>
  );
}
