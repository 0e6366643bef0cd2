import { FAMILY_KINDS } from '@/core/families/registry';
import {
  installationReadings,
  steadyReadings,
  type SteadyAnswer,
  type SteadyOutcome,
} from '@/core/workings/open-models';
import { findWorking, WORKINGS } from '@/core/workings/registry';
import { runWorking, type Answered } from '@/core/contract/working';
import { done, invalid, refused, type Outcome } from './outcome';
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

/** Every steady reading of one model, as another program asks for it. SI in and out. */
export function askModel(kind: string, asked: unknown): Outcome<SteadyAnswer> {
  const known = FAMILY_KINDS.find((one) => one === kind);
  return known ? answered(steadyReadings(known, asked)) : missing('model');
}

/** The same of a source, a unit and a load joined at their nodes. */
export const askInstallation = (asked: unknown): Outcome<SteadyAnswer> =>
  answered(installationReadings(asked));

const answered = (outcome: SteadyOutcome): Outcome<SteadyAnswer> =>
  outcome.ok ? done(outcome.answer) : invalid(outcome.issues);
