import { FAMILIES } from '../families/registry';
import { compareFits, type Change } from '../twin/compare';
import { fitTwin } from '../procedure/fit-run';
import type { Descriptor } from '../model/descriptor';
import type { Result } from '../contract/result';
import { pairedResults } from '../records/paired-results';
import { judgedRun } from '../records/judged-run';
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

export type BeforeAfter =
  | { ok: true; parameters: readonly ParameterChange[]; results: readonly ResultPair[] }
  | { ok: false; why: string; results: readonly ResultPair[] };

const WHY = {
  'too-few-readings': 'One of the two tests has too few readings to tell the unit’s parameters apart.',
  'no-convergence': 'The readings of one of the two tests do not settle on any one unit.',
} as const;

const OF_A_VEHICLE =
  'The numbers behind the readings are told apart for a unit on its bench, not for a whole vehicle. Its results stand side by side.';

/** Two tests of one unit side by side: as results, and as the parameters of the twin that they show. Handbook 7. */
export function beforeAfter(before: StoredRun, after: StoredRun): BeforeAfter {
  const family = FAMILIES[before.kind];
  const [a, b] = [judgedRun(before), judgedRun(after)];
  const results = pairs(a.results, b.results);
  // A whole vehicle has so many numbers that telling them apart would hold the server up for a minute.
  if (!family.member) return { ok: false, why: OF_A_VEHICLE, results };
  const [fitA, fitB] = [fitTwin(family, before.context, a.state), fitTwin(family, after.context, b.state)];
  if (!fitA.ok || !fitB.ok) {
    const failed = fitA.ok ? fitB : fitA;
    return { ok: false, why: failed.ok ? '' : WHY[failed.why], results };
  }
  const parameters = compareFits(fitA.fit, fitB.fit).map((change) => {
    const { id, name, quantity } = family.parameters[change.place]!;
    return { ...change, id, name, quantity };
  });
  return { ok: true, parameters, results };
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
