import type { Keeps, Limit } from '../../contract/keeps';
import type { ResultRule } from '../../contract/result-rules';
import { byItem } from '../results-by';
import type { BatterySupplyProfile } from './profile';

const least = ({ battery_V, limits }: BatterySupplyProfile): Limit => ({
  ...limits.battery_V,
  value: battery_V - limits.battery_V.value,
});

/** What the readings of a battery and its feed must keep to. Handbook-models 8.8. */
export const keeps: Keeps<BatterySupplyProfile>['readings'] = {
  'source.battery': { to: 'at-least', limit: least },
  terminals: { to: 'band', says: ({ limits }) => [limits.battery_V] },
  'source.feed': { to: 'at-most', limit: ({ limits }) => limits.feed_V },
  'source.earth': { to: 'at-most', limit: ({ limits }) => limits.earth_V },
  'source.current': { to: 'band', says: ({ limits }) => [limits.battery_V] },
};

export const results = (): ResultRule[] => [
  byItem('battery', 'volts.battery', 'Battery with nothing drawn', 'supply'),
  byItem('plug-held', 'hold.plug', 'At the plug under load', 'supply'),
  byItem('feed-drop', 'hold.feed', 'Lost in the feed under load', 'supply'),
  byItem('earth-drop', 'hold.earth', 'Lost in the earth under load', 'supply'),
  byItem('feed-current', 'hold.current', 'Current in the feed under load', 'supply'),
];
