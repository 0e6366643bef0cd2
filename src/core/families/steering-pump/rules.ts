import type { Keeps } from '../../contract/keeps';
import type { ResultRule } from '../../contract/result-rules';
import { byItem } from '../results-by';
import type { SteeringPumpProfile } from './profile';

/** What the readings of a steering pump must keep to. Handbook-models 8.4. */
export const keeps: Keeps<SteeringPumpProfile>['readings'] = {
  'source.fluid': { to: 'noted' },
  'source.flow': { to: 'band', says: ({ limits }) => [limits.flow_fraction, limits.leak_fraction] },
  'source.shut': { to: 'band', says: ({ limits }) => [limits.relief_Pa, limits.leak_fraction] },
};

export const results = (): ResultRule[] => [
  byItem('pump-flow', 'pump.flow', 'Flow at 50 bar', 'supply'),
  byItem('pump-shut', 'pump.shut', 'Shut-off pressure', 'supply'),
];
