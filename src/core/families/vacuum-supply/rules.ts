import type { Keeps } from '../../contract/keeps';
import type { ResultRule } from '../../contract/result-rules';
import { byItem } from '../results-by';
import type { VacuumSupplyProfile } from './profile';

type Kept = Keeps<VacuumSupplyProfile>['readings'];

/** What the readings of a supply must keep to. Handbook-models 9. */
export const keeps: Kept = {
  'source.idle': { to: 'band', says: ({ limits }) => [limits.idle_Pa] },
  'source.atUnit': { to: 'band', says: ({ limits }) => [limits.idle_Pa, limits.hose_fraction] },
  'source.stopsAt': { to: 'band', says: ({ limits }) => [limits.switch_Pa] },
  'source.startsAt': { to: 'band', says: ({ limits }) => [limits.switch_Pa] },
  recovery: { to: 'at-most', limit: ({ limits }) => limits.recovery_s },
};

/** Results of the supply's tests. */
export const results = (): ResultRule[] => [
  byItem('supply-at-unit', 'rest.supply', 'Vacuum at the booster, of a healthy supply here', 'supply'),
  byItem('supply-idle', 'source.idle', 'Vacuum at its source, of a healthy one here', 'supply'),
  byItem('switch.off', 'switch.off', 'Vacuum at which the pump stops', 'supply'),
  byItem('switch.on', 'switch.on', 'Vacuum at which the pump starts', 'supply'),
  byItem('recovery', 'recovery.time', 'Recovery of the vacuum after a release', 'supply'),
];
