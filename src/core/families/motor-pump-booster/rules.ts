import type { Keeps, Limit } from '../../contract/keeps';
import type { ResultRule } from '../../contract/result-rules';
import { SEA_LEVEL_PA } from '../../air/atmosphere';
import { PRE_CHARGE_K } from '../../fluid/accumulator';
import { flowThatFilled } from '../../fluid/filling-flow';
import { sentence } from '../../quantities/sentence';
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

/** Where a charge is read, near enough: gas and its shell are equally warm before it, which is what its flow hangs on. */
const AROUND = { barometer_Pa: SEA_LEVEL_PA, temperature_K: PRE_CHARGE_K };

const NO_CHARGE = sentence('It stopped below the pressure of its gas: there is no charge to tell a flow by.');

/** Mean flow of the pump over a charge from empty, beside no limit: what it makes hangs on volts, fluid and how full it is. */
function pumpFlow(shell_m3: number): ResultRule {
  const filled = ({ flick = 0, time = 0, out = 0 }: Readonly<Record<string, number>>) =>
    flick > 0 && time > 0 ? flowThatFilled({ shell_m3, preCharge_Pa: flick }, AROUND, out, time) : null;
  return {
    of: 'parameter',
    id: 'pump-flow',
    name: 'Mean flow of the pump over the charge',
    about: 'supply',
    step: 'charge',
    quantity: 'pumpFlow',
    from: { flick: 'flick.supply', time: 'charge.time', out: 'charge.supply' },
    unless: (read) => (filled(read) ? null : NO_CHARGE),
    value: (read) => filled(read)?.usual_m3PerS ?? NaN,
    // How fast the gas gives off its heat is not known: as if the time were out by so much.
    doubt: {
      about: 'time',
      off: (read) => {
        const found = filled(read);
        return found ? ((found.spread_m3PerS / 2) * read.time!) / found.usual_m3PerS : 0;
      },
    },
  };
}

/** Results of a motor-pump booster’s tests, in the order of the steps. */
export function results({ assist_N, lamp_Pa, limits, shell_m3 }: Profile): ResultRule[] {
  return [
    byItem('pre-charge', 'flick.supply', 'Flick-up of the accumulator'),
    byItem('charge-time', 'charge.time', 'Charge from empty'),
    byItem('cut-out', 'charge.supply', 'Switched off at'),
    pumpFlow(shell_m3),
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
    byItem('lamp-lights', 'lamp.supply', 'Low-pressure lamp'),
    byItem('unpowered', 'unpowered.pressure', 'Pressure without power'),
  ];
}
