import type { Keeps } from '../../contract/keeps';
import type { ResultRule } from '../../contract/result-rules';
import { byItem } from '../results-by';
import type { WheelBrakesProfile } from './profile';
import { moreNeeded, splitOf } from './proportioning';
import { OTHER_N, SWEEP_N } from './steps';

const MINUTE_S = 60;

/** What the readings of wheel brakes must keep to. Handbook-models 10. */
export const keeps: Keeps<WheelBrakesProfile>['readings'] = {
  'load.rearPressure': {
    to: 'about',
    least: ({ limits }) => limits.rear_Pa,
    part: { of: 'front_Pa', limit: ({ limits }) => limits.rear_fraction },
    floor: 0,
  },
  'load.otherRear': {
    to: 'about',
    least: ({ limits }) => limits.rear_Pa,
    part: { of: 'front_Pa', limit: ({ limits }) => limits.rear_fraction },
    floor: 0,
  },
  'load.travel': { to: 'band', says: ({ limits }) => [limits.stiffness_fraction] },
  'load.sink': {
    to: 'at-most',
    limit: ({ sink_s, limits: { sink_m } }) => ({ ...sink_m, value: (sink_m.value * sink_s) / MINUTE_S }),
  },
};

/** Readings of the sweep by names of their own: f1, r1, f2, … */
const SWEEP = SWEEP_N.map((_, i) => [`f${i + 1}`, `r${i + 1}`] as const);
const sweptFrom = Object.fromEntries(
  SWEEP.flatMap(([f, r], i) => [
    [f, `sweep.${i + 1}.front`],
    [r, `sweep.${i + 1}.rear`],
  ]),
) as Record<string, string>;
const pairsOf = (read: Readonly<Record<string, number>>) =>
  SWEEP.map(([f, r]) => ({ front_Pa: read[f]!, rear_Pa: read[r]! }));

/** Both sides at the same pedal forces: r1, o1, r2, … */
const sidesFrom = Object.fromEntries(
  OTHER_N.flatMap((force_N, i) => [
    [`r${i + 1}`, `sweep.${SWEEP_N.indexOf(force_N) + 1}.rear`],
    [`o${i + 1}`, `other.${i + 1}.rear`],
  ]),
) as Record<string, string>;
const sideOf = (read: Readonly<Record<string, number>>, side: 'r' | 'o') =>
  OTHER_N.reduce((sum, _, i) => sum + read[`${side}${i + 1}`]!, 0);

/** Results of the tests of wheel brakes. */
export function results({ split_Pa, slope, limits }: WheelBrakesProfile): ResultRule[] {
  const swept = {
    of: 'parameter',
    step: 'sweep',
    from: sweptFrom,
    unless: (read: Readonly<Record<string, number>>) => moreNeeded(pairsOf(read), split_Pa),
  } as const;
  return [
    byItem('travel', 'without.travel', 'Pedal travel, assist off', 'load'),
    byItem('sink', 'sink.end', 'Pedal sink on a hold'),
    ...SWEEP_N.map((_, i) => byItem(`rear.${i + 1}`, `sweep.${i + 1}.rear`, `Rear pressure, point ${i + 1}`)),
    ...OTHER_N.map((_, i) =>
      byItem(`other.${i + 1}`, `other.${i + 1}.rear`, `Rear pressure, other side, point ${i + 1}`),
    ),
    {
      of: 'parameter',
      id: 'sides',
      name: 'Rear pressure, one side against the other',
      step: 'other-sweep',
      quantity: 'ratio',
      from: sidesFrom,
      value: (read) => sideOf(read, 'o') / sideOf(read, 'r'),
      nominal: { value: 1, part: limits.rear_fraction },
    },
    {
      ...swept,
      id: 'split',
      name: 'Pressure at which the rear is held back',
      quantity: 'pressure',
      value: (read) => splitOf(pairsOf(read)).split_Pa,
      nominal: { value: split_Pa, part: limits.split_fraction },
    },
    {
      ...swept,
      id: 'slope',
      name: 'Rear against front beyond that',
      quantity: 'ratio',
      value: (read) => splitOf(pairsOf(read)).slope,
      nominal: { value: slope, part: { ...limits.slope, value: limits.slope.value / slope } },
    },
  ];
}
