import type { Descriptor } from '../../model/descriptor';
import type { Stage } from '../../model/motion';

/** Parts that a drawing of it shows. */
export const parts = [
  { id: 'vacuumSide', name: 'Vacuum side', quantity: 'depression' },
  { id: 'workingSide', name: 'Working side', quantity: 'depression' },
  { id: 'valve', name: 'Control valve, lifted', quantity: 'percent' },
  { id: 'vacuumPort', name: 'Vacuum port, open', quantity: 'percent' },
  { id: 'airPort', name: 'Air port, open', quantity: 'percent' },
  { id: 'diaphragm', name: 'Diaphragm, rod and slave piston', quantity: 'travel' },
  { id: 'passage', name: 'Passage through the piston, open', quantity: 'percent' },
  { id: 'inputFluid', name: 'Fluid in', quantity: 'pressure' },
  { id: 'outputFluid', name: 'Fluid out', quantity: 'pressure' },
] as const satisfies readonly Descriptor[];

/** Without vacuum nothing but the fluid moves. */
const isDrawn = (share: (part: string) => number) => share('vacuumSide') > 0.1;

/** How it works, in the order of events. Handbook 18. */
export const stages: readonly Stage[] = [
  {
    id: 'empty',
    says: 'Air stands on both sides of the diaphragm, so nothing can push it. Fluid goes through the open passage in the piston, as it comes.',
    holds: () => true,
  },
  {
    id: 'rest',
    says: 'At rest the control valve joins the two sides: the same vacuum stands before and behind the diaphragm, and the spring holds it back.',
    holds: isDrawn,
  },
  {
    id: 'passes',
    says: 'Fluid from the master goes through the open passage of the slave piston, straight on to the brakes, and presses under the control valve.',
    holds: (share) => isDrawn(share) && share('valve') > 0.03 && share('valve') < 1,
  },
  {
    id: 'air',
    says: 'The fluid has lifted the control valve: the vacuum port is shut, the air port is open, and air comes through the crossover behind the diaphragm.',
    holds: (share) => isDrawn(share) && share('valve') >= 1 && share('airPort') > 0.02,
  },
  {
    id: 'pushes',
    says: 'The diaphragm moves. Its rod pushes the slave piston, which closes its own passage and makes more pressure than came in.',
    holds: (share) =>
      isDrawn(share) && share('valve') >= 1 && share('passage') < 0.5 && share('airPort') > 0.02,
  },
  {
    id: 'holds',
    says: 'The pressure difference that the input called for is there, so both ports are shut: what goes out is held in its ratio to what comes in.',
    holds: (share) =>
      isDrawn(share) && share('valve') >= 1 && share('passage') < 0.5 && share('airPort') <= 0.02,
  },
  {
    id: 'runout',
    says: 'All the air of the room stands behind the diaphragm. It can push no harder: from here more comes out only as more goes in.',
    holds: (share) =>
      isDrawn(share) && share('valve') >= 1 && share('airPort') > 0.5 && share('workingSide') < 0.01,
  },
  {
    id: 'releases',
    says: 'The control valve joins the two sides again: the difference goes, and the spring brings diaphragm and piston back.',
    holds: (share) => isDrawn(share) && share('passage') < 0.99 && share('vacuumPort') > 0.02,
  },
];
