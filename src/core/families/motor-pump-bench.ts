import type { Port } from '../contract/family';
import { benchMasterFolder, benchMasterOn, type BenchMasterProfile } from './bench-master';
import { mustBe, untilMended } from './bench-items';
import { member as pump, motionOn as pumpOn, motorPump, type MotorPumpProfile } from './motor-pump/index';
import {
  member as booster,
  motionOn as boosterOn,
  motorPumpBooster,
  type MotorPumpBoosterProfile,
} from './motor-pump-booster/index';
import { assemblyOf, type AssemblyProfile } from './assembly';
import { applied_N } from './power-booster';
import { poweredBench } from './powered-bench';

/** What stands on a bench with a motor-pump booster. */
export interface MotorPumpBenchProfile extends AssemblyProfile<
  MotorPumpProfile,
  MotorPumpBoosterProfile,
  BenchMasterProfile
> {
  readonly kind: 'motor-pump-booster';
}

/** Where a motor pump and what it charges are read. */
export const PUMP_PORTS = [
  { id: 'supply', name: 'Accumulator', short: 'Acc', quantity: 'pressure' },
  { id: 'battery', name: 'Battery', short: 'Batt', quantity: 'voltage', ink: 'supply' },
  {
    id: 'current',
    name: 'Motor current',
    short: 'Motor',
    quantity: 'current',
    ink: 'activation',
    optional: true,
  },
  {
    id: 'drop',
    name: 'Lost in the feed',
    short: 'Drop',
    quantity: 'voltage',
    ink: 'activation',
    optional: true,
  },
  { id: 'fluid', name: 'Fluid in the reservoir', short: 'Fluid', quantity: 'temperature', ink: 'supply' },
  { id: 'pump-clock', name: 'Recorder of the pump', short: 'Time', quantity: 'duration' },
] as const satisfies readonly Port[];

/** The same on a bench, with a lever and a master cylinder. */
const PORTS: readonly Port[] = [
  { id: 'pedal', name: 'Pedal force', short: 'Pedal', quantity: 'force', ink: 'input' },
  { id: 'output', name: 'Pressure of the bench master', short: 'Master', quantity: 'pressure' },
  ...PUMP_PORTS,
];

/** Nothing is connected before the accumulator was emptied: by a look, since no gauge stands there yet. */
export const emptied = mustBe(
  'emptied',
  'Accumulator emptied',
  'Power isolated and secured, the brake applied 40 times and the bleed of the accumulator opened slowly into a closed hose until its flow has stopped?',
  'Emptied, nothing comes',
  [
    'charged',
    'Not yet, or it still comes',
    untilMended(
      'Apply until the pedal moves nothing more, then bleed into a closed hose until nothing comes. No gauge is connected before that: the check valve keeps what is stored.',
    ),
  ],
);

/** Fluid as warm as a room, K. */
const FLUID_K = 293.15;

/** A motor pump and its booster. */
interface Pumped {
  readonly source: MotorPumpProfile;
  readonly unit: MotorPumpBoosterProfile;
}

/** How a motor-pump booster is known, whatever it drives. */
export const pumpedBooster = {
  curve: {
    input: 'pedal_N',
    output: 'load.pressure',
    sources: ['assist.supply'],
    releasing: null,
    knee: { reading: 'runoutPedal', word: 'runout' },
  },
  logged: ({ unit: { shell_m3, preCharge_Pa } }: Pumped) => ({
    accumulators: [{ port: 'supply', name: 'accumulator', shell_m3, preCharge_Pa }],
  }),
  // By hand the off-time follows a start that was pressed; a log is left to its leak.
  traced: [
    { result: 'supply.flick-up', item: 'flick.supply' },
    { result: 'supply.cut-in', item: 'switch.in' },
  ],
  fluid: ({ unit }: Pumped) => unit.fluid,
  full: ({ unit, source }: Pumped) => ({
    pedal_N: applied_N(unit),
    supply_Pa: unit.out_Pa,
    volts_V: source.supply_V,
    fluid_K: FLUID_K,
    applications: 0,
  }),
} as const;

const at = poweredBench({
  ports: PORTS,
  cautions: ['held-by-check-valves', 'charged-vessel', 'starts-by-itself', 'bench-pressure', 'fluids'],
  first: emptied,
  stored: ['supply'],
  spends:
    'Power isolated and secured. Apply again and again until the accumulator reads zero: its check valve holds what is stored.',
  names: {
    supply: 'the motor pump',
    unit: 'the booster',
    load: 'what it drives',
    all: 'Motor pump and booster',
  },
});

/** A motor-pump booster with its pump, on a bench with a lever, a battery and a master cylinder of its own. Handbook-models 8.5. */
export const motorPumpBench = assemblyOf<MotorPumpProfile, MotorPumpBoosterProfile, BenchMasterProfile>({
  kind: 'motor-pump-booster',
  name: 'Motor-pump booster',
  at,
  source: motorPump,
  unit: motorPumpBooster,
  load: benchMasterFolder,
  members: {
    source: { ...pump, motion: pumpOn(PORTS) },
    unit: { ...booster, motion: boosterOn(PORTS) },
    load: benchMasterOn(PORTS, 'output'),
  },
  loadOf: ({ load }) => load,
  ...pumpedBooster,
  // What a pump does not fill in time or a poor feed slows down is no fault of the booster.
  excused: { supply: ['charge-time', 'on-time', 'relief'], load: [] },
});
