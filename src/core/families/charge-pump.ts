import { z } from 'zod';
import type { MemberFolder } from '../contract/family';
import type { Keeps, Limit } from '../contract/keeps';
import type { Member } from '../model/member';
import { pumpPack } from './bench-members';
import { chargingMotion } from './bench-motion';
import { UNTESTED } from './part-kinds';
import { amount, identityFields, limit, limitFrom } from './profile-fields';
import type { PumpDrive } from './pump-drive';

const BAR = 1e5;

/** A machine's own pump with the valve that lets it into the accumulators. SI throughout. */
const chargePumpProfile = z.strictObject({
  kind: z.literal('charge-pump'),
  ...identityFields,
  charge_Pa: amount('Charges to', 'pressure', 10 * BAR, 300 * BAR),
  limits: z
    .strictObject({ charge_Pa: limit('Charge, either way', 'pressure', BAR, 50 * BAR) })
    .meta({ title: 'Limits' }),
});
export type ChargePumpProfile = z.infer<typeof chargePumpProfile>;

/** What is charged to a pressure, within so much. */
type Charged = Pick<ChargePumpProfile, 'charge_Pa' | 'limits'>;

/** Oil is warm enough from here on: colder, it does what a plugged drilling does. Handbook-models 8.7. */
const WARM_OIL: Limit = {
  value: 303.15,
  source: 'Typical: a valve is judged with its oil at 30 °C or more, for cold oil makes a sound one hunt',
};

const offBy = ({ charge_Pa, limits }: Charged, sign: 1 | -1): Limit => ({
  ...limits.charge_Pa,
  value: charge_Pa + sign * limits.charge_Pa.value,
});

/** What a pump that charges accumulators must keep to, a bench’s or a machine’s own. Handbook-models 8.7. */
export const chargingKeeps: Keeps<Charged>['readings'] = {
  'source.charged': { to: 'range', low: (one) => offBy(one, -1), high: (one) => offBy(one, 1) },
  'source.oil': { to: 'at-least', limit: () => WARM_OIL },
};

/** A pump that charges two accumulators, on the machine. Its charge is read with what it charges. */
export const chargePump: MemberFolder<ChargePumpProfile> = {
  kind: 'charge-pump',
  name: 'Pump and charge valve',
  role: 'source',
  profile: chargePumpProfile,
  typical: {
    kind: 'charge-pump',
    name: 'Pump and charge valve, typical figures',
    maker: '',
    charge_Pa: 150 * BAR,
    limits: {
      charge_Pa: limitFrom('Typical for charge valves; the maker’s own figure where it is known')(6 * BAR),
    },
  },
  ...UNTESTED,
  keeps: chargingKeeps,
};

/** The same as a part of a whole: it does what a bench’s pack does, turned by something else. */
export const chargePumpBy = (drive: PumpDrive): Member<ChargePumpProfile> => ({
  ...pumpPack,
  healthy: ({ charge_Pa, limits }) => pumpPack.healthy({ charge_Pa, within_Pa: limits.charge_Pa.value }),
  motion: chargingMotion(drive),
});
