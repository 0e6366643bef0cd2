import { FAMILIES } from '../families/registry';
import { compareFits, type Change } from '../twin/compare';
import { fitTwin } from '../procedure/fit-run';
import type { FitOutcome } from '../twin/fit';
import type { Descriptor } from '../model/descriptor';
import type { Result } from '../contract/result';
import { pairedResults } from '../records/paired-results';
import { judgedRun, stateOf } from '../records/judged-run';
import type { StoredRun } from '../records/views';

/** One parameter before and after, under its name. */
export interface ParameterChange extends Change, Pick<Descriptor, 'id' | 'name' | 'quantity'> {}

/** One result before and after. */
export interface ResultPair {
  readonly id: string;
  readonly name: string;
  readonly before: Result | null;
  readonly after: Result | null;
  /** The same readings stand behind both: carried over, not taken again. */
  readonly carried: boolean;
}

/** What changed in the unit, or why that cannot be told. */
export type Moved =
  | { readonly ok: true; readonly parameters: readonly ParameterChange[] }
  | { readonly ok: false; readonly why: string };

/** What of two tests of one unit is compared. */
type Compared = Pick<StoredRun, 'kind' | 'context' | 'events'>;

const WHY = {
  'too-few-readings': 'One of the two tests has too few readings to tell the unit’s parameters apart.',
  'no-convergence': 'The readings of one of the two tests do not settle on any one unit.',
} as const;

const OF_A_VEHICLE =
  'The numbers behind the readings are told apart for a unit on its bench, not for a whole vehicle. Its results stand side by side.';

/** Two tests of one unit side by side, as the parameters of the twin that they show: fits, which take seconds. Handbook 7. */
export function movedBetween(before: Compared, after: Compared): Moved {
  const family = FAMILIES[before.kind];
  // A whole vehicle has so many numbers that telling them apart would take a minute.
  if (!family.member) return { ok: false, why: OF_A_VEHICLE };
  const fits = [before, after].map((run) => fitTwin(family, run.context, stateOf(run)));
  const [a, b] = fits as [FitOutcome, FitOutcome];
  if (!a.ok) return { ok: false, why: WHY[a.why] };
  if (!b.ok) return { ok: false, why: WHY[b.why] };
  const parameters = compareFits(a.fit, b.fit).map((change) => {
    const { id, name, quantity } = family.parameters[change.place]!;
    return { ...change, id, name, quantity };
  });
  return { ok: true, parameters };
}

/** The same as results. */
export function resultsBetween(before: StoredRun, after: StoredRun): ResultPair[] {
  return pairs(judgedRun(before).results, judgedRun(after).results);
}

function pairs(before: readonly Result[], after: readonly Result[]): ResultPair[] {
  return pairedResults(before, after).flatMap(({ a, b }): ResultPair[] => {
    const taken = [a, b].some((result) => result && result.verdict !== 'not-taken');
    const carried = Boolean(
      a && b && a.captures.length > 0 && a.captures.every((capture) => b.captures.includes(capture)),
    );
    const { id, name } = (b ?? a)!;
    return taken ? [{ id, name, before: a, after: b, carried }] : [];
  });
}
