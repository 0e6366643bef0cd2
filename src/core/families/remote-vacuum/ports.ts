import type { Port } from '../../contract/family';

/** Where a reading is taken. Handbook 8.1. */
export const ports: readonly Port[] = [
  { id: 'input', name: 'Fluid in', short: 'In', quantity: 'pressure' },
  { id: 'output', name: 'Fluid out', short: 'Out', quantity: 'pressure' },
  { id: 'supply', name: 'Vacuum supply', short: 'Supply', quantity: 'depression' },
  { id: 'activation', name: 'Activation', short: 'Activ.', quantity: 'depression' },
];

/** Where a seep is looked for. */
export const leakPoints: readonly Port[] = [
  { id: 'bleed-screw', name: 'Bleed screw', short: 'Bleed', quantity: null },
  { id: 'end-cap', name: 'End cap', short: 'Cap', quantity: null },
  { id: 'rod-hole', name: 'Rod hole', short: 'Rod', quantity: null },
  { id: 'switch', name: 'Stop-lamp switch', short: 'Switch', quantity: null },
];
