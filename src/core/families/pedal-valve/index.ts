import { defineFamily, type Family } from '../../contract/family';
import { assessBy } from '../assess-run';
import { noLoad, pumpPack, WARM_OIL_K } from '../bench-members';
import { expectBy } from '../expectation';
import { resultsBy } from '../results-by';
import { faults, looks } from './faults';
import { member } from './member';
import { motion } from './motion';
import { leakPoints, parts, ports } from './places';
import { pedalValveProfile, type PedalValveProfile } from './profile';
import { assessRules, keeps, results } from './rules';
import { procedure } from './steps';
import { typical } from './typical';

/** Dual pedal valve with two accumulators, on a bench with a pump pack. Handbook-models 8.7. */
export const pedalValve: Family = defineFamily<PedalValveProfile>({
  kind: 'pedal-valve',
  name: 'Dual pedal valve',
  role: 'unit',
  revision: 1,
  upcast: (stored) => stored,
  profile: pedalValveProfile,
  typical,
  member: { ...member, motion },
  onBench: {
    source: pumpPack,
    load: noLoad,
    profiles: ({ charge_Pa, limits }) => ({
      source: { charge_Pa, within_Pa: limits.charge_Pa.value },
      load: null,
    }),
    full: ({ stop_m, charge_Pa }) => ({
      travel_m: stop_m,
      supply_Pa: charge_Pa,
      supply2_Pa: charge_Pa,
      oil_K: WARM_OIL_K,
    }),
  },
  curve: {
    sources: ['rest.supply'],
    input: 'travel_m',
    output: 'output',
    releasing: 'releasing',
    knee: { reading: 'begins', word: 'begins' },
  },
  fluid: ({ fluid }) => fluid,
  logged: ({ shell_m3, preCharge_Pa }) => ({
    slave: null,
    rod: null,
    vacuumVolume_m3: 0,
    accumulators: [
      { port: 'supply', name: 'accumulator 1', shell_m3, preCharge_Pa },
      { port: 'supply-2', name: 'accumulator 2', shell_m3, preCharge_Pa },
    ],
    metered: {
      travel: 'treadle',
      circuits: [
        { port: 'output', name: 'circuit 1' },
        { port: 'output-2', name: 'circuit 2' },
      ],
    },
  }),
  faults,
  looks,
  procedure,
  parts,
  gas: { 'pre-charge-1': 'accumulator-1', 'pre-charge-2': 'accumulator-2' },
  ports,
  leakPoints,
  expect: (context, run, item) => expectBy(pedalValve, keeps, context, run, item),
  results: (context, run) => resultsBy(pedalValve, results(context.profile), context, run),
  assess: (context, run, found) => assessBy(pedalValve, assessRules(), context, run, found),
});

export type { PedalValveProfile };
