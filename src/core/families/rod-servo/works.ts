import type { Descriptor } from '../../model/descriptor';
import type { Stage } from '../../model/motion';

/** Parts that a drawing of it shows. */
export const parts = [
  { id: 'vacuumSide', name: 'Tank and vacuum side', quantity: 'depression' },
  { id: 'workingSide', name: 'Working side', quantity: 'depression' },
  { id: 'valve', name: 'Three lands, lifted', quantity: 'percent' },
  { id: 'vacuumPort', name: 'Vacuum port, open', quantity: 'percent' },
  { id: 'airPort', name: 'Air port, open', quantity: 'percent' },
  { id: 'piston', name: 'Piston, rod and cam lever', quantity: 'travel' },
  { id: 'checkValve', name: 'Non-return valve, open', quantity: 'percent' },
  { id: 'inputFluid', name: 'Fluid at the valve', quantity: 'pressure' },
] as const satisfies readonly Descriptor[];

/** How it works, in the order of events. Handbook 18. */
export const stages: readonly Stage[] = [
  {
    id: 'empty',
    says: 'There is no vacuum in the tank: the spring holds the piston back, and fluid that lifts the valve moves nothing.',
    holds: () => true,
  },
  {
    id: 'rest',
    says: 'The tank is drawn down through its non-return valve. At rest the lands join the working side to the tank: vacuum on both sides of the piston.',
    holds: (share) => share('vacuumSide') > 0.1,
  },
  {
    id: 'lifts',
    says: 'Fluid from the master lifts all three lands at once: the way to the tank shuts, and air comes through the filter behind the piston.',
    holds: (share) => share('vacuumSide') > 0.1 && share('airPort') > 0.02,
  },
  {
    id: 'pulls',
    says: 'The piston goes with its rod. The rod turns the cam lever, and the cam presses the shoes apart.',
    holds: (share) => share('piston') > 0.05 && share('airPort') > 0.02,
  },
  {
    id: 'holds',
    says: 'The difference is the part of the tank’s vacuum that the fluid asks for: both ways are shut, and the rod holds.',
    holds: (share) => share('piston') > 0.05 && share('airPort') <= 0.02 && share('vacuumPort') <= 0.02,
  },
  {
    id: 'over',
    says: 'The piston is at the end of its stroke: with linings this worn the cam is nearly over, and no more force comes. Adjust or reline before it turns past.',
    holds: (share) => share('piston') >= 0.99,
  },
  {
    id: 'releases',
    says: 'The lands have dropped: the working side is joined to the tank again, and the spring brings piston, rod and lever back.',
    holds: (share) => share('vacuumSide') > 0.1 && share('piston') > 0.02 && share('vacuumPort') > 0.02,
  },
];
