import type { Sentence } from '../quantities/sentence';
import type { Quantity } from '../quantities/units';

/** What a vehicle tells of itself at one moment, by the ids of a map: a number in SI, the value of a state, or yes and no; null where it has none. */
export type Values = Readonly<Record<string, number | boolean | null>>;

/** A number of what a vehicle told; null where it told none. */
export function numberIn(values: Values, id: string): number | null {
  const value = values[id];
  return typeof value === 'number' ? value : null;
}

/** One moment of what a vehicle told. */
export interface Heard {
  /** Since the log began, s. */
  readonly t_s: number;
  readonly values: Values;
  /** Ids of what was under a tester's control then. */
  readonly asked: readonly string[];
}

/** A number or a word that a step shows of it. A vehicle's own sensor is no calibrated instrument: none of these is a reading of a test. */
export interface Figure {
  readonly id: string;
  readonly name: string;
  readonly shows:
    { readonly quantity: Quantity; readonly value: number | null } | { readonly word: string | null };
}

/** What a log tells of one thing: a number in SI with its standard uncertainty from noise, or why it does not. */
export interface FoundInLog {
  readonly name: string;
  readonly found:
    | { readonly told: true; readonly value: number; readonly u: number; readonly quantity: Quantity }
    | { readonly told: false; readonly why: Sentence; readonly wanted: Sentence | null };
}

/** A step in which the vehicle's own interface helps. What it says to do by hand goes without it. */
export interface ThroughInterface {
  /** Ids of the values that are asked for while the step is at hand. */
  readonly reads: readonly string[];
  /** What the technician may have the unit do: a value with states, and which of them. */
  readonly asks: { readonly value: string; readonly state: string; readonly says: string } | null;
  readonly shows: (values: Values) => readonly Figure[];
  /** What is drawn as it goes, and what is shaded while it does. */
  readonly course: {
    readonly name: string;
    readonly quantity: Quantity;
    readonly most: number;
    readonly of: (values: Values) => number | null;
    /** Between which the unit means to keep it; null where it does not say. */
    readonly keeps: (values: Values) => readonly [low: number, high: number] | null;
    readonly shaded: string;
    readonly isShaded: (values: Values) => boolean;
  };
  /** @param profile of the part that the step belongs to */
  readonly tells: (
    log: readonly Heard[],
    profile: unknown,
  ) => { readonly found: readonly FoundInLog[]; readonly says: readonly Sentence[] };
}
