import { PRE_CHARGE_K } from '../../fluid/accumulator';
import { NITROGEN } from '../../fluid/nitrogen';
import { SEA_LEVEL_PA } from '../../air/atmosphere';
import type { HealthyWhole } from '../../contract/family';
import type { Keeps, Limit } from '../../contract/keeps';
import type { Result } from '../../contract/result';
import type { ResultRule } from '../../contract/result-rules';
import { printHours } from '../../quantities/print';
import { sentence, type Sentence } from '../../quantities/sentence';
import { byItem } from '../results-by';
import { springsCarry } from './levelling';
import type { ReadingId } from './member';
import type { StoredPressureProfile } from './profile';

type Profile = StoredPressureProfile;
type Kept = Keeps<Profile>['readings'][string];

const offBy = (value: number, by: Limit, sign: 1 | -1): Limit => ({ ...by, value: value + sign * by.value });
const within = (of: (profile: Profile) => number, by: keyof Profile['limits']): Kept => ({
  to: 'range',
  low: (profile) => offBy(of(profile), profile.limits[by], -1),
  high: (profile) => offBy(of(profile), profile.limits[by], 1),
});
const band = (...by: (keyof Profile['limits'])[]): Kept => ({
  to: 'band',
  says: ({ limits }) => by.map((one) => limits[one]),
});
const atMost = (by: keyof Profile['limits']): Kept => ({ to: 'at-most', limit: ({ limits }) => limits[by] });

/** What both circuits keep to, the rear one under its own names. */
const KEEPS: Readonly<Record<string, Kept>> = {
  flickUp: band('preCharge_fraction'),
  lampOff: atMost('lampOff_s'),
  chargeTime: atMost('charge_s'),
  cutOut: within(({ out_Pa }) => out_Pa, 'switch_Pa'),
  settled: band('switch_Pa', 'preCharge_fraction'),
  cutIn: within(({ in_Pa }) => in_Pa, 'switch_Pa'),
  output: band('output_fraction'),
  releasing: band('output_fraction', 'hysteresis_Pa'),
  residual: atMost('residual_Pa'),
  lamp: within(({ lamp_Pa }) => lamp_Pa, 'lamp_Pa'),
  left: band('clearance_fraction', 'preCharge_fraction'),
  toLamp: band('clearance_fraction', 'preCharge_fraction', 'lamp_Pa'),
  kept: {
    to: 'at-least',
    limit: ({ lamp_Pa, limits }, { applications = 0 }) =>
      applications <= limits.applications.value ? { ...limits.applications, value: lamp_Pa } : null,
  },
};

/** What the readings of a car with stored pressure must keep to. Handbook-models 8.6. */
export const keeps: Keeps<Profile>['readings'] = {
  ...KEEPS,
  ...Object.fromEntries(Object.entries(KEEPS).map(([id, keep]) => [`${id}2`, keep])),
  trimmed: within(({ trim_m }) => trim_m, 'height_m'),
  ram: band('spring_fraction', 'height_m'),
  onSprings: band('spring_fraction'),
  nudge: atMost('nudge_Pa'),
  rise: band('rise_fraction'),
  riseParked: band('rise_fraction'),
};

const BOTH = [
  { n: '', mark: '', which: 'front circuit', side: 'front' },
  { n: '2', mark: '-2', which: 'rear circuit', side: 'rear' },
] as const;

/** Results of a car with stored pressure, in the order of the steps. */
export function results(profile: Profile, whole: HealthyWhole): ResultRule[] {
  const { metering_N, limits, shell_m3 } = profile;
  const middle = Math.floor((metering_N.length - 1) / 2) + 1;
  const high = (limit: Limit) => ({ limits: { high: limit.value }, source: limit.source });
  return [
    ...BOTH.flatMap(({ n, mark, which, side }): ResultRule[] => {
      // Asked for only where it is needed, and then again and again.
      let known: number | null = null;
      const given_m3 = () => (known ??= perTurn_m3(profile, whole, n));
      return [
        byItem(`pre-charge${mark}`, `flick.supply${n}`, `Flick-up, ${which}`),
        byItem(`lamp-off${mark}`, `lamp.time${n}`, `Lamp out after, ${which}`),
        byItem(`charge-time${mark}`, `charge.time${n}`, `Charge from empty, ${which}`),
        byItem(`cut-out${mark}`, `charge.supply${n}`, `Cut-out, ${which}`),
        {
          of: 'parameter',
          id: `shell${mark}`,
          name: `Inside of the accumulator by its charge, ${which}`,
          step: 'charge',
          quantity: 'volume',
          from: {
            flick: `flick.supply${n}`,
            time: `charge.time${n}`,
            settled: `settled.supply${n}`,
            idle: 'idle.speed',
            other: `charge.time${n ? '' : '2'}`,
          },
          unless: ({ time = 0, other = 0 }) => (other - time > CHARGED_AGAIN_S ? CHARGED_AGAIN : null),
          value: ({ flick = 0, time = 0, settled = 0, idle = 0 }) =>
            shellBy_m3(given_m3() * idle, time, flick, settled),
          nominal: { value: shell_m3, part: limits.shell_fraction },
        },
        byItem(`standing${mark}`, `left.supply${n}`, `After standing, ${which}`),
        byItem(`cut-in${mark}`, `in.supply${n}`, `Cut-in, ${which}`),
        ...metering_N.map((_, i) =>
          byItem(
            `${side}.${i + 1}`,
            `metering.${i + 1}.${side}`,
            `${capital(side)} brakes at force ${i + 1}`,
          ),
        ),
        {
          of: 'parameter',
          id: `hysteresis${mark}`,
          name: `${capital(side)} brakes, coming down over going up`,
          step: 'metering',
          quantity: 'pressure',
          from: { up: `metering.${middle}.${side}`, down: `down.${side}` },
          value: ({ up = 0, down = 0 }) => down - up,
          against: high(limits.hysteresis_Pa),
        },
        byItem(`residual${mark}`, `released.${side}`, `Left in the ${side} brakes, released`),
        byItem(
          `applications${mark}`,
          `kept.${limits.applications.value}.supply${n}`,
          `After ${limits.applications.value} applications, ${which}`,
        ),
        byItem(`lamp${mark}`, `lit.supply${n}`, `Lamp lights at, ${which}`),
        {
          of: 'item',
          item: `stand.time${n}`,
          id: `to-lamp${mark}`,
          name: `Stand to the lamp, ${which}`,
          says: { from: { fluid_K: 'fluid.warm' }, of: standsFor },
        },
      ];
    }),
    ...(['left', 'right'] as const).flatMap((corner): ResultRule[] => [
      byItem(`trimmed-${corner}`, `trim.${corner}`, `Height as trimmed, ${corner}`),
      byItem(`springs-${corner}`, `springs.${corner}`, `Height on springs alone, ${corner}`),
      {
        of: 'parameter',
        id: `carried-${corner}`,
        name: `Carried by the spring, ${corner}`,
        step: 'springs',
        quantity: 'percent',
        from: { trim: `trim.${corner}`, springs: `springs.${corner}` },
        value: ({ trim = 0, springs = 0 }) => springsCarry(profile.free_m, trim, springs),
        against: {
          limits: { low: limits.carried_fraction.value },
          source: limits.carried_fraction.source,
        },
      },
    ]),
    byItem('ram', 'trim.ram', 'Ram line as trimmed'),
    byItem('rise', 'rise.time', 'Lift in gear'),
    byItem('rise-parked', 'rise.parked', 'Lift parked'),
    byItem('nudge', 'bumps.rear', 'Rear brakes over a bump'),
  ];
}

/** A circuit that was full so much sooner than the other has cooled meanwhile and may have been charged again, s. */
const CHARGED_AGAIN_S = 15;
const CHARGED_AGAIN = sentence(
  'The other circuit took longer: this one cooled meanwhile and may have been charged again, so what went into it is not known.',
);

/** What a stand to the lamp came to, at the fluid's warmth. */
function standsFor(
  { value, verdict }: Result,
  { fluid_K = 0 }: Readonly<Record<string, number>>,
): Sentence | null {
  if (value === null) return null;
  const at = { fluid: { value: fluid_K, quantity: 'temperature' } } as const;
  const lit = `Lamp after ${printHours(value)} at {fluid}`;
  if (verdict === 'meets') return sentence(`${lit}: as designed for this clearance.`, at);
  return verdict === 'fails' ? sentence(`${lit}: not what this clearance lets through.`, at) : null;
}

const capital = (text: string) => text[0]!.toUpperCase() + text.slice(1);

/** What a healthy pump leaves in a circuit for each turn of the engine, m³: by the charge of a healthy whole. */
function perTurn_m3({ shell_m3 }: Profile, whole: HealthyWhole, n: '' | '2'): number {
  const still = { pedal_N: 0, supply2_Pa: 0, fluid_K: PRE_CHARGE_K, idle_PerS: 0 };
  const idle_PerS = whole.shows('source.idle', still);
  const shows = (reading: ReadingId) => whole.shows(`${reading}${n}`, { ...still, idle_PerS });
  return shell_m3 / shellBy_m3(idle_PerS, shows('chargeTime'), shows('flickUp'), shows('settled'));
}

/**
 * Inside of an accumulator by its charge from empty, m³: V₀ = q·t/(1 − v(p₁)/v(p₀)), p₀ its flick-up and p₁ settled. Handbook-models 8.6.
 *
 * @param flow_m3PerS of its pump
 */
export function shellBy_m3(
  flow_m3PerS: number,
  time_s: number,
  flick_Pa: number,
  settled_Pa: number,
): number {
  const volume = (pressure_Pa: number) => NITROGEN.volume_m3(PRE_CHARGE_K, pressure_Pa + SEA_LEVEL_PA);
  return (flow_m3PerS * time_s) / (1 - volume(settled_Pa) / volume(flick_Pa));
}
