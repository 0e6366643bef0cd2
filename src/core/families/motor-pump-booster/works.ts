import type { Descriptor } from '../../model/descriptor';
import type { Stage } from '../../model/motion';
import { powerParts, powerStages } from '../power-works';

/** Parts that a drawing of it shows. */
export const parts = [
  ...powerParts,
  { id: 'switch', name: 'Pressure switch, closed', quantity: 'percent' },
] as const satisfies readonly Descriptor[];

/** How it works, in the order of events. Handbook 18. */
export const stages: readonly Stage[] = [
  {
    id: 'empty',
    says: 'The accumulator is empty: its gas fills the shell, and no pressure stands before the spool.',
    holds: () => true,
  },
  {
    id: 'stands',
    says: 'The accumulator is charged and its switch is open: the pump rests. What is stored stands before the spool.',
    holds: (share) => share('stored') > 0.02,
  },
  {
    id: 'charges',
    says: 'The switch has closed: the motor turns the pump, which presses fluid against the gas of the accumulator until the switch opens.',
    holds: (share) => share('pump') > 0,
  },
  ...powerStages((share) => share('stored') > 0.02),
];
