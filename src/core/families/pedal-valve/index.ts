import { defineFamily, type Family } from '../../contract/family';
import type { Keeps } from '../../contract/keeps';
import { assessBy } from '../assess-run';
import { noLoad, pumpPack } from '../bench-members';
import { chargingKeeps } from '../charge-pump';
import { expectBy } from '../expectation';
import { resultsBy } from '../results-by';
import { procedure } from './bench-procedure';
import { curve, fullOf, loggedOf, pedalValveFolder } from './folder';
import { member } from './member';
import { motionWith } from './motion';
import { ports } from './places';
import type { PedalValveProfile } from './profile';
import { assessRules, keeps, results } from './rules';

export { asked, emptied } from './opening';
export { curve, fullOf, loggedOf, member, motionWith, pedalValveFolder, ports };
export type { PedalValveProfile };

const COCKS = { cocks: true } as const;
const { steps: _steps, keeps: _keeps, results: _results, ...folder } = pedalValveFolder(COCKS);
const benchKeeps: Keeps<PedalValveProfile> = {
  ...keeps,
  readings: { ...chargingKeeps, ...keeps.readings },
};

/** Dual pedal valve with two accumulators, on a bench with a pump pack. Handbook-models 8.7. */
export const pedalValve: Family = defineFamily<PedalValveProfile>({
  ...folder,
  role: 'unit',
  revision: 1,
  upcast: (stored) => stored,
  member: { ...member, motion: motionWith(COCKS) },
  onBench: {
    source: pumpPack,
    load: noLoad,
    profiles: ({ charge_Pa, limits }) => ({
      source: { charge_Pa, within_Pa: limits.charge_Pa.value },
      load: null,
    }),
    full: (profile) => fullOf(profile, profile.charge_Pa),
  },
  curve,
  fullPower: true,
  fluid: ({ fluid }) => fluid,
  logged: (profile) => ({ slave: null, rod: null, vacuumVolume_m3: 0, ...loggedOf(profile) }),
  procedure,
  ports,
  expect: (context, run, item) => expectBy(pedalValve, benchKeeps, context, run, item),
  results: (context, run) =>
    resultsBy(pedalValve, [{ of: 'looked' }, ...results(context.profile)], context, run),
  assess: (context, run, found) => assessBy(pedalValve, assessRules(), context, run, found),
});
