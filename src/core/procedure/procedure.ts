import type { Quantity } from '../quantities/units';
import type { CautionId } from './cautions';

/** State of a vacuum or pressure source that a step needs. */
export type SourceState = 'on' | 'off';

/** A number to be read and captured. */
export interface ReadingItem {
  readonly kind: 'reading';
  readonly id: string;
  readonly prompt: string;
  readonly port: string;
  readonly quantity: Quantity;
  /** The twin's reading that this measures; 'input' and 'supply' are set or found, not predicted. */
  readonly measures: string;
  /** Where the input is to be set for this reading, Pa. */
  readonly target_Pa?: number;
  /** Pressure is being raised here: the profile's proof limit, at which the technician stops, Pa. */
  readonly stopAt_Pa?: number;
  /** Reading item that says at what input this one was taken; without it, the target or a released input. */
  readonly inputFrom?: string;
  /** Reading of the source under the same load: once taken, it counts for this item in place of an earlier one. */
  readonly sourceFrom?: string;
  /** Elapsed time of a hold at this reading, as planned, s. */
  readonly elapsed_s?: number;
  /** Only these gauges of the port (tags): a vented zero is read on each. */
  readonly gauge?: string;
  /** The step goes on only when the reading is this close to zero: a pressure hazard is never ticked away. */
  readonly gate?: 'zero';
}

export interface Answer {
  readonly id: string;
  readonly label: string;
  readonly finds: 'good' | 'bad' | 'unknown';
}

/** Something to be looked at, listened to or asked. The first answer is what a healthy unit gives. */
export interface ObservationItem {
  readonly kind: 'observation';
  readonly id: string;
  readonly prompt: string;
  /** What it is called in the results. */
  readonly name: string;
  readonly point?: string;
  readonly answers: readonly [Answer, Answer, ...Answer[]];
}

/** A wait that is counted down. */
export interface WaitItem {
  readonly kind: 'wait';
  readonly id: string;
  readonly prompt: string;
  readonly duration_s: number;
  /** 'key': starts when the technician says so. 'reading': started when the reading before it was captured. */
  readonly starts: 'key' | 'reading';
}

export type Item = ReadingItem | ObservationItem | WaitItem;

/** One step of a test: what must be so before it, what is done in it, and what it leaves behind. */
export interface Step {
  readonly id: string;
  readonly title: string;
  readonly instruction: string;
  readonly cautions: readonly CautionId[];
  /** State that the vacuum source must be in; the run asks for it where it differs. */
  readonly vacuum: SourceState;
  /** Steps that must have been done, or skipped with a reason, before this one. */
  readonly needs: readonly string[];
  /** What the step uses up or leaves set, in words for the live strip. */
  readonly leaves?: { readonly input?: 'applied' | 'released'; readonly charge?: 'spent' };
  /** A safety step cannot be skipped. */
  readonly mandatory?: true;
  readonly items: readonly Item[];
}

/** The steps of a bench test, as data. */
export interface Procedure {
  readonly id: string;
  readonly version: number;
  readonly steps: readonly Step[];
}

/** Finds an item and its step. */
export function findItem(procedure: Procedure, id: string): { step: Step; item: Item } | null {
  for (const step of procedure.steps) {
    const item = step.items.find((candidate) => candidate.id === id);
    if (item) return { step, item };
  }
  return null;
}
