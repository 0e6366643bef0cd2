import type { StoredRun } from '../records/views';
import { nextAction } from '../procedure/next-action';
import { waitStart } from '../procedure/run';
import { type RunState } from '../contract/run-state';

/** A wait that is counting on the bench. */
export interface RunningWait {
  readonly runId: string;
  readonly tag: string;
  readonly prompt: string;
  /** ISO time at which it is over. */
  readonly endsAt: string;
}

/**
 * The wait a run stands at, if it has been started.
 *
 * @param ahead_s by how much the run's own clock is ahead of the machine's
 */
export function waitOf(run: StoredRun, state: RunState, tag: string, ahead_s = 0): RunningWait | null {
  const action = nextAction(run.context.procedure, state);
  if (action.kind !== 'item' || action.item.kind !== 'wait') return null;
  const from = waitStart(run.context.procedure, state, action.item.id);
  if (!from) return null;
  const endsAt = new Date(Date.parse(from) + (action.item.duration_s - ahead_s) * 1000).toISOString();
  return { runId: run.id, tag, prompt: action.item.prompt, endsAt };
}
