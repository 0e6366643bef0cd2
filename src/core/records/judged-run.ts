import type { RunEvent } from '../contract/events';
import { FAMILIES } from '../families/registry';
import { instrumentsOf, gateRule } from '../procedure/measured-item';
import { contextWith } from '../procedure/exchange';
import { applyEvent, reduceRun } from '../procedure/run';
import { type RunState } from '../contract/run-state';
import { verdictWord, type Assessment, type Result } from '../contract/result';
import type { Judgement } from './judgement';
import { pairedResults } from './paired-results';
import { PROGRAM_VERSION } from './program';
import type { StoredRun } from './views';

/** The state of a stored run. */
export function stateOf(run: Pick<StoredRun, 'context' | 'events'>): RunState {
  const { procedure, rig, shelf } = run.context;
  return reduceRun(procedure, run.events, gateRule(instrumentsOf(rig, shelf)));
}

/** The state of a run after one more event: the same as that of all its events anew, without going through them. */
export function stateAfter(
  run: Pick<StoredRun, 'context' | 'events'>,
  state: RunState,
  event: RunEvent,
): RunState {
  // What is taken back changes what came before it; a step that is added changes the procedure.
  if (event.type === 'taken-back' || event.type === 'added')
    return stateOf({ context: contextWith(run.context, [event]), events: [...run.events, event] });
  const { procedure, rig, shelf } = run.context;
  return applyEvent(procedure, state, event, gateRule(instrumentsOf(rig, shelf)));
}

/** A run with its results and what they come to. */
export interface JudgedRun {
  readonly state: RunState;
  readonly results: readonly Result[];
  readonly assessment: Assessment;
}

type Judgeable = Pick<StoredRun, 'kind' | 'context' | 'events'>;

/** A run judged by the rules of the program that runs now. */
export function judgedNow(run: Judgeable): JudgedRun {
  const family = FAMILIES[run.kind];
  const state = stateOf(run);
  const results = family.results(run.context, state);
  return { state, results, assessment: family.assess(run.context, state, results) };
}

/** A run as it was judged when it was finished; one that is not finished, as it stands now. */
export function judgedRun(run: Judgeable & Pick<StoredRun, 'judged'>): JudgedRun {
  if (!run.judged) return judgedNow(run);
  const { results, assessment } = run.judged;
  return { state: stateOf(run), results, assessment };
}

/** What is written down as a run is finished. */
export function judgementOf(run: Judgeable & Pick<StoredRun, 'id'>, how: Judgement['how']): Judgement {
  const { results, assessment } = judgedNow(run);
  return { type: 'judged', run: run.id, program: PROGRAM_VERSION, how, results, assessment };
}

/** What today's program says of a finished run, where that is not what was written. */
export interface SaidOtherwise {
  /** Today's headline, where it differs. */
  readonly headline: string | null;
  /** Results with another verdict, each with the words then and now; null: there was or is no such result. */
  readonly verdicts: readonly {
    readonly name: string;
    readonly then: string | null;
    readonly now: string | null;
  }[];
}

/**
 * Compares what was written of a finished run with what today's program makes of its readings.
 *
 * @returns null where nothing differs, or the run is not finished; 'unreadable' where today's program cannot judge it
 */
export function saidOtherwise(
  run: Judgeable & Pick<StoredRun, 'judged'>,
): SaidOtherwise | 'unreadable' | null {
  if (!run.judged) return null;
  const { results: then, assessment } = run.judged;
  let today: JudgedRun;
  try {
    today = judgedNow(run);
  } catch {
    return 'unreadable';
  }
  const verdicts = pairedResults(then, today.results).flatMap(({ a, b }) => {
    const [before, now] = [a, b].map((result) => (result ? verdictWord(result.verdict) : null));
    return before === now ? [] : [{ name: (a ?? b)!.name, then: before ?? null, now: now ?? null }];
  });
  const { headline } = today.assessment;
  if (verdicts.length === 0 && headline === assessment.headline) return null;
  return { headline: headline === assessment.headline ? null : headline, verdicts };
}

const HOW: Record<Judgement['how'], readonly [how: string, why: string]> = {
  finished: ['Judged as the test was finished', ''],
  moved: ['Judged by the rules in force when the test was finished', ''],
  imported: ['Judged on import', ': the file that it came in holds readings and limits, and no verdicts'],
};

/** How the verdicts of a run came about, in words. */
export const judgedWords = ({ how, program }: Judgement): string => {
  const [words, why] = HOW[how];
  return `${words}, by version ${program}${why}`;
};

/** What today's program says otherwise, a sentence each. */
export function otherwiseSentences(otherwise: SaidOtherwise | 'unreadable'): string[] {
  if (otherwise === 'unreadable') return ['Today’s program cannot judge these readings.'];
  const { headline, verdicts } = otherwise;
  return [
    ...(headline ? [`Headline today: ${headline}.`] : []),
    ...verdicts.map(({ name, then, now }) =>
      then === null
        ? `${name}: ${now} today; not judged then.`
        : now === null
          ? `${name}: ${then} as written; not judged today.`
          : `${name}: ${then} as written; ${now.toLowerCase()} today.`,
    ),
  ];
}
