import type { Port } from '../contract/family';
import type { Step } from '../contract/steps';
import type { FluidKind } from '../fluid/kinds';
import { assemblyOf, type AssemblyProfile, type Setting } from './assembly';
import { fluidLook, guarded, mustBe, untilMended, zerosStep } from './bench-items';
import { enginePump, member as pump, motionOn as pumpOn, type EnginePumpProfile } from './engine-pump/index';
import {
  lineBrakes,
  member as brakes,
  motionOn as brakesOn,
  type LineBrakesProfile,
} from './line-brakes/index';
import { makeSafeStep } from './making-safe';
import { BY_BENCH } from './pump-drive';
import {
  member as circuits,
  motionOn as circuitsOn,
  storedPressure,
  type StoredPressureProfile,
} from './stored-pressure/index';
import { RESERVOIR } from './vehicle-ports';

/** What stands on a bench of a car on stored pressure: pump, both circuits and their brakes, no body. */
export interface StoredPressureBenchProfile extends AssemblyProfile<
  EnginePumpProfile,
  StoredPressureProfile,
  LineBrakesProfile
> {
  readonly kind: 'stored-pressure';
}

/** Both accumulators, behind their check valves. */
export const ACCUMULATORS = [
  { id: 'supply', name: 'Accumulator, front circuit', short: 'Acc front', quantity: 'pressure' },
  {
    id: 'supply-2',
    name: 'Accumulator, rear circuit',
    short: 'Acc rear',
    quantity: 'pressure',
    ink: 'activation',
  },
] as const satisfies readonly Port[];

/** What a recorder tells of each circuit. */
export const TIMERS = [
  { id: 'timer', name: 'Recorder, front circuit', short: 'Front time', quantity: 'duration', optional: true },
  { id: 'timer-2', name: 'Recorder, rear circuit', short: 'Rear time', quantity: 'duration', optional: true },
] as const satisfies readonly Port[];

/** What turns the pump. */
export const DRIVE = {
  id: 'speed',
  name: 'Drive of the pump',
  short: 'Drive',
  quantity: 'rotation',
  ink: 'supply',
  optional: true,
} as const satisfies Port;

const PORTS: readonly Port[] = [
  { id: 'pedal', name: 'Pedal force', short: 'Pedal', quantity: 'force', ink: 'input' },
  ...ACCUMULATORS,
  { id: 'front', name: 'Front brakes', short: 'Front', quantity: 'pressure', ink: 'output' },
  { id: 'rear', name: 'Rear brakes', short: 'Rear', quantity: 'pressure', ink: 'output' },
  { id: 'travel', name: 'Pedal travel', short: 'Travel', quantity: 'travel', ink: 'input', optional: true },
  ...TIMERS,
  DRIVE,
  RESERVOIR,
];

/**
 * Nothing is connected before both circuits were emptied: by a look, since no gauge stands there yet.
 *
 * @param off how it is said that nothing charges them
 */
export const emptied = (off: string) =>
  mustBe(
    'emptied',
    'Both circuits emptied',
    `${off}, the brake applied 40 times and more, and the bleed of each accumulator opened slowly into a closed hose until its flow has stopped?`,
    'Both emptied, nothing comes',
    [
      'charged',
      'Not yet, or it still comes',
      untilMended(
        'Apply until the pedal brings nothing more, then bleed each accumulator into a closed hose until nothing comes. No gauge is connected before that: a check valve keeps each circuit by itself.',
      ),
    ],
  );

interface Circuits {
  readonly source: EnginePumpProfile;
  readonly unit: StoredPressureProfile;
}

/** How two circuits of stored pressure are known, on their car or on a bench. */
export const storedCircuits = {
  curve: {
    input: 'pedal_N',
    output: 'output',
    sources: ['metering.supply'],
    releasing: 'releasing',
    knee: { reading: 'begins', word: 'begins' },
  },
  logged: ({ unit: { shell_m3, preCharge_Pa } }: Circuits) => ({
    accumulators: [
      { port: 'supply', name: 'front accumulator', shell_m3, preCharge_Pa },
      { port: 'supply-2', name: 'rear accumulator', shell_m3, preCharge_Pa },
    ],
  }),
  traced: [
    { result: 'supply.flick-up', item: 'flick.supply' },
    { result: 'supply-2.flick-up', item: 'flick.supply2' },
  ],
  fullPower: true,
  fluid: ({ unit }: Circuits) => unit.fluid,
  full: ({ unit, source }: Circuits) => ({
    pedal_N: Math.max(...unit.metering_N),
    supply_Pa: unit.out_Pa,
    supply2_Pa: unit.out_Pa,
    idle_PerS: source.idle_PerS,
    fluid_K: 293.15,
    applications: 0,
  }),
  excused: { supply: [], load: ['applications', 'applications-2'] },
} as const;

const OFF = { pump: 'off' } as const;
const ON = { pump: 'on' } as const;
const SPENDS =
  'Pump off and secured, pedal applied again and again until both accumulators read zero: a check valve keeps each circuit by itself.';

const opening = (fluid: FluidKind): Step => ({
  id: 'cautions',
  title: 'Before anything is connected',
  instruction: 'Read the cautions. Clamp pump, valve block, distribution valve and brakes to the bench.',
  cautions: ['held-by-check-valves', 'charged-vessel', 'bench-pressure', 'fluids'],
  state: OFF,
  fluid: true,
  needs: [],
  mandatory: true,
  attended_s: 300,
  items: [
    fluidLook(fluid),
    emptied('Pump off and secured'),
    guarded('Pump, valve block, distribution valve and brakes'),
  ],
});

const at: Setting = {
  setting: 'bench',
  ports: PORTS,
  output: 'front',
  on: ON,
  off: OFF,
  lit: OFF,
  stored: ['supply', 'supply-2'],
  says: { on: 'Pump running', off: 'Pump off' },
  opening: (rig, fluid) => [
    opening(fluid),
    {
      ...zerosStep(PORTS, rig, `Gauges fitted, every line bled. ${SPENDS} Read what each shows.`, {
        ...OFF,
        charge: 'spent',
      }),
      cautions: ['open-line'],
      fluid: true,
      attended_s: 420,
    },
  ],
  closing: (rig) => [{ ...makeSafeStep(PORTS, rig, SPENDS, OFF), attended_s: 60 }],
  names: {
    supply: 'the pump',
    unit: 'the stored pressure',
    load: 'what it drives',
    all: 'Pump, both circuits and brakes',
  },
};

/** A body stands on a car only. */
const NO_BODY = { levelled: false } as const;

/** Two circuits of stored pressure on a bench with a drive: what can be tested of them without their car. Handbook-models 8.6. */
export const storedPressureBench = assemblyOf<EnginePumpProfile, StoredPressureProfile, LineBrakesProfile>({
  kind: 'stored-pressure',
  name: 'Two circuits of stored pressure',
  at,
  source: enginePump,
  unit: storedPressure(NO_BODY),
  load: lineBrakes,
  members: {
    source: { ...pump, motion: pumpOn(PORTS, BY_BENCH) },
    unit: { ...circuits, motion: circuitsOn(PORTS, NO_BODY) },
    load: { ...brakes, motion: brakesOn(PORTS) },
  },
  loadOf: ({ load, unit }) => ({ ...load, pedalRatio: unit.pedalRatio }),
  ...storedCircuits,
});
