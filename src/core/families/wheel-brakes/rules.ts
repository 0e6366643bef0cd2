import type { Keeps } from '../../contract/keeps';
import type { ResultRule } from '../../contract/result-rules';
import { byItem } from '../results-by';
import type { WheelBrakesProfile } from './profile';
import { SINK_S } from './steps';

const MINUTE_S = 60;

/** What the readings of wheel brakes must keep to. Handbook-models 10. */
export const keeps: Keeps<WheelBrakesProfile>['readings'] = {
  'load.pressure': { to: 'band', says: () => [] },
  'load.rearPressure': {
    to: 'about',
    least: ({ limits }) => limits.rear_Pa,
    part: { of: 'front_Pa', limit: ({ limits }) => limits.rear_fraction },
    floor: 0,
  },
  'load.travel': { to: 'band', says: ({ limits }) => [limits.stiffness_fraction] },
  'load.sink': {
    to: 'at-most',
    limit: ({ limits: { sink_m } }) => ({ ...sink_m, value: (sink_m.value * SINK_S) / MINUTE_S }),
  },
};

/** Results of the tests of wheel brakes. */
export const results = (): ResultRule[] => [
  byItem('travel', 'without.travel', 'Pedal travel, assist off', 'load'),
  byItem('sink', 'sink.end', 'Pedal sink on a hold'),
  ...Array.from({ length: 6 }, (_, i) =>
    byItem(`rear.${i + 1}`, `sweep.${i + 1}.rear`, `Rear pressure, point ${i + 1}`),
  ),
];
