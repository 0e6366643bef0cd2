import { sentence, type Sentence, type SentenceValue } from '../quantities/sentence';
import type { Quantity } from '../quantities/units';

/** A number that a trace tells, with its standard uncertainty from noise; a gauge's own error is not in it. SI. */
export interface Told {
  readonly told: true;
  readonly value: number;
  readonly u: number;
  readonly quantity: Quantity;
}

/** A number that the trace does not tell: why, and what would. */
export interface Untold {
  readonly told: false;
  readonly why: Sentence;
  readonly wanted: Sentence | null;
}

export type Estimate = Told | Untold;

export const told = (value: number, u: number, quantity: Quantity): Told => ({
  told: true,
  value,
  u,
  quantity,
});

type Values = Readonly<Record<string, SentenceValue>>;

/** @param wanted what would tell it; empty where nothing would */
export const untold = (why: string, wanted = '', values: Values = {}): Untold => ({
  told: false,
  why: sentence(why, values),
  wanted: wanted ? sentence(wanted, values) : null,
});

/** Readings that never differ tell nothing of a fall. */
export const ONE_READING = untold(
  'Every reading is the same: the gauge stood at an end of its range, or its step is too coarse.',
  'Read it on a gauge of a wider range or a finer step.',
);
