import type { Quantity } from '../quantities/units';
import type { Limits } from '../metrology/verdict';
import type { Limit } from './keeps';
import type { Sentence } from '../quantities/sentence';
import type { Result } from './result';

interface Named {
  readonly id: string;
  readonly name: string;
  /** Whom the verdict is about; the unit where nothing is said. */
  readonly about?: Result['about'];
}

/** Limits, and where they come from. */
export interface Against {
  readonly limits: Limits;
  readonly source: string;
}

/**
 * A result of a test.
 *
 * - `looked`: everything that was looked at, each by its answer.
 * - `item`: one reading, against what is expected at it.
 * - `loss`: what was lost in a second between two readings, over a hold that was planned so long.
 * - `count`: how many readings in a row, from the first, were at or above a least one, against how many there must be.
 * - `parameter`: a number that several readings give together, by a closed form.
 * - `health`: the source, referred to sea level.
 * - `own`: what no rule says.
 */
export type ResultRule =
  | { readonly of: 'looked' }
  | ({
      readonly of: 'item';
      readonly item: string;
      /** In place of what is expected at it. */
      readonly against?: Against;
      /** A sentence on what it came to, from that and other readings by the names given; none where one was not taken. */
      readonly says?: {
        readonly from: Readonly<Record<string, string>>;
        readonly of: (result: Result, read: Readonly<Record<string, number>>) => Sentence | null;
      };
    } & Named)
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
  | ({
      readonly of: 'parameter';
      readonly step: string;
      readonly quantity: Quantity;
      /** Readings that it is worked out from, by the names that the closed form knows them by. */
      readonly from: Readonly<Record<string, string>>;
      /** The closed form, SI. Its sensitivities are taken by differences. */
      readonly value: (read: Readonly<Record<string, number>>) => number;
      /** What a sound unit has, and how far it may be off as a part of that; without them it is only noted. */
      readonly nominal?: { readonly value: number; readonly part: Limit };
      /** Limits of its own, where what a sound unit has is no single number. */
      readonly against?: Against;
      /** Why it cannot be told though all was read, in a sentence. */
      readonly unless?: (read: Readonly<Record<string, number>>) => Sentence | null;
      /** One of the readings may be out by so much beyond its gauge's class, SI. */
      readonly doubt?: {
        readonly about: string;
        readonly off: (read: Readonly<Record<string, number>>) => number;
      };
    } & Named)
  | { readonly of: 'health'; readonly step: string; readonly item: string }
  | { readonly of: 'own'; readonly make: () => readonly (Result | null)[] };
