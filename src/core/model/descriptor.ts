import type { Quantity } from '../quantities/units';

/** One named number of a model, in its declared place. SI. */
export interface Descriptor {
  readonly id: string;
  readonly name: string;
  readonly quantity: Quantity;
  /**
   * For a reading, how far it lies by itself from what the model says, besides its gauge: the hand that times or marks it, and
   * what the model leaves out. Standard uncertainty, SI, and as a part of the reading. Handbook-models 8 to 10.
   */
  readonly apart?: { readonly SI?: number; readonly part?: number };
}

/** Numbers in the order of their descriptors. */
export type Vector = readonly number[];
