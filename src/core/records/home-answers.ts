import { z } from 'zod';
import { HOME_ANSWERS, type HomeAnswer, type HomeCheck } from '../contract/home-check';

const answer = z.enum(Object.keys(HOME_ANSWERS) as [HomeAnswer, ...HomeAnswer[]]);

const NOTHING = 'Nothing is answered yet: choose what came of one check at least, or write what was said.';

const saysNothing = (answers: Readonly<Record<string, unknown>>, words: string) =>
  words === '' && Object.values(answers).every((one) => one === 'not-tried');

/** What a customer tried at home, and what came of it. */
export const homeAnswersSchema = z
  .strictObject({
    /** By the checks of the kind that was tested. */
    answers: z.record(z.string().min(1).max(40), answer),
    /** What was said besides. */
    words: z.string().trim().max(2_000),
    /** Typed in at the shop, or sent back as a file. */
    how: z.enum(['typed', 'file']),
  })
  .refine(({ answers, words }) => !saysNothing(answers, words), { path: ['answers'], message: NOTHING });
export type HomeAnswers = z.infer<typeof homeAnswersSchema>;

/** Fields of a form for the answers to some checks. */
export const homeFields = (checks: readonly HomeCheck[]) =>
  z
    .strictObject({
      ...Object.fromEntries(
        checks.map(({ id, name }) => [id, answer.meta({ title: name, labels: HOME_ANSWERS })]),
      ),
      words: z
        .string()
        .trim()
        .max(2_000, 'What was said: 2 000 characters at the most.')
        .meta({ title: 'What was said besides' }),
    })
    .refine(({ words, ...answers }) => !saysNothing(answers, words), { path: ['words'], message: NOTHING });

const HEAD = 'Hard Pedal home check';

/** A small file to be filled in and sent back: plain text, one line to a check. */
export function homeFile(
  tag: string,
  checks: readonly HomeCheck[],
  expects: (check: HomeCheck) => string,
): string {
  return [
    `${HEAD}: ${tag}`,
    'Write yes behind the colon where it is as described, and no where it is not. Leave it empty where you did not try it.',
    'Send this file back to us.',
    '',
    ...checks.flatMap((check) => [`${check.name}. ${check.try} ${expects(check)}`, `${check.id}: `, '']),
    'said: ',
    '',
  ].join('\r\n');
}

/** Longest file that is read, characters. */
export const MOST_HOME_FILE = 100_000;

const YES = /^(y|yes|ok|x)\b/i;
const NO = /^(n|no|not)\b/i;

export type ReadHomeFile =
  | { readonly ok: true; readonly answers: HomeAnswers['answers']; readonly words: string }
  | { readonly ok: false; readonly why: string };

/** A file that came back. What is written behind a check is yes, no, or nothing that could be told. */
export function readHomeFile(text: string, tag: string, checks: readonly HomeCheck[]): ReadHomeFile {
  if (text.length > MOST_HOME_FILE) return { ok: false, why: 'This file is far longer than a home check.' };
  const lines = text.replace(/^\uFEFF/, '').split(/\r?\n/);
  const head = lines.find((line) => line.startsWith(`${HEAD}:`));
  if (!head) return { ok: false, why: 'This is no home check: its first line does not say so.' };
  const of = head.slice(HEAD.length + 1).trim();
  if (of !== tag)
    return { ok: false, why: `This home check is of ${of.slice(0, 80)}, and this job is ${tag}.` };
  const behind = (id: string) =>
    lines
      .find((line) => line.startsWith(`${id}:`))
      ?.slice(id.length + 1)
      .trim() ?? '';
  const answers = Object.fromEntries(
    checks.map(({ id }): [string, HomeAnswer] => [
      id,
      YES.test(behind(id)) ? 'as-described' : NO.test(behind(id)) ? 'otherwise' : 'not-tried',
    ]),
  );
  if (Object.values(answers).every((one) => one === 'not-tried'))
    return { ok: false, why: 'Nothing is answered in this file with yes or no.' };
  return { ok: true, answers, words: behind('said').slice(0, 2_000) };
}
