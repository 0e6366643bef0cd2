import type { Descriptor } from '../../model/descriptor';
import type { Stage } from '../../model/motion';

/** Parts that a drawing of it shows. */
export const parts = [
  { id: 'vacuumSide', name: 'Vacuum side', quantity: 'depression' },
  { id: 'workingSide', name: 'Working side', quantity: 'depression' },
  { id: 'plunger', name: 'Valve plunger, pressed', quantity: 'force' },
  { id: 'vacuumPort', name: 'Vacuum port, open', quantity: 'percent' },
  { id: 'airPort', name: 'Air port, open', quantity: 'percent' },
  { id: 'rod', name: 'Diaphragm and pushrod', quantity: 'travel' },
  { id: 'gap', name: 'Clearance before the master', quantity: 'length' },
] as const satisfies readonly Descriptor[];

/** How it works, in the order of events. Handbook 18. */
export const stages: readonly Stage[] = [
  {
    id: 'empty',
    says: 'There is no vacuum: the foot pushes through the booster on the master alone, against the spring as well.',
    holds: () => true,
  },
  {
    id: 'rest',
    says: 'At rest the vacuum port is open: the same vacuum stands on both sides of the diaphragm, and the spring holds it back.',
    holds: (share) => share('vacuumSide') > 0.1,
  },
  {
    id: 'air',
    says: 'The rod has moved the valve plunger: the vacuum port is shut, and air comes through the filter behind the diaphragm.',
    holds: (share) => share('vacuumSide') > 0.1 && share('airPort') > 0.02,
  },
  {
    id: 'pushes',
    says: 'The diaphragm pushes the pushrod, with the foot, into the master cylinder. Through the reaction disc a part of that pushes back on the foot.',
    holds: (share) => share('vacuumSide') > 0.1 && share('rod') > 0.05 && share('airPort') > 0.02,
  },
  {
    id: 'holds',
    says: 'The disc has pushed the plunger back until both ports are shut: foot and output stand in their ratio, and nothing flows.',
    holds: (share) =>
      share('vacuumSide') > 0.1 &&
      share('rod') > 0.05 &&
      share('airPort') <= 0.02 &&
      share('vacuumPort') <= 0.02,
  },
  {
    id: 'runout',
    says: 'All the air of the room stands behind the diaphragm: it can push no harder. From here the foot adds only its own force.',
    holds: (share) => share('vacuumSide') > 0.1 && share('airPort') > 0.5 && share('workingSide') < 0.01,
  },
  {
    id: 'releases',
    says: 'The vacuum port is open: the air behind the diaphragm goes to the vacuum side and on to the source, and the spring brings it back.',
    holds: (share) => share('vacuumSide') > 0.1 && share('rod') > 0.02 && share('vacuumPort') > 0.02,
  },
];
