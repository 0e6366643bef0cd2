import type { Keeps } from '../../contract/keeps';
import type { ResultRule } from '../../contract/result-rules';
import { byItem } from '../results-by';
import type { MotorPumpProfile } from './profile';

/** What the readings of a motor pump must keep to. Handbook-models 8.5. */
export const keeps: Keeps<MotorPumpProfile>['readings'] = {
  'source.battery': { to: 'band', says: ({ limits }) => [limits.supply_V] },
  'source.fluid': { to: 'noted' },
  'source.current': { to: 'band', says: ({ limits }) => [limits.friction_fraction] },
  'source.drop': { to: 'at-most', limit: ({ limits }) => limits.drop_V },
};

export const results = (): ResultRule[] => [
  byItem('battery', 'battery.volts', 'Battery while the pump runs', 'supply'),
  byItem('current', 'feed.current', 'Current of the motor', 'supply'),
  byItem('drop', 'feed.drop', 'Lost in the feed', 'supply'),
];
