import { z } from 'zod';

/** Which jobs a list shows. */
export const JOB_FILTERS = {
  current: 'All current jobs',
  'on-bench': 'On the bench',
  untested: 'Not tested yet',
  faulty: 'The unit fails',
  open: 'Too close to call',
  incomplete: 'Not complete',
  'weak-supply': 'Weak supply',
  healthy: 'Met every limit',
  unsigned: 'Tested, not signed',
  signed: 'Signed',
  archived: 'Archived',
  deleted: 'Deleted',
} as const;
export type JobFilter = keyof typeof JOB_FILTERS;

export const JOB_SORTS = {
  newest: 'Newest first',
  oldest: 'Oldest first',
  promised: 'By date promised',
  tag: 'By tag',
} as const;
export type JobSort = keyof typeof JOB_SORTS;

/** Jobs on one page of a list. */
export const JOBS_PER_PAGE = 50;

const oneOf = <K extends string>(choices: Readonly<Record<K, string>>, otherwise: NoInfer<K>) =>
  z.enum(Object.keys(choices) as [K, ...K[]]).catch(otherwise);

/** What is asked of the list of jobs; an address with nonsense in it asks for everything. */
export const jobQuerySchema = z.object({
  q: z.string().max(200).catch(''),
  show: oneOf(JOB_FILTERS, 'current'),
  sort: oneOf(JOB_SORTS, 'newest'),
  page: z.coerce.number().int().min(1).max(100_000).catch(1),
});
export type JobQuery = z.infer<typeof jobQuerySchema>;

/** Words of a search, as letters and digits: everything else separates them. */
export const searchWords = (q: string): string[] => q.match(/[\p{L}\p{N}]+/gu) ?? [];
