import { z } from 'zod';
import { questionSchema, replyTo, type Replied } from '../diagnosis/question';
import { FAMILIES, FAMILY_KINDS } from '../families/registry';

/** What another program asks of a diagnosis: which kind of installation, and all that was seen of it. SI. */
export const diagnosisSchema = questionSchema.extend({
  kind: z.enum(FAMILY_KINDS, `Kind: one of ${FAMILY_KINDS.join(', ')}.`),
});

/** Answers it, or says what is wrong with it. */
export function answerDiagnosis(asked: unknown): Replied {
  const parsed = diagnosisSchema.safeParse(asked);
  if (!parsed.success)
    return { ok: false, issues: parsed.error.issues.map(({ path, message }) => ({ path, message })) };
  const { kind, ...question } = parsed.data;
  return replyTo(FAMILIES[kind], question);
}
