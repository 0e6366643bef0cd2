import type { Sentence } from '../quantities/sentence';
import type { Quantity } from '../quantities/units';

/** What braking is like once nothing assists the foot, or once only what is stored does: by a profile, everything sound. */
export interface WithoutPower {
  /** For the customer, in a few plain sentences. */
  readonly plain: readonly Sentence[];
  /** The numbers behind them, SI. */
  readonly figures: readonly {
    readonly name: string;
    readonly value: number;
    readonly quantity: Quantity;
    /** How closely it is told. */
    readonly u?: number;
  }[];
}
