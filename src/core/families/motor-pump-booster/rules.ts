import type { Keeps, Limit } from '../../contract/keeps';
import type { ResultRule } from '../../contract/result-rules';
import { byItem } from '../results-by';
import type { MotorPumpBoosterProfile } from './profile';

type Profile = MotorPumpBoosterProfile;

const within = (of: (profile: Profile) => number, by: keyof Profile['limits']) => ({
  to: 'range' as const,
  low: (profile: Profile): Limit => offBy(of(profile), profile.limits[by], -1),
  high: (profile: Profile): Limit => offBy(of(profile), profile.limits[by], 1),
});
const offBy = (value: number, by: Limit, sign: 1 | -1): Limit => ({ ...by, value: value + sign * by.value });

/** What the readings of a motor-pump booster must keep to. Handbook-models 8.5. */
export const keeps: Keeps<Profile>['readings'] = {
  flickUp: { to: 'band', says: ({ limits }) => [limits.preCharge_fraction] },
  chargeTime: { to: 'at-most', limit: ({ limits }) => limits.charge_s },
  cutOut: within(({ out_Pa }) => out_Pa, 'switch_Pa'),
  cutOutAgain: within(({ out_Pa }) => out_Pa, 'switch_Pa'),
  cutIn: within(({ in_Pa }) => in_Pa, 'switch_Pa'),
  onTime: { to: 'band', says: ({ limits }) => [limits.preCharge_fraction, limits.switch_Pa] },
  offTime: { to: 'at-least', limit: ({ limits }) => limits.off_s },
  bridged: within(({ relief_Pa }) => relief_Pa, 'relief_Pa'),
  lamp: within(({ lamp_Pa }) => lamp_Pa, 'lamp_Pa'),
  kept: {
    to: 'at-least',
    limit: ({ lamp_Pa, limits }, { applications = 0 }) =>
      applications <= limits.applications.value ? { ...limits.applications, value: lamp_Pa } : null,
  },
  'load.pressure': { to: 'band', says: ({ limits }) => [limits.output_fraction] },
};

/** Results of a motor-pump booster’s tests, in the order of the steps. */
export function results({ assist_N, lamp_Pa, limits }: Profile): ResultRule[] {
  return [
    byItem('pre-charge', 'flick.supply', 'Flick-up of the accumulator'),
    byItem('charge-time', 'charge.time', 'Charge from empty'),
    byItem('cut-out', 'charge.supply', 'Switched off at'),
    byItem('cut-in', 'switch.in', 'Switched on at'),
    byItem('on-time', 'switch.on', 'On-time'),
    byItem('cut-out-again', 'switch.out', 'Switched off at, once settled'),
    byItem('off-time', 'off.time', 'Off-time once settled'),
    byItem('relief', 'relief.most', 'Relief'),
    ...assist_N.map((_, i) =>
      byItem(`assist.${i + 1}`, `assist.${i + 1}.pressure`, `Pressure at force ${i + 1}`),
    ),
    {
      of: 'count',
      id: 'applications',
      name: 'Full applications above the lamp',
      step: 'reserve',
      measures: 'kept',
      least: lamp_Pa,
      limit: limits.applications,
    },
    byItem('lamp', 'lamp.supply', 'Low-pressure lamp'),
    byItem('unpowered', 'unpowered.pressure', 'Pressure without power'),
  ];
}
