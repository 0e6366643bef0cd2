import type { Port } from '../contract/family';
import { HOT_K } from '../fluid/steering-fluid';
import { assemblyOf, type AssemblyProfile } from './assembly';
import { knowingNoStop } from './stop-figures';
import { byFoot } from './without-power';
import { mustBe, untilMended } from './bench-items';
import {
  hydraulicBooster,
  member as booster,
  motionOn as boosterOn,
  type HydraulicBoosterProfile,
} from './hydraulic-booster/index';
import {
  member as pump,
  motionOn as pumpOn,
  steeringPump,
  type SteeringPumpProfile,
} from './steering-pump/index';
import { applied_N } from './power-booster';
import { BRAKE_PORTS } from './vehicle-ports';
import { onVehicle } from './vehicle-steps';
import { behindFront, member as brakes, wheelBrakes, type WheelBrakesProfile } from './wheel-brakes/index';

/** What is fitted to a vehicle of which the steering pump works the brake. */
export interface HydraulicVehicleProfile extends AssemblyProfile<
  SteeringPumpProfile,
  HydraulicBoosterProfile,
  WheelBrakesProfile
> {
  readonly kind: 'hydraulic-vehicle';
}

/** No line of the steering is opened for a gauge before what is stored was used up: by a look, since no gauge stands there. */
const emptied = mustBe(
  'emptied',
  'Accumulator used up',
  'Engine off, and the brake applied 40 times since, until the pedal stayed hard?',
  '40 times, it stays hard',
  [
    'charged',
    'Fewer, or it still helps',
    untilMended(
      'Apply until nothing helps any more, then look again. No line of the steering is opened before that: the check valve keeps what is stored.',
    ),
  ],
);

const PORTS: readonly Port[] = [
  ...BRAKE_PORTS,
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
  {
    id: 'fluid',
    name: 'Fluid in the reservoir',
    short: 'Fluid',
    quantity: 'temperature',
    ink: 'supply',
    optional: true,
  },
  // No gauge stands here: it is used up by applying, and that is looked at.
  {
    id: 'accumulator',
    name: 'Accumulator of the booster',
    short: 'Acc',
    quantity: 'pressure',
    optional: true,
  },
];

/** A vehicle with a booster that the steering pump feeds. Handbook-models 8.4, 10. */
export const hydraulicVehicle = assemblyOf<SteeringPumpProfile, HydraulicBoosterProfile, WheelBrakesProfile>({
  kind: 'hydraulic-vehicle',
  name: 'Vehicle with hydraulic booster',
  at: {
    ...onVehicle(
      {
        ports: PORTS,
        on: { ignition: 'on', engine: 'idle' },
        off: { engine: 'off' },
        lit: { ignition: 'on', engine: 'off' },
        // What is stored is the steering's own fluid: with the foot off it stands in no brake line.
        stored: [],
        says: { on: 'Engine idling', off: 'Engine off' },
      },
      {
        atRest: { ignition: 'off', engine: 'off' },
        cautions: [
          'running-engine',
          'held-by-check-valves',
          'charged-vessel',
          'fluids',
          'lining-dust',
          'bench-pressure',
        ],
        first: [emptied],
        fits: 'flow meter, load valve and gauge in the pressure line of the steering, a pressure gauge at a front bleed screw, the force gauge on the pedal, and only once the pedal was applied 40 times with the engine off',
        spends:
          'Engine off, pedal applied 40 times until it stays hard, foot off: the accumulator is empty then.',
        closes: 'the pressure line of the steering closed and bled lock to lock',
      },
    ),
    names: {
      supply: 'the steering pump',
      unit: 'the booster',
      load: 'what it drives',
      all: 'Steering pump, booster and brakes',
    },
  },
  source: steeringPump,
  unit: hydraulicBooster,
  load: wheelBrakes,
  members: {
    source: { ...pump, motion: pumpOn(PORTS) },
    unit: { ...booster, motion: boosterOn(PORTS) },
    load: brakes,
  },
  behind: behindFront,
  loadOf: ({ load, unit }) => ({ ...load, pedalRatio: unit.pedalRatio }),
  curve: {
    input: 'pedal_N',
    output: 'load.pressure',
    sources: ['pump.shut'],
    releasing: null,
    knee: { reading: 'runoutPedal', word: 'runout' },
  },
  logged: () => ({}),
  fluid: ({ load }) => load.fluid,
  full: ({ unit, source }) => ({
    pedal_N: applied_N(unit),
    supply_Pa: source.relief_Pa,
    fluid_K: HOT_K,
    // With the engine running it plays no part: what is stored is known by its first application.
    applications: 1,
  }),
  upcasts: [knowingNoStop],
  withoutPower: ({ load }, whole, full) => byFoot({ stop: load.stop, valve: load, whole, powered: full }),
  excused: {
    // An accumulator is charged no further than its pump goes.
    supply: ['assist.1', 'assist.2', 'assist.3', 'drop', 'reserve.1', 'reserve', 'hour'],
    load: ['drop', 'reserve', 'hour'],
  },
});
