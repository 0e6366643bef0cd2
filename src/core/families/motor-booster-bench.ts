import type { Port } from '../contract/family';
import type { FluidKind } from '../fluid/kinds';
import { assemblyOf, type AssemblyProfile } from './assembly';
import {
  asRead,
  batterySupply,
  member as supply,
  motionOn as supplyOn,
  type BatterySupplyProfile,
} from './battery-supply/index';
import { mustBe, untilMended } from './bench-items';
import { benchMasterFolder, benchMasterOn, type BenchMasterProfile } from './bench-master';
import {
  electromechanical,
  member as booster,
  motionOn as boosterOn,
  type ElectromechanicalProfile,
} from './electromechanical/index';
import { TRACK_PORTS } from './pedal-tracks';
import { applied_N } from './power-booster';
import { poweredBench } from './powered-bench';

/** What stands on a bench with an electromechanical booster. */
export interface MotorBoosterBenchProfile extends AssemblyProfile<
  BatterySupplyProfile,
  ElectromechanicalProfile,
  BenchMasterProfile
> {
  readonly kind: 'electromechanical';
}

/** Where a booster with a motor and what feeds it are read. */
export const MOTOR_PORTS = [
  { id: 'battery', name: 'Battery', short: 'Batt', quantity: 'voltage', ink: 'supply' },
  { id: 'drop', name: 'Lost in the feed', short: 'Feed', quantity: 'voltage', ink: 'supply', optional: true },
  {
    id: 'earth',
    name: 'Lost in the earth',
    short: 'Earth',
    quantity: 'voltage',
    ink: 'supply',
    optional: true,
  },
  {
    id: 'current',
    name: 'Current in the feed',
    short: 'In feed',
    quantity: 'current',
    ink: 'supply',
    optional: true,
  },
  {
    id: 'motor',
    name: 'Current in the motor',
    short: 'Motor',
    quantity: 'current',
    ink: 'activation',
    optional: true,
  },
  {
    id: 'plug',
    name: 'At the plug of the booster',
    short: 'Plug',
    quantity: 'voltage',
    ink: 'activation',
    optional: true,
  },
  ...TRACK_PORTS,
  { id: 'step-clock', name: 'Recorder of the stamp', short: 'Time', quantity: 'duration', optional: true },
] as const satisfies readonly Port[];

/** The same on a bench, with a lever and a master cylinder. */
const PORTS: readonly Port[] = [
  { id: 'pedal', name: 'Pedal force', short: 'Pedal', quantity: 'force', ink: 'input' },
  { id: 'output', name: 'Pressure of the bench master', short: 'Master', quantity: 'pressure' },
  ...MOTOR_PORTS,
];

/** No hand or tool is near a motor that may start before its fuse is out. */
export const fuseOut = mustBe(
  'fuse-out',
  'Fuse of the motor out',
  'Power isolated as the maker says, the fuse of the motor’s feed out and kept by you?',
  'Fuse out, kept by me',
  [
    'in',
    'Not yet',
    untilMended(
      'Take the fuse of the feed out, keep it with you, then look again. A door or a remote may wake the booster.',
    ),
  ],
);

/** Under load no less than half of the battery stands behind a resistance: a control unit that waited for less would never switch off. */
const contradictInVolts = ({ source, unit }: Fed) => {
  const say =
    unit.cutOff_V >= source.battery_V
      ? 'The battery must stand above the voltage at which the booster switches off.'
      : unit.cutOff_V < source.battery_V / 2
        ? 'The booster must switch off at half of the battery’s voltage at least: behind a resistance less cannot stand.'
        : null;
  return say ? { path: ['unit', 'cutOff_V'], say } : null;
};

interface Fed {
  readonly source: BatterySupplyProfile;
  readonly unit: ElectromechanicalProfile;
}

/** How an electromechanical booster is known, whatever it drives. */
export const motorBoosted = {
  curve: {
    input: 'pedal_N',
    output: 'load.pressure',
    sources: ['volts.battery'],
    source: 'volts_V',
    releasing: null,
    knee: { reading: 'runoutPedal', word: 'runout' },
  },
  contradict: contradictInVolts,
  logged: () => ({}),
  traced: [{ result: 'stamp', item: 'step.time' }],
  fluid: ({ unit }: { readonly unit: ElectromechanicalProfile }): FluidKind => unit.fluid,
  full: ({ unit, source }: Fed) => ({
    pedal_N: applied_N(unit),
    volts_V: source.battery_V,
    // With no meter on the feed.
    drop_V: 0,
    earth_V: 0,
    held_A: 0,
  }),
} as const;

const at = poweredBench({
  ports: PORTS,
  cautions: ['high-current', 'wakes-itself', 'spring-casing', 'bench-pressure', 'fluids'],
  first: fuseOut,
  stored: [],
  spends: 'Power isolated and secured, the fuse of the motor out, foot off.',
  names: {
    supply: 'the battery with its feed',
    unit: 'the booster',
    load: 'what it drives',
    all: 'Feed and booster',
  },
});

/** An electromechanical booster on a bench with a battery, a lever and a master cylinder of its own. Handbook-models 8.8. */
export const motorBoosterBench = assemblyOf<
  BatterySupplyProfile,
  ElectromechanicalProfile,
  BenchMasterProfile
>({
  kind: 'electromechanical',
  name: 'Electromechanical booster',
  at,
  source: batterySupply,
  unit: electromechanical,
  load: benchMasterFolder,
  members: {
    source: { ...supply, motion: supplyOn(PORTS) },
    asRead,
    unit: { ...booster, motion: boosterOn(PORTS) },
    load: benchMasterOn(PORTS, 'output'),
  },
  loadOf: ({ load }) => load,
  ...motorBoosted,
  // 2 000 installations by the library's chances, seed 4001 (bench/README.md).
  unexplainedFrom: 3.8e-19,
  excused: { supply: [], load: [] },
});
