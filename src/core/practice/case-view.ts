import type { FamilyKind } from '../families/registry';
import type { Debrief } from './debrief';
import type { Truth } from './draw';
import type { LevelId } from './levels';

/** A case of practice as a screen has it. What is hidden stands in it only once the case is over. */
export interface CaseView {
  readonly id: string;
  readonly jobId: string;
  readonly runId: string;
  readonly tag: string;
  readonly kind: FamilyKind;
  readonly level: LevelId;
  readonly technician: string;
  readonly complaint: string;
  readonly beganAt: string;
  readonly endedAt: string | null;
  /** Why it counts for nothing; null where it counts. */
  readonly notCounted: string | null;
  /** By how much its own clock is ahead of the machine's, ms: waits were passed. */
  readonly ahead_ms: number;
  readonly told: { readonly seed: number; readonly truth: Truth; readonly debrief: Debrief } | null;
}
