import { z } from 'zod';
import { listFields, oneOf } from './list-query';

/** What traces can be put in order by. */
export const TRACE_SORTS = { made: 'Made', name: 'Name', length: 'Length' } as const;
export type TraceSort = keyof typeof TRACE_SORTS;

/** What is asked of the list of traces; an address with nonsense in it asks for everything. */
export const traceQuerySchema = z.object({
  ...listFields,
  sort: oneOf(TRACE_SORTS, 'made'),
  /** Those of one run. */
  run: z.union([z.uuid(), z.literal('')]).catch(''),
});
export type TraceQuery = z.infer<typeof traceQuerySchema>;
