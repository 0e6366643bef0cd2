import type { Port } from '../contract/family';
import { assemblyOf, type AssemblyProfile } from './assembly';
import { knowingNoStop } from './stop-figures';
import { byFoot } from './without-power';
import { EXCUSED_BY_PUMP, STEERING_PORTS, steeredBooster, usedUp } from './hydraulic-bench';
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
import { BY_ENGINE } from './pump-drive';
import { BRAKE_PORTS } from './vehicle-ports';
import { BY_AN_ENGINE, onVehicle } from './vehicle-steps';
import { behindFront, member as brakes, wheelBrakes, type WheelBrakesProfile } from './wheel-brakes/index';

/** What is fitted to a vehicle of which the steering pump works the brake. */
export interface HydraulicVehicleProfile extends AssemblyProfile<
  SteeringPumpProfile,
  HydraulicBoosterProfile,
  WheelBrakesProfile
> {
  readonly kind: 'hydraulic-vehicle';
}

const PORTS: readonly Port[] = [...BRAKE_PORTS, ...STEERING_PORTS];

/** A vehicle with a booster that the steering pump feeds. Handbook-models 8.4, 10. */
export const hydraulicVehicle = assemblyOf<SteeringPumpProfile, HydraulicBoosterProfile, WheelBrakesProfile>({
  kind: 'hydraulic-vehicle',
  name: 'Vehicle with hydraulic booster',
  at: {
    ...onVehicle(
      {
        ports: PORTS,
        ...BY_AN_ENGINE,
        // What is stored is the steering's own fluid: with the foot off it stands in no brake line.
        stored: [],
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
        first: [usedUp('Engine off')],
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
    source: { ...pump, motion: pumpOn(PORTS, BY_ENGINE) },
    unit: { ...booster, motion: boosterOn(PORTS, BY_ENGINE) },
    load: brakes,
  },
  behind: behindFront,
  loadOf: ({ load, unit }) => ({ ...load, pedalRatio: unit.pedalRatio }),
  ...steeredBooster,
  fluid: ({ load }) => load.fluid,
  upcasts: [knowingNoStop],
  withoutPower: ({ load }, whole, full, alone) =>
    byFoot({ stop: load.stop, valve: load, whole, powered: full, alone }),
  excused: {
    supply: EXCUSED_BY_PUMP,
    load: ['drop', 'reserve', 'hour'],
  },
});
