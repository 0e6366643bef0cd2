import type { Keeps, Limit } from '../../contract/keeps';
import type { ResultRule } from '../../contract/result-rules';
import { byItem } from '../results-by';
import type { CapacitorSupplyProfile } from './profile';

const offBy = ({ battery_V, limits }: CapacitorSupplyProfile, sign: 1 | -1): Limit => ({
  ...limits.battery_V,
  value: battery_V + sign * limits.battery_V.value,
});
const near = {
  to: 'range' as const,
  low: (profile: CapacitorSupplyProfile) => offBy(profile, -1),
  high: (profile: CapacitorSupplyProfile) => offBy(profile, 1),
};

/** What the readings of a battery and its capacitor must keep to. Handbook-models 8.9. */
export const keeps: Keeps<CapacitorSupplyProfile>['readings'] = {
  'source.battery': near,
  'source.charged': near,
  // The gate judges these: a live meter before and after, and less than may be worked at between.
  'source.proof': { to: 'noted' },
  'source.residual': { to: 'at-most', limit: ({ limits }) => limits.safe_V },
  'source.rest': { to: 'band', says: ({ limits }) => [limits.capacitance_fraction] },
  'source.lowest': { to: 'below', by: ({ limits }) => limits.dip_V },
};

export const results = ({ least_V, limits }: CapacitorSupplyProfile): ResultRule[] => [
  byItem('battery', 'volts.battery', 'Battery with nothing drawn', 'supply'),
  byItem('store-charged', 'store.charged', 'Capacitor, charged', 'supply'),
  byItem('store-lowest', 'store.stop.1', 'Capacitor, lowest during the first stop', 'supply'),
  byItem('store-rest', 'store.rest', 'Capacitor after one stop', 'supply'),
  {
    of: 'count',
    id: 'stops',
    name: 'Stops with the battery off',
    about: 'supply',
    step: 'store',
    measures: 'source.lowest',
    least: least_V,
    limit: limits.stops,
  },
];
