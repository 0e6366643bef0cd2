import type { Quantity } from '../quantities/units';
import type { Limit } from './keeps';
import type { Result } from './result';

interface Named {
  readonly id: string;
  readonly name: string;
  /** Whom the verdict is about; the unit where nothing is said. */
  readonly about?: Result['about'];
}

/**
 * A result of a bench test.
 *
 * - `looked`: everything that was looked at, each by its answer.
 * - `item`: one reading, against what is expected at it.
 * - `loss`: what was lost in a second between two readings, over a hold that was planned so long.
 * - `count`: how many readings in a row, from the first, were at or above a least one, against how many there must be.
 * - `health`: the source, referred to sea level.
 * - `own`: what no rule says.
 */
export type ResultRule =
  | { readonly of: 'looked' }
  | ({ readonly of: 'item'; readonly item: string } & Named)
  | ({
      readonly of: 'loss';
      readonly step: string;
      readonly start: string;
      readonly end: string;
      readonly quantity: Quantity;
      readonly limit: Limit;
      readonly planned_s: number;
    } & Named)
  | ({
      readonly of: 'count';
      readonly step: string;
      /** Reading of the twin that each of them is. */
      readonly measures: string;
      /** The least that counts, SI. */
      readonly least: number;
      readonly limit: Limit;
    } & Named)
  | { readonly of: 'health'; readonly step: string; readonly item: string }
  | { readonly of: 'own'; readonly make: () => readonly (Result | null)[] };
