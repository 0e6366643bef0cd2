import type { Quantity } from '../quantities/units';

/** What is said of a result about the source that falls short. */
export interface Shortfall {
  /** A sentence with {value}, what it makes, and {low}, what it should. */
  readonly words: string;
  /** What {value} and {low} are; a depression where nothing is said. */
  readonly quantity?: Quantity;
  /**
   * What a healthy unit would show of one reading on either: {here} on what the source makes, {there} on what it should.
   */
  readonly shows?: {
    readonly reading: string;
    readonly quantity: Quantity;
    /** Inputs besides the source and the room, SI. */
    readonly at: Readonly<Record<string, number>>;
  };
}

/** What turns the verdicts of a run into plain words. */
export interface AssessRules {
  /** Item whose room holds for what is said of the source. */
  readonly room: string;
  /** By result about the source: that of its health has its words already. */
  readonly shortfalls: Readonly<Record<string, Shortfall>>;
  /** Results that must have been taken before a weak supply can be told from a weak unit. */
  readonly decisive: readonly string[];
  /** Failures that a failing result about the source explains, by that result: no finding against the unit. */
  readonly excuses: Readonly<Record<string, readonly string[]>>;
}
