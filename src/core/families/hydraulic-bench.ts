import type { Port } from '../contract/family';
import type { Step } from '../contract/steps';
import { HOT_K } from '../fluid/steering-fluid';
import { assemblyOf, type AssemblyProfile, type Setting } from './assembly';
import { guarded, mustBe, untilMended, zerosStep } from './bench-items';
import { benchMasterFolder, benchMasterOn, type BenchMasterProfile } from './bench-master';
import {
  hydraulicBooster,
  member as booster,
  motionOn as boosterOn,
  type HydraulicBoosterProfile,
} from './hydraulic-booster/index';
import { makeSafeStep } from './making-safe';
import { applied_N } from './power-booster';
import { BY_BENCH } from './pump-drive';
import {
  member as pump,
  motionOn as pumpOn,
  steeringPump,
  type SteeringPumpProfile,
} from './steering-pump/index';
import { RESERVOIR } from './vehicle-ports';

/** What stands on a bench with a booster that a steering pump feeds. */
export interface HydraulicBenchProfile extends AssemblyProfile<
  SteeringPumpProfile,
  HydraulicBoosterProfile,
  BenchMasterProfile
> {
  readonly kind: 'hydraulic-booster';
}

/** Where a steering pump and the booster behind it are read. */
export const STEERING_PORTS = [
  {
    id: 'line',
    name: 'Pressure line of the steering',
    short: 'Line',
    quantity: 'pressure',
    ink: 'supply',
    optional: true,
    fit_s: 600,
  },
  { id: 'flow', name: 'Flow in the pressure line', short: 'Flow', quantity: 'flow', optional: true },
  RESERVOIR,
  // No gauge stands here: it is used up by applying, and that is looked at.
  {
    id: 'accumulator',
    name: 'Accumulator of the booster',
    short: 'Acc',
    quantity: 'pressure',
    optional: true,
  },
] as const satisfies readonly Port[];

/** The same on a bench, with a lever and a master cylinder. */
const PORTS: readonly Port[] = [
  { id: 'pedal', name: 'Pedal force', short: 'Pedal', quantity: 'force', ink: 'input' },
  { id: 'output', name: 'Pressure of the bench master', short: 'Master', quantity: 'pressure' },
  { id: 'travel', name: 'Pedal travel', short: 'Travel', quantity: 'travel', ink: 'input', optional: true },
  { id: 'clock', name: 'Stopwatch', short: 'Time', quantity: 'duration', optional: true },
  ...STEERING_PORTS,
];

/**
 * No line of the steering is opened for a gauge before what is stored was used up: by a look, since no gauge stands there.
 *
 * @param off how it is said that nothing feeds it
 */
export const usedUp = (off: string) =>
  mustBe(
    'emptied',
    'Accumulator used up',
    `${off}, and the brake applied 40 times since, until the pedal stayed hard?`,
    '40 times, it stays hard',
    [
      'charged',
      'Fewer, or it still helps',
      untilMended(
        'Apply until nothing helps any more, then look again. No line of the steering is opened before that: the check valve keeps what is stored.',
      ),
    ],
  );

/** How a booster behind a steering pump is known, whatever it drives. */
export const steeredBooster = {
  curve: {
    input: 'pedal_N',
    output: 'load.pressure',
    sources: ['pump.shut'],
    releasing: null,
    knee: { reading: 'runoutPedal', word: 'runout' },
  },
  logged: () => ({}),
  full: ({ unit, source }: Steered) => ({
    pedal_N: applied_N(unit),
    supply_Pa: source.relief_Pa,
    fluid_K: HOT_K,
    // While the pump runs it plays no part: what is stored is known by its first application.
    applications: 1,
  }),
} as const;

interface Steered {
  readonly source: SteeringPumpProfile;
  readonly unit: HydraulicBoosterProfile;
}

/** What a weak pump excuses: an accumulator is charged no further than its pump goes. */
export const EXCUSED_BY_PUMP = ['assist.1', 'assist.2', 'assist.3', 'drop', 'reserve.1', 'reserve', 'hour'];

const OFF = { pump: 'off' } as const;
const SAYS = { on: 'Pump running', off: 'Pump stopped' };
const SPENDS =
  'Pump stopped, pedal applied 40 times until it stays hard, foot off: the accumulator is empty then.';

const opening: Step = {
  id: 'cautions',
  title: 'Before anything is connected',
  instruction:
    'Read the cautions. Clamp booster and pump to the bench, the rod on the master cylinder of the bench, the belt on its drive.',
  cautions: ['held-by-check-valves', 'charged-vessel', 'bench-pressure', 'fluids'],
  state: OFF,
  fluid: true,
  needs: [],
  mandatory: true,
  attended_s: 300,
  items: [usedUp(SAYS.off), guarded('Booster, pump and master cylinder')],
};

const at: Setting<null> = {
  setting: 'bench',
  ports: PORTS,
  output: 'output',
  on: { pump: 'on' },
  off: OFF,
  lit: OFF,
  // What is stored is the steering's own fluid: with the foot off it stands in no line that has a gauge.
  stored: [],
  says: SAYS,
  opening: (rig) => [
    opening,
    {
      ...zerosStep(
        PORTS,
        rig,
        `Flow meter, load valve and gauge in the pressure line, a gauge in the line of the master cylinder, both bled. ${SPENDS} Read what each shows.`,
        { ...OFF, charge: 'spent' },
      ),
      cautions: ['open-line'],
      fluid: true,
      attended_s: 420,
    },
  ],
  closing: (rig) => [{ ...makeSafeStep(PORTS, rig, SPENDS, OFF), attended_s: 60 }],
  names: {
    supply: 'the steering pump',
    unit: 'the booster',
    load: 'what it drives',
    all: 'Steering pump and booster',
  },
};

/** A booster with its steering pump, on a bench with a lever, a drive and a master cylinder of its own. Handbook-models 8.4. */
export const hydraulicBench = assemblyOf<
  SteeringPumpProfile,
  HydraulicBoosterProfile,
  BenchMasterProfile,
  null
>({
  kind: 'hydraulic-booster',
  name: 'Hydraulic booster',
  at,
  source: steeringPump,
  unit: hydraulicBooster,
  load: benchMasterFolder,
  members: {
    source: { ...pump, motion: pumpOn(PORTS, BY_BENCH) },
    unit: { ...booster, motion: boosterOn(PORTS, BY_BENCH) },
    load: benchMasterOn(PORTS, 'output'),
  },
  loadOf: ({ load }) => load,
  ...steeredBooster,
  // The fluid of a master cylinder is the bench's own, and that of the steering is looked at.
  fluid: () => null,
  excused: { supply: EXCUSED_BY_PUMP, load: [] },
});
