import type { ReadingItem } from '@/core/contract/steps';
import { unitFor, type Quantity } from '@/core/quantities/units';

/** Units offered on the pad beside the bench's own. */
const PAD_UNITS: Partial<Record<Quantity, readonly string[]>> = {
  depression: ['kPa', 'mbar', 'inHg'],
  pressure: ['psi', 'kPa', 'bar'],
  force: ['N', 'lbf'],
  duration: ['s', 'min'],
  voltage: ['V', 'mV'],
  current: ['A', 'mA'],
  resistance: ['Ω', 'kΩ'],
  travel: ['mm', 'in'],
};

/** Units of a reading on the pad: the bench’s own first. */
export const padUnits = (item: ReadingItem, set: Parameters<typeof unitFor>[1]) =>
  [...new Set([unitFor(item.quantity, set).symbol, ...(PAD_UNITS[item.quantity] ?? [])])].slice(0, 3);
