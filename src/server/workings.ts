import { findWorking, WORKINGS } from '@/core/workings/registry';
import { runWorking, type Answered } from '@/core/workings/working';
import { done, refused, type Outcome } from './outcome';
import { missing } from './store';

/** What can be called, by name. */
export const workingsList = () =>
  WORKINGS.map(({ name, title, about, source }) => ({ name, title, about, source }));

/** Runs a named calculation of the core: the same that the screens use. SI in and out. */
export function callWorking(name: string, input: unknown): Outcome<{ answers: readonly Answered[] }> {
  const working = findWorking(name);
  if (!working) return missing('working');
  const outcome = runWorking(working, input);
  if (outcome.ok) return done({ answers: outcome.answers });
  const message = Object.values(outcome.fields)[0] ?? 'The request is not understood.';
  return refused({ code: 'invalid', message, fields: outcome.fields });
}
