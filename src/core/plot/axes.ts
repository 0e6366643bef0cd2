import { fromSI, unitFor, type Quantity, type UnitSet } from '../quantities/units';

/** One bar, Pa. */
export const BAR = 1e5;

/** Evenly spaced values from one end to the other. */
export const steps = (low: number, high: number, count = 80) =>
  Array.from({ length: count + 1 }, (_, i) => low + ((high - low) * i) / count);

/** An axis in the units of a set, and where an SI value stands on it. */
export const axis = (name: string, quantity: Quantity, set: UnitSet, low: number, high: number) => {
  const unit = unitFor(quantity, set);
  return {
    title: unit.symbol ? `${name}, ${unit.symbol}` : name,
    low: fromSI(low, unit),
    high: fromSI(high, unit),
    at: (x: number) => fromSI(x, unit),
  };
};
