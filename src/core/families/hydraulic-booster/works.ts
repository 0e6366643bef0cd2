import type { Descriptor } from '../../model/descriptor';
import type { Stage } from '../../model/motion';
import { powerParts, powerStages } from '../power-works';

/** Parts that a drawing of it shows. */
export const parts = [
  ...powerParts,
  { id: 'line', name: 'Pressure line of the steering', quantity: 'pressure' },
] as const satisfies readonly Descriptor[];

/** Part of its shell from which an accumulator gives anything. */
const STORED = 5e-3;

/** How it works, in the order of events. Handbook 18. */
export const stages: readonly Stage[] = [
  {
    id: 'still',
    says: 'The pump stands still and nothing is pressed. What is stored in the accumulator waits behind its check valve.',
    holds: () => true,
  },
  {
    id: 'through',
    says: 'The pump runs its fluid through the open spool on to the steering gear, and back to its reservoir: the brake takes nothing.',
    holds: (share) => share('pump') > 0,
  },
  ...powerStages((share) => share('pump') > 0 || share('stored') > STORED),
  {
    id: 'throttles',
    says: 'The rod has moved the spool, which throttles the line: the pump’s pressure comes behind the power piston, and what it gives beyond that still goes on to the steering.',
    holds: (share) => share('pump') > 0 && share('spool') > 0 && share('chamber') >= 0.01,
  },
  {
    id: 'reserve',
    says: 'The pump gives nothing: the accumulator feeds the spool, for the few applications that are stored in it.',
    holds: (share) =>
      share('pump') <= 0 && share('stored') > STORED && share('spool') > 0 && share('chamber') >= 0.01,
  },
];
