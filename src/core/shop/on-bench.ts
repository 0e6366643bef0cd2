import type { LiveState } from '../procedure/live';
import type { StoredJob } from '../records/views';
import type { RunningWait } from './waits';

/** One run on the bench: where it stands, what is live, which gauges it holds. */
export interface OnBench {
  readonly runId: string;
  readonly job: StoredJob;
  readonly stands: string;
  readonly progress: { done: number; of: number };
  readonly live: LiveState;
  readonly wait: RunningWait | null;
  readonly gauges: readonly string[];
  readonly startedAt: string;
}
