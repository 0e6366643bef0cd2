import type { TestedAt } from '../contract/family';
import type { Keeps, Limit } from '../contract/keeps';
import type { ResultRule } from '../contract/result-rules';
import type { Step } from '../contract/steps';
import { usualPart, usualTravel_m } from '../electric/sensor-track';
import type { Port } from '../contract/family';
import { sentence } from '../quantities/sentence';
import { readingOn } from './bench-items';
import { byItem } from './results-by';

/** Where the sensor of a pedal is read. */
export const TRACK_PORTS = [
  { id: 'sensor', name: 'Supply of the sensor', short: 'Sensor', quantity: 'voltage', ink: 'activation' },
  { id: 'track-1', name: 'Track 1 of the sensor', short: 'Track 1', quantity: 'voltage', ink: 'activation' },
  { id: 'track-2', name: 'Track 2 of the sensor', short: 'Track 2', quantity: 'voltage', ink: 'activation' },
] as const satisfies readonly Port[];

/** What makes one sensor of a pedal differ from another, and what faults move. */
export const TRACK_PARAMETERS = [
  { id: 'full_m', name: 'Full way of its sensor', quantity: 'travel' },
  { id: 'sensor_V', name: 'Supply of its sensor', quantity: 'voltage' },
  { id: 'magnet_m', name: 'Magnet of the sensor, displaced', quantity: 'travel' },
  { id: 'drift_V', name: 'First track, drifted', quantity: 'voltage' },
  { id: 'swapped', name: 'Tracks swapped: 1, else 0', quantity: 'ratio' },
] as const;

/** What a test reads of it. */
export const TRACK_READINGS = [
  { id: 'sensorSupply', name: 'Supply of the sensor', quantity: 'voltage' },
  { id: 'track1', name: 'Track 1', quantity: 'voltage' },
  { id: 'track2', name: 'Track 2', quantity: 'voltage' },
  { id: 'track1Back', name: 'Track 1 as the pedal is let go', quantity: 'voltage' },
] as const;

type Sensor = Readonly<Record<(typeof TRACK_PARAMETERS)[number]['id'], number>>;

/** What two tracks that run against each other show with their pedal so far out, V. Handbook-models 8.8. */
export function tracksAt(p: Sensor, travel_m: number): readonly [number, number] {
  const rises = usualPart(travel_m + p.magnet_m, p.full_m);
  const track1 = held(held(rises, 1) + p.drift_V / p.sensor_V, p.sensor_V);
  const track2 = held(1 - rises, p.sensor_V);
  return p.swapped > 0.5 ? [track2, track1] : [track1, track2];
}

/** A part of a supply, within it. */
const held = (part: number, supply_V: number): number => Math.min(1, Math.max(0, part)) * supply_V;

/** What a profile says of the sensor of its pedal. */
interface Tracked {
  readonly full_m: number;
  readonly limits: { readonly rest_m: Limit; readonly sum_V: Limit };
}

/** What its readings must keep to. */
export const trackKeeps = <P extends Tracked>(): Keeps<P>['readings'] => ({
  sensorSupply: { to: 'noted' },
  track1: { to: 'band', says: ({ limits }) => [limits.rest_m] },
  track2: { to: 'band', says: ({ limits }) => [limits.rest_m] },
  track1Back: { to: 'band', says: ({ limits }) => [limits.rest_m] },
});

/** The step in which both are read, at rest and pressed. @param pressed_N so hard */
export function tracksStep(at: TestedAt, pressed_N: number, needs: readonly string[]): Step {
  const read = (...[id, port, measures, prompt, more]: [string, string, string, string, object?]) =>
    readingOn(at.ports, id, port, measures, prompt, more);
  const during = { target_Pa: pressed_N, inputFrom: 'tracks.input' };
  return {
    id: 'tracks',
    title: 'Tracks of the pedal’s sensor',
    instruction:
      'Read at pins made for it or through a lead put in between: supply and both tracks, foot off; then pressed. Their sum does not show tracks that are swapped, nor a magnet that is displaced: the rest does.',
    cautions: ['pierced-lead'],
    state: at.on,
    needs,
    leaves: { input: 'released' },
    attended_s: 180,
    items: [
      read('tracks.supply', 'sensor', 'sensorSupply', 'Read the supply of the sensor.'),
      read('tracks.rest.1', 'track-1', 'track1', 'Foot off: read track 1.'),
      read('tracks.rest.2', 'track-2', 'track2', 'Foot off: read track 2.'),
      read('tracks.input', 'pedal', 'input', 'Bring the pedal to this force, always upward, and read it.', {
        target_Pa: pressed_N,
      }),
      read('tracks.pressed.1', 'track-1', 'track1', 'Pressed: read track 1.', during),
      read('tracks.pressed.2', 'track-2', 'track2', 'Pressed: read track 2.', during),
      read('tracks.back', 'track-1', 'track1Back', 'Let go, and wait a moment: read track 1 again.', {
        moment: 'by-hand',
      }),
    ],
  };
}

const NO_SUPPLY = sentence('The sensor has no supply: its tracks tell nothing.');
/** A sensor with less than this has no supply, V. */
const SUPPLIED_V = 1;

/** The sum of both tracks against their supply: blind to tracks that are swapped and to a magnet that is displaced. */
const sumOf = ({ limits }: Tracked, id: string, name: string, when: string): ResultRule => ({
  of: 'parameter',
  id,
  name,
  step: 'tracks',
  quantity: 'voltage',
  from: { supply: 'tracks.supply', one: `tracks.${when}.1`, other: `tracks.${when}.2` },
  unless: ({ supply = 0 }) => (supply < SUPPLIED_V ? NO_SUPPLY : null),
  value: ({ supply = 0, one = 0, other = 0 }) => one + other - supply,
  against: {
    limits: { low: -limits.sum_V.value, high: limits.sum_V.value },
    source: limits.sum_V.source,
  },
});

/** The way that a track tells of at rest, scaled to the supply that was read: x = x_full·(V/V_s − 0.1)/0.8, or from the other end. */
const restOf = ({ full_m, limits }: Tracked, track: 1 | 2): ResultRule => ({
  of: 'parameter',
  id: `rest-${track}`,
  name: `Track ${track} at rest`,
  step: 'tracks',
  quantity: 'travel',
  from: { supply: 'tracks.supply', volts: `tracks.rest.${track}` },
  unless: ({ supply = 0 }) => (supply < SUPPLIED_V ? NO_SUPPLY : null),
  value: ({ supply = 1, volts = 0 }) => {
    const part = volts / supply;
    return usualTravel_m(track === 1 ? part : 1 - part, full_m);
  },
  against: { limits: { low: -limits.rest_m.value, high: limits.rest_m.value }, source: limits.rest_m.source },
});

/** Results of the step of both tracks. */
export const trackResults = (profile: Tracked): ResultRule[] => [
  sumOf(profile, 'sum-rest', 'Sum of the tracks at rest', 'rest'),
  restOf(profile, 1),
  restOf(profile, 2),
  sumOf(profile, 'sum-pressed', 'Sum of the tracks, pressed', 'pressed'),
  byItem('track-1', 'tracks.pressed.1', 'Track 1, pressed'),
  byItem('track-2', 'tracks.pressed.2', 'Track 2, pressed'),
  byItem('track-back', 'tracks.back', 'Track 1, let go again'),
];
