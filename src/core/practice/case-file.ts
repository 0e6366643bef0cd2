import { z } from 'zod';
import { FAMILY_KINDS } from '../families/registry';
import { LEVEL_IDS } from './levels';

/** Seeds of cases: whole numbers that are easily written down. */
export const seedSchema = z
  .int('Seed: a whole number.')
  .min(1, 'Seed: 1 or above.')
  .max(2_147_483_647, 'Seed: 2 147 483 647 at the most.');

const fields = {
  format: z.literal('hard-pedal-practice', 'This is no file of a practice case.'),
  revision: z.literal(1, 'This practice file is of a later program.'),
  kind: z.enum(FAMILY_KINDS),
  level: z.literal(LEVEL_IDS),
  seed: seedSchema,
};

/** A case as it is shared: what it is drawn from, and what shows that nobody altered it since. No truth stands in it. */
export const caseFileSchema = z.strictObject({
  ...fields,
  /** SHA-256 over the rest, as canonical JSON. It guards against a slip, not against a forger. */
  digest: z.string().regex(/^[0-9a-f]{64}$/),
});
export type CaseFile = z.infer<typeof caseFileSchema>;
