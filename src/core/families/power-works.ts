import type { Descriptor } from '../model/descriptor';
import type { Stage } from '../model/motion';

/** Parts of a spool with its power piston that a drawing shows. */
export const powerParts = [
  { id: 'spool', name: 'Spool, pressed', quantity: 'percent' },
  { id: 'piston', name: 'Power piston and pushrod', quantity: 'travel' },
  { id: 'chamber', name: 'Chamber behind the power piston', quantity: 'pressure' },
  { id: 'stored', name: 'Accumulator, filled', quantity: 'percent' },
] as const satisfies readonly Descriptor[];

type Share = (part: string) => number;

/**
 * How they work, whatever feeds them. Handbook 18, handbook-models 8.4.
 *
 * @param fed whether any pressure stands before the spool
 */
export const powerStages = (fed: (share: Share) => boolean): readonly Stage[] => [
  {
    id: 'alone',
    says: 'Nothing stands before the spool: the foot alone pushes the rod into the master, through the spool and against the spring.',
    holds: (share) => share('spool') > 0 && !fed(share),
  },
  {
    id: 'pushes',
    says: 'The rod has moved the spool: pressure comes behind the power piston, which pushes on the master with the foot.',
    holds: (share) => share('spool') > 0 && fed(share) && share('chamber') >= 0.01,
  },
  {
    id: 'releases',
    says: 'The foot is off: the spool lets the chamber out to the reservoir, and the spring brings the piston back.',
    holds: (share) => share('spool') === 0 && share('piston') > 0.02,
  },
];
