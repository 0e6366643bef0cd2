import type { Keeps, Limit } from '../../contract/keeps';
import type { ResultRule } from '../../contract/result-rules';
import { tableBand_Pa, tablePressure_Pa } from '../../electric/sensor-table';
import { sentence } from '../../quantities/sentence';
import { trackKeeps, trackResults } from '../pedal-tracks';
import { byItem } from '../results-by';
import { WHEELS, type WheelId } from '../wheel-lines';
import { OF_WHEEL } from './member';
import { tableOf, type ByWireProfile } from './profile';

type Profile = ByWireProfile;

const BAR = 1e5;

const aboutStopped = ({ out_Pa, limits }: Profile, sign: 1 | -1): Limit => ({
  ...limits.switch_Pa,
  value: out_Pa + sign * limits.switch_Pa.value,
});

/** In a wheel that is released nothing is left; pressed it stands at its target. */
const inWheel: Keeps<Profile>['readings'][string] = {
  to: 'about',
  least: ({ limits }, { target_Pa: pressed_N }) =>
    pressed_N === undefined ? limits.released_Pa : limits.target_Pa,
};

/** With no power it stands at what the foot makes. */
const alone: Keeps<Profile>['readings'][string] = {
  to: 'about',
  least: ({ limits, pedalRatio, spring_N, master_m2 }, { target_Pa: pressed_N = 0 }) => ({
    ...limits.fallback_fraction,
    value: (limits.fallback_fraction.value * (pedalRatio * pressed_N - spring_N)) / master_m2,
  }),
};

/** What the readings of a decoupled brake must keep to. Handbook-models 8.9. */
export const keeps: Keeps<Profile>['readings'] = {
  ...Object.fromEntries(WHEELS.map(({ id }) => [`load.${id}`, inWheel])),
  travel: { to: 'about', least: ({ limits }) => limits.travel_m },
  master1: { to: 'noted' },
  master2: { to: 'band', says: ({ limits }) => [limits.masters_Pa] },
  flickUp: { to: 'band', says: ({ limits }) => [limits.preCharge_fraction] },
  chargeTime: { to: 'at-most', limit: ({ limits }) => limits.charge_s },
  cutOut: { to: 'range', low: (one) => aboutStopped(one, -1), high: (one) => aboutStopped(one, 1) },
  accumulatorSensor: { to: 'noted' },
  left: { to: 'below', by: ({ limits }) => limits.stand_Pa },
  ...trackKeeps<Profile>(),
  // Pressed, its travel is known no better than the force that presses it.
  track1: { to: 'about', least: ({ limits }) => limits.sum_V },
  track2: { to: 'about', least: ({ limits }) => limits.sum_V },
  swing: { to: 'at-most', limit: ({ limits }) => limits.noise_V },
  requested: { to: 'noted' },
  aloneTravel: { to: 'about', least: ({ limits }) => limits.travel_m },
  granted: { to: 'noted' },
  ...Object.fromEntries(
    OF_WHEEL.flatMap(({ sensor, apply, release, alone: own }) => [
      [own, alone],
      [sensor, { to: 'noted' }],
      [apply, { to: 'band', says: ({ limits }: Profile) => [limits.current_A] }],
      [release, { to: 'noted' }],
    ]),
  ),
};

const NO_SUPPLY = sentence('The sensors have no supply: their volts tell nothing.');
/** Sensors with less than this have no supply, V. */
const SUPPLIED_V = 1;

/** What a sensor tells of by its table, scaled to the supply that was read, less what a gauge shows there: within the table’s band. */
function againstTable(
  profile: Profile,
  id: string,
  name: string,
  step: string,
  volts: string,
  shown: string,
  at_Pa: number,
): ResultRule {
  const table = tableOf(profile);
  const band_Pa = tableBand_Pa(table, at_Pa);
  return {
    of: 'parameter',
    id,
    name,
    step,
    quantity: 'pressure',
    from: { supply: `${step}.fed`, volts, shown },
    unless: ({ supply = 0 }) => (supply < SUPPLIED_V ? NO_SUPPLY : null),
    value: ({ supply = 1, volts: read = 0, shown: gauge = 0 }) =>
      tablePressure_Pa(table, read, supply) - gauge,
    against: {
      limits: { low: -band_Pa, high: band_Pa },
      source: 'Table of the sensors: its band, as a pressure',
    },
  };
}

/** The accumulator above the wheel that is pressed hardest. */
const margin = ({ margin_Pa, limits }: Profile): ResultRule => ({
  of: 'parameter',
  id: 'margin',
  name: 'Accumulator above the highest wheel',
  step: 'targets',
  quantity: 'pressure',
  from: {
    accumulator: 'targets.supply',
    ...Object.fromEntries(WHEELS.map(({ id }) => [id, `targets.2.${id}`])),
  },
  value: ({ accumulator = 0, ...wheels }) =>
    accumulator - Math.max(...WHEELS.map(({ id }) => (wheels as Record<WheelId, number>)[id])),
  against: { limits: { low: margin_Pa }, source: limits.target_Pa.source },
});

/** Both sensors of the master, by the table. */
const masters = (profile: Profile): ResultRule => {
  const table = tableOf(profile);
  return {
    of: 'parameter',
    id: 'masters',
    name: 'Master sensor 2 less master sensor 1',
    step: 'simulator',
    quantity: 'pressure',
    from: { supply: 'simulator.fed', one: 'simulator.2.master1', two: 'simulator.2.master2' },
    unless: ({ supply = 0 }) => (supply < SUPPLIED_V ? NO_SUPPLY : null),
    value: ({ supply = 1, one = 0, two = 0 }) =>
      tablePressure_Pa(table, two, supply) - tablePressure_Pa(table, one, supply),
    against: {
      limits: { low: -profile.limits.masters_Pa.value, high: profile.limits.masters_Pa.value },
      source: profile.limits.masters_Pa.source,
    },
  };
};

const NOT_ASKED = sentence('Nothing was asked of the drive: nothing could be granted.');
/** Less than this is nothing asked for, N·m. */
const ASKED_NM = 10;

/** What the drive granted of what was asked of it. */
const granted = ({ limits }: Profile): ResultRule => ({
  of: 'parameter',
  id: 'granted',
  name: 'Regeneration granted, of what was asked for',
  step: 'blend',
  quantity: 'percent',
  from: { asked: 'blend.requested', got: 'blend.granted' },
  unless: ({ asked = 0 }) => (asked < ASKED_NM ? NOT_ASKED : null),
  value: ({ asked = 1, got = 0 }) => got / asked,
  against: { limits: { low: limits.granted_fraction.value }, source: limits.granted_fraction.source },
});

/** A release valve as it would open with nothing across it: what it took, and κ for what a gauge showed in its wheel at that force. */
function releaseOf({ zero_A, perBar_A, limits }: Profile, wheel: number): ResultRule {
  const { id, name } = WHEELS[wheel]!;
  return {
    of: 'parameter',
    id: `release.${id}`,
    name: `Release valve, with nothing across it, ${name}`,
    step: 'currents',
    quantity: 'current',
    from: { opens: `currents.${OF_WHEEL[wheel]!.release}`, shown: `currents.${id}` },
    value: ({ opens = 0, shown = 0 }) => opens + (perBar_A * shown) / BAR,
    against: {
      limits: { low: zero_A - limits.current_A.value, high: zero_A + limits.current_A.value },
      source: limits.current_A.source,
    },
  };
}

/** Sinking of the pedal over a hold. */
const sinks = ({ limits }: Profile): ResultRule => ({
  of: 'parameter',
  id: 'sinks',
  name: 'Pedal sinks while it is held',
  step: 'simulator',
  quantity: 'travel',
  from: { start: 'simulator.2.travel', end: 'simulator.sunk' },
  value: ({ start = 0, end = 0 }) => end - start,
  against: { limits: { high: limits.sink_m.value }, source: limits.sink_m.source },
});

/** Results of a decoupled brake’s tests, in the order of the steps. */
export function results(profile: Profile): ResultRule[] {
  const { out_Pa } = profile;
  return [
    byItem('flick-up', 'charge.flick', 'Flick-up of the accumulator'),
    byItem('charge-time', 'charge.time', 'Charge from empty'),
    byItem('cut-out', 'charge.supply', 'Pump stopped at'),
    againstTable(
      profile,
      'accumulator-sensor',
      'Accumulator sensor less the gauge',
      'charge',
      'charge.sensor',
      'charge.supply',
      out_Pa,
    ),
    byItem('stand', 'stand.end', 'Accumulator after standing'),
    ...trackResults(profile),
    byItem('travel-1', 'simulator.1.travel', 'Pedal travel, lighter force'),
    byItem('travel-2', 'simulator.2.travel', 'Pedal travel, heavier force'),
    masters(profile),
    sinks(profile),
    byItem('swing', 'released.swing', 'Swing of a sensor at rest'),
    ...WHEELS.map(({ id, name }) => byItem(`released.${id}`, `released.${id}`, `Left in the wheel ${name}`)),
    ...([1, 2] as const).flatMap((force) =>
      WHEELS.map(({ id, name }) =>
        byItem(`target.${force}.${id}`, `targets.${force}.${id}`, `Wheel ${name}, force ${force}`),
      ),
    ),
    ...WHEELS.map(({ id, name }, i) =>
      againstTable(
        profile,
        `sensor.${id}`,
        `Sensor less the gauge, ${name}`,
        'targets',
        `targets.2.${OF_WHEEL[i]!.sensor}`,
        `targets.2.${id}`,
        0,
      ),
    ),
    margin(profile),
    ...WHEELS.flatMap(({ id, name }, i) => [
      byItem(`apply.${id}`, `currents.${OF_WHEEL[i]!.apply}`, `Apply valve opens, ${name}`),
      releaseOf(profile, i),
    ]),
    byItem('requested', 'blend.requested', 'Regeneration asked for'),
    granted(profile),
    ...WHEELS.filter(({ axle }) => profile.joins === 'all' || axle === 'front').map(({ id, name }) =>
      byItem(`fallback.${id}`, `fallback.${id}`, `Without power, ${name}`),
    ),
    byItem('fallback-travel', 'fallback.travel', 'Pedal travel without power'),
  ];
}
