import type { Vector } from '../model/descriptor';
import type { InputDoubt, SharedError } from '../twin/fit';

/** A state of the model in which readings are taken. */
export interface State {
  /** Place among the family's views. */
  readonly view: number;
  readonly inputs: Vector;
}

/** A number that was read, as the twin sees it. SI. */
export interface ReadingEvidence {
  readonly kind: 'reading';
  readonly id: string;
  /** What was read: the same by another gauge is of the same. */
  readonly of: string;
  readonly state: State;
  /** Place among the family's readings. */
  readonly place: number;
  readonly value: number;
  /** The pointer stood at the end of its scale: the true value lies there or beyond. */
  readonly off: 'above' | 'below' | null;
  readonly random: number;
  readonly shared: SharedError | null;
  readonly doubts: readonly InputDoubt[];
  /** What could have been read: a gross error may stand anywhere in it. */
  readonly scale: { readonly low: number; readonly high: number };
}

/** From one end to the other of what could have been read. */
export const spanOf = ({ scale }: Pick<ReadingEvidence, 'scale'>): number => scale.high - scale.low;

/** Something looked at, listened to or felt. */
export interface LookEvidence {
  readonly kind: 'look';
  readonly id: string;
  readonly item: string;
  /** The answer given; those that a healthy unit gives count as one. */
  readonly answer: string;
  readonly good: boolean;
  /** Answers that find something, of the same item: a false alarm may be any of them. */
  readonly bad: readonly string[];
  readonly miss: number;
  readonly falseAlarm: number;
  /** Faults that show at it, as the first of those answers; left out where the faults themselves say so. */
  readonly shownBy?: readonly string[];
}

export type Evidence = ReadingEvidence | LookEvidence;
