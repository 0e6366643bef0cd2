import type { Keeps } from '../../contract/keeps';
import type { ResultRule } from '../../contract/result-rules';
import { byItem } from '../results-by';
import type { LineBrakesProfile } from './profile';

export const keeps: Keeps<LineBrakesProfile>['readings'] = {
  'load.travel': { to: 'band', says: ({ limits }) => [limits.give_fraction] },
};

export const results = (): ResultRule[] => [byItem('travel', 'travel.travel', 'Pedal travel at a force')];
