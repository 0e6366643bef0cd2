import type { Keeps } from '../../contract/keeps';
import type { ResultRule } from '../../contract/result-rules';
import { trackKeeps, trackResults } from '../pedal-tracks';
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
  ...trackKeeps<Profile>(),
};

/** Results of an electromechanical booster’s tests, in the order of the steps. */
export function results(profile: Profile): ResultRule[] {
  return [
    ...trackResults(profile),
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
