import { FAMILIES } from '../families/registry';
import { instrumentsOf, zeroGate } from '../procedure/measured-item';
import { reduceRun, type RunState } from '../procedure/run';
import type { Assessment, Result } from '../twin/result';
import type { StoredRun } from './views';

/** The state of a stored run. */
export function stateOf(run: Pick<StoredRun, 'context' | 'events'>): RunState {
  const { procedure, rig, shelf } = run.context;
  return reduceRun(procedure, run.events, zeroGate(instrumentsOf(rig, shelf)));
}

/** A run with its results and what they come to. */
export interface JudgedRun {
  readonly state: RunState;
  readonly results: readonly Result[];
  readonly assessment: Assessment;
}

/** A stored run judged by what it was made under. */
export function judgedRun(run: Pick<StoredRun, 'kind' | 'context' | 'events'>): JudgedRun {
  const family = FAMILIES[run.kind];
  const state = stateOf(run);
  const results = family.results(run.context, state);
  return { state, results, assessment: family.assess(run.context, state, results) };
}
