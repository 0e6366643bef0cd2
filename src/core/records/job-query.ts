import { z } from 'zod';
import { listFields, oneOf } from './list-query';

/** Which jobs a list shows. */
export const JOB_FILTERS = {
  current: 'All current jobs',
  'on-bench': 'On the bench',
  untested: 'Not tested yet',
  unsigned: 'Tested, not signed',
  signed: 'Signed',
  archived: 'Archived',
  deleted: 'Deleted',
} as const;
export type JobFilter = keyof typeof JOB_FILTERS;

/** What jobs can be put in order by. */
export const JOB_SORTS = { taken: 'Taken in', promised: 'Promised', tag: 'Tag' } as const;
export type JobSort = keyof typeof JOB_SORTS;

/** What is asked of the list of jobs; an address with nonsense in it asks for everything. */
export const jobQuerySchema = z.object({
  ...listFields,
  show: oneOf(JOB_FILTERS, 'current'),
  sort: oneOf(JOB_SORTS, 'taken'),
});
export type JobQuery = z.infer<typeof jobQuerySchema>;
