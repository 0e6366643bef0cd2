import { z } from 'zod';
import { assessmentSchema, resultSchema } from '../contract/result';

/** How a verdict came into the record. */
const JUDGED_HOW = ['finished', 'moved', 'imported'] as const;

/**
 * What a finished run came to, as it was judged once and for all: results, verdicts and headline, with the version of
 * the program that judged.
 */
export const judgementSchema = z.strictObject({
  type: z.literal('judged'),
  run: z.uuid(),
  /** Version of the program that judged. */
  program: z.string().min(1).max(40),
  /**
   * 'finished': as the run was finished. 'moved': when verdicts began to be written down, by the rules that were in
   * force until then. 'imported': as a job file without verdicts arrived.
   */
  how: z.enum(JUDGED_HOW),
  results: z.array(resultSchema).max(2_000).readonly(),
  assessment: assessmentSchema,
});
export type Judgement = Readonly<z.infer<typeof judgementSchema>>;
