import type { HomeAnswer } from '../contract/home-check';
import type { HomeAnswers } from './home-answers';
import type { JobRecord } from './job-record';

/** Work that leaves what was felt before it behind. */
const MENDS = ['replaced', 'rebuilt'];

/** What counts of all that a customer tried: the last answer to each check since anything was mended. */
export function answersThatCount({
  homeChecks,
  work,
}: Pick<JobRecord, 'homeChecks' | 'work'>): HomeAnswers['answers'] {
  const mended = Math.max(
    0,
    ...work.flatMap(({ withdrawn, place, what }) => (!withdrawn && MENDS.includes(what.did) ? [place] : [])),
  );
  const counting = homeChecks.filter(({ withdrawn, place }) => !withdrawn && place > mended);
  const answers: Record<string, HomeAnswer> = {};
  for (const { what } of counting)
    for (const [id, answer] of Object.entries(what.answers)) if (answer !== 'not-tried') answers[id] = answer;
  return answers;
}
