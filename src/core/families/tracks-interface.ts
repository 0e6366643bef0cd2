import { numberIn, type Heard, type ThroughInterface, type Values } from '../contract/vehicle-interface';
import { pairSays, sensorPair } from '../signals/sensor-pair';
import type { Channel } from '../signals/trace';

/** As far as a course of a track is drawn, V. */
const MOST_V = 6;
/** Further than this the sum is off its supply while it is watched: our judgement, as usual limits have it, V. */
const OFF_V = 0.1;
const TRACKS = ['track1', 'track2', 'sensorSupply'] as const;

/** Sum of both tracks less their supply, V; null where one of the three was not told. */
function sum_V(values: Values): number | null {
  const [one, two, supply] = [
    numberIn(values, 'track1'),
    numberIn(values, 'track2'),
    numberIn(values, 'sensorSupply'),
  ];
  return one === null || two === null || supply === null ? null : one + two - supply;
}

/** A log as channels: both tracks and their supply. */
function channelsOf(log: readonly Heard[]): readonly [Channel, Channel, Channel] {
  const channel = (id: string): Channel => ({
    name: id,
    port: null,
    quantity: 'voltage',
    values: Float64Array.from(log, ({ values }) => numberIn(values, id) ?? NaN),
  });
  return [channel('track1'), channel('track2'), channel('sensorSupply')];
}

/** The step of the tracks through a vehicle’s interface: what its own control unit makes of them. */
export const tracksThroughInterface: ThroughInterface = {
  reads: TRACKS,
  asks: null,
  shows: (values) => {
    const figure = (id: string, name: string, value: number | null) =>
      ({ id, name, shows: { quantity: 'voltage', value } }) as const;
    return [
      figure('track1', 'Track 1, as the unit reads it', numberIn(values, 'track1')),
      figure('track2', 'Track 2, as the unit reads it', numberIn(values, 'track2')),
      figure('sensorSupply', 'Supply of the sensor', numberIn(values, 'sensorSupply')),
      figure('sum', 'Sum of the tracks less their supply', sum_V(values)),
    ];
  },
  course: {
    name: 'Track 1',
    quantity: 'voltage',
    most: MOST_V,
    of: (values) => numberIn(values, 'track1'),
    keeps: () => null,
    shaded: 'the sum is off its supply',
    isShaded: (values) => Math.abs(sum_V(values) ?? 0) > OFF_V,
  },
  tells: (log) => {
    const [one, two, supply] = channelsOf(log);
    const time_s = Float64Array.from(log, ({ t_s }) => t_s);
    const pair = sensorPair({ time_s, channels: [one, two, supply] }, [one, two], supply, undefined);
    return {
      found: [
        { name: 'Sum less the supply', found: pair.sum },
        { name: 'The same where it is furthest from that', found: pair.worst },
        { name: 'Track 1, pedal out the least', found: pair.rest[0] },
        { name: 'Track 2, pedal out the least', found: pair.rest[1] },
        { name: 'Track 1 moves by', found: pair.moves[0] },
        { name: 'Track 2 moves by', found: pair.moves[1] },
      ],
      says: pairSays(pair),
    };
  },
};
