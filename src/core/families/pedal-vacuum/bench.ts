import type { AssessRules } from '../../contract/assess-rules';
import { defineFamily, type Family, type Fault, type Part } from '../../contract/family';
import type { Keeps } from '../../contract/keeps';
import type { Result } from '../../contract/result';
import type { ResultRule } from '../../contract/result-rules';
import type { RunContext } from '../../contract/run-context';
import type { RunState } from '../../contract/run-state';
import { assessBy } from '../assess-run';
import { benchMasterOn } from '../bench-master';
import { BENCH_MASTER, benchVacuum } from '../bench-members';
import { benchPumpMotion } from '../bench-motion';
import { expectBy } from '../expectation';
import { gauge, line, part } from '../part-kinds';
import { byItem, byLoss, resultsBy } from '../results-by';
import { healthyWhole } from '../assembly-model';
import { leakPoints, ports } from './bench-ports';
import { procedure } from './bench-procedure';
import { faults as everyFault, looks as everyLook } from './faults';
import { member } from './member';
import { motionOn } from './motion';
import { pedalVacuumProfile, type PedalVacuumProfile } from './profile';
import { areaOf, gainOf, keeps as onVehicle, WORTH } from './rules';
import { typical } from './typical';

/** Nothing may come out at rest: this is above what a gauge of a high range cannot tell from nothing. */
const AT_REST = {
  limits: { high: 3e5 },
  source: 'Typical: a booster at rest makes no pressure',
} as const;

const LOOKS = ['hiss-rest', 'hiss-held', 'drag'];

/** What a booster by itself can have: a pedal that binds is the vehicle's. Signs are those that this test looks for. */
const faults: readonly Fault[] = everyFault
  .filter(({ id }) => id !== 'rod-binding')
  .map((fault) => ({
    ...fault,
    signs: Object.fromEntries(Object.entries(fault.signs).filter(([item]) => LOOKS.includes(item))),
  }));

const VACUUM = ['rest', 'static', 'held', 'reserve'];
const FORCES = ['without', 'with', 'held', 'apply', 'reserve'];
const EVERYTHING = ['gap', ...new Set([...VACUUM, ...FORCES])];

/** What can be changed on a booster by itself, and what that makes stale. */
const parts: readonly Part[] = [
  part('booster', 'Booster, its diaphragm or shell', EVERYTHING, ['supply', 'output']),
  part('valve', 'Control valve', EVERYTHING, ['supply']),
  part('filter', 'Air filter', ['apply'], []),
  part('pushrod', 'Pushrod, or its disc', ['gap', ...FORCES], ['output']),
  line('vacuum-line', 'Vacuum line', VACUUM, ['supply']),
  gauge('pressure-gauge', 'A pressure gauge moved or changed', ['zeros', ...FORCES], ['output']),
  gauge('vacuum-gauge', 'The vacuum gauge moved or changed', ['zeros', ...VACUUM, 'with'], ['supply']),
];

const keeps: Keeps<PedalVacuumProfile> = {
  supply: ({ limits }) => limits.supplyNeed_Pa,
  readings: {
    ...onVehicle,
    heldLeft: { to: 'start', lossPerS: ({ limits }) => limits.decay_PaPerS },
  },
  otherwise: { to: 'noted' },
};

function results(context: RunContext<PedalVacuumProfile>, run: RunState): Result[] {
  const { profile } = context;
  const { limits, decay_s, hold_s, moderate_N, heavy_N } = profile;
  const { shows } = healthyWhole(pedalBooster, profile);
  const heavy = { pedal_N: heavy_N };
  const pushed_m2 = shows('output', heavy) / shows('load.pressure', heavy);
  const loss = (step: string, name: string, planned_s: number) =>
    byLoss(`${step}-loss`, name, {
      step,
      quantity: 'depressionRate',
      limit: limits.decay_PaPerS,
      planned_s,
    });
  const rules: ResultRule[] = [
    { of: 'looked' },
    byItem('clearance', 'gap.rod', 'Clearance of the pushrod'),
    byItem('without.1', 'without.1.pressure', 'Pressure without vacuum, lighter force'),
    byItem('without.2', 'without.2.pressure', 'Pressure without vacuum, heavier force'),
    byItem('supply-need', 'rest.supply', 'Vacuum, against what the booster needs', 'supply'),
    { of: 'health', step: 'rest', item: 'rest.supply' },
    byItem('rest-pressure', 'rest.pressure', 'Pressure at rest', 'unit', AT_REST),
    loss('static', 'Vacuum lost at rest', decay_s),
    byItem('with.1', 'with.1.pressure', 'Pressure with vacuum, lighter force'),
    byItem('with.2', 'with.2.pressure', 'Pressure with vacuum, heavier force'),
    gainOf(1, 'with'),
    gainOf(2, 'with'),
    areaOf(profile, pushed_m2, 'with'),
    loss('held', 'Vacuum lost while held', hold_s),
    byItem('apply', 'apply.time', 'Apply time'),
    {
      of: 'count',
      id: 'reserve',
      name: 'Assisted applications, source shut',
      step: 'reserve',
      measures: 'load.pressure',
      least: WORTH * shows('load.pressure', { pedal_N: moderate_N }),
      limit: limits.reserve,
    },
  ];
  const there = new Set(context.procedure.steps.map(({ id }) => id));
  return resultsBy(
    pedalBooster,
    rules.filter((rule) => !('item' in rule) || there.has(rule.item.split('.')[0]!)),
    context,
    run,
  );
}

const assessRules = ({ heavy_N }: PedalVacuumProfile): AssessRules => ({
  room: 'rest.supply',
  shortfalls: {
    'supply-need': {
      words:
        'What falls short is the supply: the gauge reads {value}, and this booster needs {low}. On it a healthy one makes {here} instead of {there}.',
      shows: { reading: 'load.pressure', quantity: 'pressure', at: { pedal_N: heavy_N } },
    },
  },
  decisive: ['with.2', 'effective-area'],
  excuses: { 'supply-need': ['reserve'] },
});

/** A pedal-mounted vacuum booster by itself, on a bench with a lever and a master cylinder of its own. Handbook 8.3. */
export const pedalBooster: Family = defineFamily<PedalVacuumProfile>({
  kind: 'pedal-vacuum',
  name: 'Pedal-mounted vacuum booster',
  role: 'unit',
  revision: 1,
  upcast: (stored) => stored,
  profile: pedalVacuumProfile,
  typical,
  member: { ...member, motion: motionOn(ports) },
  onBench: {
    source: { ...benchVacuum, motion: benchPumpMotion },
    load: benchMasterOn(ports, 'output'),
    profiles: () => ({ source: { hose_m3PerSPa: 0 }, load: BENCH_MASTER }),
    full: ({ heavy_N }) => ({ pedal_N: heavy_N }),
  },
  curve: {
    sources: ['with.2.supply', 'with.1.supply', 'rest.supply'],
    input: 'pedal_N',
    output: 'load.pressure',
    releasing: null,
    knee: { reading: 'runoutPedal', word: 'runout' },
  },
  fluid: () => null,
  logged: ({ front_m3, rear_m3 }) => ({ slave: null, rod: null, vacuumVolume_m3: front_m3 + rear_m3 }),
  faults,
  looks: everyLook.filter(({ item }) => LOOKS.includes(item)),
  procedure,
  parts,
  ports,
  leakPoints,
  expect: (context, run, item) => expectBy(pedalBooster, keeps, context, run, item),
  results,
  assess: (context, run, found) => assessBy(pedalBooster, assessRules(context.profile), context, run, found),
});
