import type { Port } from '../../twin/family';

/** Where a reading is taken. Handbook 8.1. */
export const ports: readonly Port[] = [
  { id: 'input', name: 'Fluid in', quantity: 'pressure' },
  { id: 'output', name: 'Fluid out', quantity: 'pressure' },
  { id: 'supply', name: 'Vacuum supply', quantity: 'depression' },
  { id: 'activation', name: 'Activation', quantity: 'depression' },
];

/** Where a seep is looked for. */
export const leakPoints: readonly Port[] = [
  { id: 'bleed-screw', name: 'Bleed screw', quantity: null },
  { id: 'end-cap', name: 'End cap', quantity: null },
  { id: 'rod-hole', name: 'Rod hole', quantity: null },
  { id: 'switch', name: 'Stop-lamp switch', quantity: null },
];
