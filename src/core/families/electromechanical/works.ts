import type { Descriptor } from '../../model/descriptor';
import type { Stage } from '../../model/motion';

/** Parts that a drawing of it shows. */
export const parts = [
  { id: 'foot', name: 'Rod of the pedal', quantity: 'force' },
  { id: 'rod', name: 'Rod and rack', quantity: 'travel' },
  { id: 'awake', name: 'Control unit, awake', quantity: 'percent' },
  { id: 'motor', name: 'Motor', quantity: 'current' },
  { id: 'track1', name: 'Track 1 of the sensor', quantity: 'voltage' },
  { id: 'track2', name: 'Track 2 of the sensor', quantity: 'voltage' },
] as const satisfies readonly Descriptor[];

/** How it works, in the order of events. Handbook 18. */
export const stages: readonly Stage[] = [
  {
    id: 'rest',
    says: 'Nothing is pressed: the spring holds the rod back, the motor carries no current.',
    holds: () => true,
  },
  {
    id: 'wakes',
    says: 'The foot has pushed the rod against its spring, and the sensor has told the control unit, which wakes within a moment.',
    holds: (share) => share('foot') > 0.02,
  },
  {
    id: 'alone',
    says: 'No motor helps: the foot alone pushes the rod into the master, against the spring.',
    holds: (share) =>
      share('foot') > 0.02 && share('awake') >= 1 && share('motor') <= 0 && share('rod') > 0.02,
  },
  {
    id: 'helps',
    says: 'The control unit gives the motor current by its map: the gear pushes the rack beside the rod, and both press the master.',
    holds: (share) => share('motor') > 0,
  },
  {
    id: 'most',
    says: 'The motor has all the current that there is for it: from here the foot adds only its own force.',
    holds: (share) => share('motor') >= 0.999,
  },
  {
    id: 'releases',
    says: 'The foot is off: current falls, and spring and master drive rack and motor back.',
    holds: (share) => share('foot') <= 0.02 && share('rod') > 0.02,
  },
];
