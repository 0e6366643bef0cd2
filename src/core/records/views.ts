import type { Judgement } from './judgement';
import type { FamilyKind } from '../families/registry';
import type { Calibration } from '../metrology/calibration';
import type { Instrument } from '../metrology/instrument';
import type { RunEvent } from '../contract/events';
import type { RunContext } from '../contract/run-context';
import type { Assessment } from '../contract/result';
import type { Job } from './job';
import type { TraceRecord } from './trace-record';

/** A stored thing with its identity and the version that two screens must agree on. */
export interface Stored<T> {
  readonly id: string;
  readonly version: number;
  readonly body: T;
}

export interface StoredProfile extends Stored<{
  readonly kind: FamilyKind;
  readonly name: string;
  readonly maker: string;
}> {
  readonly kind: FamilyKind;
}

export type StoredInstrument = Stored<Instrument>;

/** A run as kept: what it was started under, and everything that happened on it. */
export interface StoredRun {
  readonly id: string;
  readonly jobId: string;
  readonly kind: FamilyKind;
  readonly context: RunContext<unknown>;
  readonly events: readonly RunEvent[];
  /** The run whose readings were carried over, where this is a re-test. */
  readonly continues: string | null;
  readonly startedAt: string;
  readonly finishedAt: string | null;
  /** What it came to, as written down when it was finished; null while it is not. */
  readonly judged: Judgement | null;
}

export interface StoredJob extends Stored<Job> {
  readonly createdAt: string;
  readonly profileName: string;
  /** What the last finished run came to; null where there is none. */
  readonly headline: string | null;
  readonly call: Assessment['call'] | null;
  readonly signed: boolean;
  readonly archived: boolean;
  readonly deleted: boolean;
  readonly runs: readonly {
    readonly id: string;
    readonly startedAt: string;
    readonly finishedAt: string | null;
    readonly technician: string;
  }[];
}

/** A trace as lists show it, with what is known of the run it is of; null where it is of none. */
export interface ListedTrace extends Stored<TraceRecord> {
  readonly jobTag: string | null;
  readonly kind: FamilyKind | null;
  readonly headline: string | null;
  readonly technician: string | null;
}

/** One entry in the history of a profile or instrument. */
export interface Version {
  readonly at: string;
  readonly version: number;
  readonly what: 'added' | 'changed' | 'calibrated' | 'taken off' | 'put back';
  /** The thing as it then was; null where only its place on the shelf changed. */
  readonly body: unknown;
  readonly calibration: Calibration | null;
}

/** A thing taken off the shelf: kept, and put back when asked. */
export interface RemovedThing {
  readonly id: string;
  /** What kind of thing, in a word. */
  readonly what: string;
  /** Its address under the interface. */
  readonly path: string;
  readonly name: string;
  readonly at: string;
}
