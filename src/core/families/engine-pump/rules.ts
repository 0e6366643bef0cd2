import type { Keeps } from '../../contract/keeps';
import type { ResultRule } from '../../contract/result-rules';
import { byItem } from '../results-by';
import type { EnginePumpProfile } from './profile';

/** What the readings of an engine-driven pump must keep to: its flow shows in the times of the circuits. Handbook-models 8.6. */
export const keeps: Keeps<EnginePumpProfile>['readings'] = {
  'source.idle': { to: 'band', says: ({ limits }) => [limits.idle_fraction] },
  'source.fluid': { to: 'noted' },
};

export const results = (): ResultRule[] => [
  byItem('idle', 'idle.speed', 'Drive of the pump, at idle', 'supply'),
];
