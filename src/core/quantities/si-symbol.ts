import type { Quantity } from './units';

/** The SI unit that the core computes each quantity in, as programs are told it. */
export const SI_SYMBOL: Readonly<Record<Quantity, string>> = {
  pressure: 'Pa',
  depression: 'Pa',
  barometer: 'Pa',
  pressureRate: 'Pa/s',
  depressionRate: 'Pa/s',
  force: 'N',
  stiffness: 'N/m',
  torque: 'N·m',
  length: 'm',
  altitude: 'm',
  area: 'm²',
  volume: 'm³',
  temperature: 'K',
  duration: 's',
  ratio: '1',
  percent: '1',
  conductance: 'm³/(s·Pa)',
  volumePerPressure: 'm³/Pa',
  count: '1',
};
