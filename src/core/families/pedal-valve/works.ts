import type { Descriptor } from '../../model/descriptor';
import type { Stage } from '../../model/motion';

const partsOf = (n: 1 | 2) =>
  [
    { id: `stored${n}`, name: `Accumulator ${n}, filled`, quantity: 'percent' },
    { id: `spool${n}`, name: `Spool ${n}: to the accumulator, or to the return`, quantity: 'travel' },
    { id: `brake${n}`, name: `Brake circuit ${n}`, quantity: 'pressure' },
  ] as const satisfies readonly Descriptor[];

/** Parts that a drawing of it shows. */
export const parts: readonly Descriptor[] = [
  { id: 'pedal', name: 'Pedal', quantity: 'travel' },
  ...partsOf(1),
  ...partsOf(2),
];

const either = (share: (part: string) => number, what: string) =>
  Math.max(share(`${what}1`), share(`${what}2`));

/** How it works, in the order of events. Handbook 18. */
export const stages: readonly Stage[] = [
  {
    id: 'empty',
    says: 'Both accumulators are empty: the pedal presses springs and spools, and no brake.',
    holds: () => true,
  },
  {
    id: 'stands',
    says: 'Both accumulators are charged. At rest the spools stand back: the brakes are open to the return, the accumulators shut.',
    holds: (share) => either(share, 'stored') > 0.02,
  },
  {
    id: 'springs',
    says: 'The pedal has come down on the springs. Below their preload the spools stay where they are, and nothing comes out yet.',
    holds: (share) => either(share, 'stored') > 0.02 && share('pedal') > 0.02,
  },
  {
    id: 'dips',
    says: 'The springs push the spools down, in little pops: each opens its accumulator to its brake.',
    holds: (share) =>
      either(share, 'stored') > 0.02 && share('pedal') > 0.02 && either(share, 'spool') > 0.05,
  },
  {
    id: 'balances',
    says: 'What comes out goes through the tiny drilling under each spool and pushes it back until it shuts: the pressure stands by the tension of the spring.',
    holds: (share) =>
      share('pedal') > 0.02 && either(share, 'brake') > 0.02 && Math.abs(either(share, 'spool')) <= 0.05,
  },
  {
    id: 'releases',
    says: 'The pedal is eased: the pressure lifts the spools past the middle, and the brakes run out through the return.',
    holds: (share) => either(share, 'brake') > 0.02 && (share('spool1') < -0.05 || share('spool2') < -0.05),
  },
];
