import { defineFamily, type Family } from '../../contract/family';
import { assessBy } from '../assess-run';
import { assessRules } from './assess';
import { expectBy } from '../expectation';
import { alsoExpected } from './also-expected';
import { keeps } from './keeps';
import { faults, looks } from './faults';
import { motion } from './motion';
import { parts } from './parts';
import { leakPoints, ports } from './ports';
import { procedure } from './procedure';
import { remoteVacuumProfile, type RemoteVacuumProfile } from './profile';
import { resultsWith } from './results';
import { settling } from '../../passage/third-gauge';
import { passageOf } from './ratio';
import { typical } from './typical';
import { AIR, logged, member } from './member';
import { PLUGGED_PORT } from '../../fluid/closed-line';
import { benchVacuum, pluggedPort } from '../bench-members';

/** Remote vacuum unit: in-line, vacuum-hydraulic, fed by the vehicle's master cylinder. Handbook 8.1. */
export const remoteVacuum: Family = defineFamily<RemoteVacuumProfile>({
  kind: 'remote-vacuum',
  name: 'Remote vacuum unit',
  role: 'unit',
  revision: 1,
  upcast: (stored) => stored,
  profile: remoteVacuumProfile,
  typical,
  member: { ...member, motion },
  onBench: {
    source: benchVacuum,
    load: pluggedPort,
    profiles: () => ({ source: { hose_m3PerSPa: AIR.hose_m3PerSPa }, load: PLUGGED_PORT }),
    full: ({ fullInput_Pa }) => ({ input_Pa: fullInput_Pa }),
  },
  curve: {
    sources: ['full.supply', 'rest.supply'],
    input: 'input_Pa',
    output: 'output',
    releasing: 'outputReleasing',
    knee: { reading: 'runoutInput', word: 'runout' },
  },
  fluid: ({ fluid }) => fluid,
  logged,
  traced: [
    { result: 'crack', item: 'crack.input' },
    { result: 'runout-input', item: 'runout.input' },
    { result: 'runout-output', item: 'runout.output' },
  ],
  faults,
  looks,
  procedure,
  parts,
  ports,
  leakPoints,
  expect: (context, run, item) => expectBy(remoteVacuum, keeps, context, run, item, alsoExpected),
  settling: (context, run) => settling(passageOf(context.profile), ports, context, run),
  results: (context, run) => resultsWith(remoteVacuum, context, run),
  assess: (context, run, results) =>
    assessBy(remoteVacuum, assessRules(context.profile), context, run, results),
});

export { passageOf };
export { typical };
export type { RemoteVacuumProfile };
