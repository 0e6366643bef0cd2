import type { FamilyKind } from '../families/registry';
import type { Instrument } from '../metrology/instrument';
import type { RunEvent } from '../procedure/events';
import type { RunContext } from '../twin/family';
import type { Job } from './job';

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
  readonly startedAt: string;
  readonly finishedAt: string | null;
}

export interface StoredJob extends Stored<Job> {
  readonly createdAt: string;
  readonly profileName: string;
  readonly runs: readonly {
    readonly id: string;
    readonly startedAt: string;
    readonly finishedAt: string | null;
  }[];
}
