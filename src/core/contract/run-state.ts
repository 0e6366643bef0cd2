import type { RunEventOf } from './events';
import type { Sources } from './sources';

/** A reading as captured. A struck reading is kept and no longer counts. */
export interface Capture extends Omit<RunEventOf<'captured'>, 'type'> {
  readonly struck: boolean;
  /** A gate's reading that was not yet at zero: kept, but the gate stays shut. */
  readonly gateShut: boolean;
  /** A part or line changed since, or what it hung on was done anew: kept, marked, no longer counted. */
  readonly stale: boolean;
  /** A gate within bounds that a source was changed after: what was read still counts, and opens nothing any more. */
  readonly lapsed: boolean;
  /** Counts up each time the gauges are vented anew: a reading goes with the zeros of its own session. */
  readonly session: number;
  /** How many events of the run stand before it. */
  readonly place: number;
}

export interface WaitState {
  readonly startedAt: string;
  readonly endedAt: string | null;
}

/** A run as its events leave it. */
export interface RunState {
  /** Number of events: the version that two screens must agree on. */
  readonly version: number;
  /** Sources as the technician said last that they stand. */
  readonly sources: Sources;
  readonly captures: readonly Capture[];
  readonly observations: Readonly<Record<string, RunEventOf<'observed'>>>;
  readonly waits: Readonly<Record<string, WaitState>>;
  readonly skipped: Readonly<Record<string, string>>;
  /** Reasons given to go on in spite of an answer that stops the test, by item. */
  readonly goneOn: Readonly<Record<string, string>>;
  /** The test was ended here, for this reason: only making safe is left. */
  readonly ended: string | null;
  /** Step that the technician does next, out of the usual order, as long as something of it is to be done. */
  readonly chosen: string | null;
  /** Item reopened for a repeat, if any. */
  readonly reopened: string | null;
  readonly session: number;
  /** Ports that a source or pressure has reached since they were last open, and at which event last: it may stand there still. */
  readonly reachedAt: Readonly<Record<string, number>>;
  /** Readings placed before this were made before lines were off: they say nothing of what is on the bench now. */
  readonly disturbedAt: number;
  /** Steps added to the procedure while the run was done that are to be done; one taken back is not. */
  readonly added: readonly string[];
  /** Steps whose cautions were acknowledged since the source last changed. */
  readonly acknowledged: readonly string[];
  readonly finished: boolean;
  readonly startedAt: string | null;
  readonly lastAt: string | null;
}
