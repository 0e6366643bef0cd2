import type { Port } from '../../contract/family';

/** Where readings are taken on a pedal booster by itself, on a bench with a lever and a master cylinder of its own. */
export const ports: readonly Port[] = [
  { id: 'pedal', name: 'Force at the lever', short: 'Lever', quantity: 'force', ink: 'input' },
  { id: 'output', name: 'Pressure of the bench master', short: 'Output', quantity: 'pressure' },
  { id: 'supply', name: 'Vacuum at the booster', short: 'Vacuum', quantity: 'depression' },
  {
    id: 'gap',
    name: 'Pushrod clearance',
    short: 'Gap',
    quantity: 'travel',
    ink: 'activation',
    optional: true,
  },
  { id: 'clock', name: 'Stopwatch', short: 'Time', quantity: 'duration' },
];

/** Where a hiss is listened for. */
export const leakPoints: readonly Port[] = [
  { id: 'air-seat', name: 'Air intake of the valve', short: 'Intake', quantity: null },
  { id: 'shell', name: 'Shell seam and hub', short: 'Shell', quantity: null },
];
