import type { Keeps } from '../../contract/keeps';
import type { ResultRule } from '../../contract/result-rules';
import { applied_N } from '../power-booster';
import { byItem } from '../results-by';
import type { HydraulicBoosterProfile } from './profile';

type Profile = HydraulicBoosterProfile;

/** What the readings of a hydraulic booster must keep to. Handbook-models 8.4. */
export const keeps: Keeps<Profile>['readings'] = {
  drop: { to: 'about', least: ({ limits }) => limits.drop_m },
  back: { to: 'about', least: ({ limits }) => limits.back_m },
  falls: {
    to: 'at-least',
    limit: (profile) => ({
      ...profile.limits.hysteresis_N,
      value: applied_N(profile) - profile.limits.hysteresis_N.value,
    }),
  },
  release: { to: 'at-most', limit: ({ limits }) => limits.release_s },
  'load.pressure': { to: 'band', says: ({ limits }) => [limits.output_fraction, limits.preCharge_fraction] },
};

/** Results of a hydraulic booster’s tests, in the order of the steps. */
export function results({ assist_N, limits }: Profile): ResultRule[] {
  return [
    byItem('drop', 'start.drop', 'Pedal falls as the pump starts'),
    byItem('back', 'start.back', 'Pedal pushes back then'),
    ...assist_N.map((_, i) =>
      byItem(`assist.${i + 1}`, `assist.${i + 1}.pressure`, `Pressure at force ${i + 1}`),
    ),
    byItem('falls', 'assist.falls', 'Pedal force at which the pressure first falls'),
    byItem('release', 'release.time', 'Release'),
    byItem('rest', 'rest.pressure', 'Pressure with the foot off, pump running', 'unit', {
      limits: { high: limits.residual_Pa.value },
      source: limits.residual_Pa.source,
    }),
    byItem('reserve.1', 'reserve.1', 'First application of the reserve'),
    {
      of: 'count',
      id: 'reserve',
      name: 'Applications of the reserve',
      step: 'reserve',
      measures: 'load.pressure',
      least: limits.stated_Pa.value,
      limit: limits.applications,
    },
    byItem('hour', 'hour.1', 'First application after standing'),
    byItem('without', 'without.pressure', 'Pressure without the pump'),
  ];
}
