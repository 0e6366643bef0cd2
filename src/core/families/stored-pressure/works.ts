import type { Descriptor } from '../../model/descriptor';
import type { Stage } from '../../model/motion';

/** Parts that a drawing of two circuits shows. */
export const parts = [
  { id: 'stored', name: 'Front sphere, filled', quantity: 'percent' },
  { id: 'stored2', name: 'Rear sphere, filled', quantity: 'percent' },
  { id: 'charging', name: 'Front block lets the pump in', quantity: 'percent' },
  { id: 'charging2', name: 'Rear block lets the pump in', quantity: 'percent' },
  { id: 'spool', name: 'Distribution valves, pressed', quantity: 'force' },
  { id: 'frontBrakes', name: 'Front brakes', quantity: 'pressure' },
  { id: 'rearBrakes', name: 'Rear brakes', quantity: 'pressure' },
] as const satisfies readonly Descriptor[];

/** What a body that is levelled has besides. */
export const levellingParts = [
  { id: 'body', name: 'Body above where its springs carry it', quantity: 'length' },
  { id: 'heightValve', name: 'Height valve, open to the rams or the return', quantity: 'percent' },
] as const satisfies readonly Descriptor[];

/** How two circuits work, in the order of events. Handbook 18. */
export const stages: readonly Stage[] = [
  {
    id: 'empty',
    says: 'Both spheres are empty. No foot reaches these brakes: without stored pressure there is none.',
    holds: () => true,
  },
  {
    id: 'stands',
    says: 'Both spheres are charged and their blocks send the pump’s fluid back to the reservoir. What is stored waits at the distribution valves.',
    holds: (share) => share('stored') > 0.02,
  },
  {
    id: 'charges',
    says: 'A block lets the pump in: it presses fluid against the gas of the sphere until the block shuts it out again.',
    holds: (share) => share('pump') > 0 && share('charging') + share('charging2') > 0,
  },
  {
    id: 'applies',
    says: 'The foot presses both distribution valves: each lets stored pressure into its brakes, until that pressure pushes the valve back.',
    holds: (share) => share('spool') > 0.02 && share('frontBrakes') + share('rearBrakes') > 0.01,
  },
  {
    id: 'nothing',
    says: 'The foot presses both distribution valves, and nothing stands before them: no brake is pressed.',
    holds: (share) =>
      share('spool') > 0.02 &&
      share('stored') + share('stored2') <= 0.02 &&
      share('frontBrakes') + share('rearBrakes') <= 0.01,
  },
  {
    id: 'releases',
    says: 'The foot is off: the valves let the brakes out to the return, and the small master brings the pedal back.',
    holds: (share) => share('spool') <= 0.02 && share('frontBrakes') + share('rearBrakes') > 0.02,
  },
];

/** What levelling adds to that. */
export const levellingStages: readonly Stage[] = [
  {
    id: 'lifts',
    says: 'The body stands low: its link has opened the height valve, and the pump’s spare fluid goes through the restrictor into the rams.',
    holds: (share) => share('heightValve') > 0.02 && share('pump') > 0 && share('charging2') <= 0,
  },
  {
    id: 'lowers',
    says: 'The body stands high: the height valve lets the rams out to the return, and it comes down.',
    holds: (share) => share('heightValve') < -0.02 && share('body') > 0.02,
  },
];
