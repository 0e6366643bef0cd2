import { defineFamily, type Family } from '../../contract/family';
import { assessBy } from '../assess-run';
import { assessRules } from './assess';
import { expectBy } from '../expectation';
import { keeps } from './keeps';
import { faults, looks } from './faults';
import { motion } from './motion';
import { parts } from './parts';
import { leakPoints, ports } from './ports';
import { procedure } from './procedure';
import { rodServoProfile, type RodServoProfile } from './profile';
import { resultsWith } from './results';
import { typical } from './typical';
import { logged, member } from './member';
import { benchVacuum, loadCell } from '../bench-members';

/** Suspended vacuum servo with its own tank, acting on a rod. Handbook 8.2. */
export const rodServo: Family = defineFamily<RodServoProfile>({
  kind: 'rod-servo',
  name: 'Rod-acting vacuum servo with tank',
  role: 'unit',
  revision: 1,
  upcast: (stored) => stored,
  profile: rodServoProfile,
  typical,
  member: { ...member, motion },
  onBench: {
    source: benchVacuum,
    load: loadCell,
    profiles: (profile) => ({ source: { hose_m3PerSPa: 0 }, load: profile }),
    full: ({ fullInput_Pa }) => ({ input_Pa: fullInput_Pa }),
  },
  curve: {
    sources: ['full.supply', 'rest.supply'],
    input: 'input_Pa',
    output: 'output',
    releasing: null,
    knee: { reading: 'fullInput', word: 'full lift' },
  },
  fluid: ({ fluid }) => fluid,
  logged,
  traced: [{ result: 'force-begins', item: 'begin.input' }],
  faults,
  looks,
  // 504 installations by the library's chances, seed 49070 (bench/README.md).
  unexplainedFrom: 5.8e-11,
  procedure,
  parts,
  ports,
  leakPoints,
  expect: (context, run, item) => expectBy(rodServo, keeps, context, run, item),
  results: (context, run) => resultsWith(rodServo, context, run),
  assess: (context, run, results) => assessBy(rodServo, assessRules(context.profile), context, run, results),
});

export type { RodServoProfile };
