import type { Keeps } from '../../contract/keeps';
import type { ResultRule } from '../../contract/result-rules';
import { usualTravel_m } from '../../electric/sensor-track';
import { sentence } from '../../quantities/sentence';
import { byItem } from '../results-by';
import type { ElectromechanicalProfile } from './profile';

type Profile = ElectromechanicalProfile;

/** What the readings of an electromechanical booster must keep to. Handbook-models 8.8. */
export const keeps: Keeps<Profile>['readings'] = {
  'load.pressure': { to: 'band', says: ({ limits }) => [limits.output_fraction] },
  current: { to: 'band', says: ({ limits }) => [limits.current_fraction] },
  // So light that no gauge of feet tells it well.
  crackPedal: { to: 'noted' },
  falls: { to: 'band', says: ({ limits }) => [limits.friction_fraction] },
  runoutPedal: { to: 'band', says: ({ limits }) => [limits.output_fraction] },
  step: { to: 'at-most', limit: ({ limits }) => limits.step_s },
  returns: { to: 'at-most', limit: ({ limits }) => limits.returns_s },
  sensorSupply: { to: 'noted' },
  track1: { to: 'band', says: ({ limits }) => [limits.rest_m] },
  track2: { to: 'band', says: ({ limits }) => [limits.rest_m] },
  track1Back: { to: 'band', says: ({ limits }) => [limits.rest_m] },
};

const NO_SUPPLY = sentence('The sensor has no supply: its tracks tell nothing.');
/** A sensor with less than this has no supply, V. */
const SUPPLIED_V = 1;

/** The sum of both tracks against their supply: blind to tracks that are swapped and to a magnet that is displaced. */
const sumOf = (profile: Profile, id: string, name: string, when: string): ResultRule => ({
  of: 'parameter',
  id,
  name,
  step: 'tracks',
  quantity: 'voltage',
  from: { supply: 'tracks.supply', one: `tracks.${when}.1`, other: `tracks.${when}.2` },
  unless: ({ supply = 0 }) => (supply < SUPPLIED_V ? NO_SUPPLY : null),
  value: ({ supply = 0, one = 0, other = 0 }) => one + other - supply,
  against: {
    limits: { low: -profile.limits.sum_V.value, high: profile.limits.sum_V.value },
    source: profile.limits.sum_V.source,
  },
});

/** The way that a track tells of at rest, scaled to the supply that was read: x = x_full·(V/V_s − 0.1)/0.8, or from the other end. */
const restOf = ({ full_m, limits }: Profile, track: 1 | 2): ResultRule => ({
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

/** Results of an electromechanical booster’s tests, in the order of the steps. */
export function results(profile: Profile): ResultRule[] {
  return [
    sumOf(profile, 'sum-rest', 'Sum of the tracks at rest', 'rest'),
    restOf(profile, 1),
    restOf(profile, 2),
    sumOf(profile, 'sum-pressed', 'Sum of the tracks, pressed', 'pressed'),
    byItem('track-1', 'tracks.pressed.1', 'Track 1, pressed'),
    byItem('track-2', 'tracks.pressed.2', 'Track 2, pressed'),
    byItem('track-back', 'tracks.back', 'Track 1, let go again'),
    byItem('unpowered', 'unpowered.pressure', 'Pressure without power'),
    byItem('returns-time', 'unpowered.returns', 'Back at rest'),
    byItem('crack', 'assist.crack', 'Begins to help'),
    ...profile.assist_N.flatMap((_, i) => [
      byItem(`assist.${i + 1}`, `assist.${i + 1}.pressure`, `Pressure at force ${i + 1}`),
      byItem(`current.${i + 1}`, `assist.${i + 1}.current`, `Current at force ${i + 1}`),
    ]),
    byItem('falls', `assist.${profile.assist_N.length}.falls`, 'First falls, eased off'),
    byItem('runout', 'assist.runout', 'Runout'),
    byItem('step', 'step.time', 'Pressure there after a stamp'),
  ];
}
