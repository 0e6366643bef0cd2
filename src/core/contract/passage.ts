import type { Limit } from './keeps';

/**
 * A step in which two gauges are read on one passage that should pass the pressure straight through: it tells the scale of
 * one gauge against the other, and a threshold of the passage from a gauge's zero. Handbook 5.
 */
export interface Passage {
  readonly step: string;
  /** Rows of the step: their items are `<row>.input` and `<row>.output`. */
  readonly rows: readonly string[];
  /** Inputs that the rows aim for, Pa. */
  readonly inputs_Pa: readonly number[];
  /** Reading of the twin that the output is. */
  readonly measures: string;
  /** How far the output may stand from the input: a fixed amount, or a part of the input where that is more. */
  readonly offset: Limit;
  readonly part: Limit;
}

/** Largest departure of output from input that a passage may show, Pa. */
export const passageAllows_Pa = (
  { offset, part }: Pick<Passage, 'offset' | 'part'>,
  input_Pa: number,
): number => Math.max(part.value * Math.abs(input_Pa), offset.value);
