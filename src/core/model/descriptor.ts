import type { Quantity } from '../quantities/units';

/** One named number of a model, in its declared place. SI. */
export interface Descriptor {
  readonly id: string;
  readonly name: string;
  readonly quantity: Quantity;
}

/** Numbers in the order of their descriptors. */
export type Vector = readonly number[];
