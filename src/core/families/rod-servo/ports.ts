import type { Port } from '../../contract/family';

/** Where readings are taken on a servo that acts on a rod. */
export const ports: readonly Port[] = [
  { id: 'input', name: 'Fluid to the valve', short: 'Fluid', quantity: 'pressure' },
  { id: 'output', name: 'Rod force', short: 'Force', quantity: 'force' },
  { id: 'supply', name: 'Tank vacuum', short: 'Tank', quantity: 'depression' },
  { id: 'clock', name: 'Stopwatch', short: 'Time', quantity: 'duration' },
];

/** Where a seep or a hiss is looked for. */
export const leakPoints: readonly Port[] = [
  { id: 'valve-seal', name: 'Valve fluid seal', short: 'Seal', quantity: null },
  { id: 'intake', name: 'Air intake of the valve', short: 'Intake', quantity: null },
  { id: 'tank', name: 'Tank and line', short: 'Tank', quantity: null },
  { id: 'check-valve', name: 'Non-return valve', short: 'Check', quantity: null },
];
