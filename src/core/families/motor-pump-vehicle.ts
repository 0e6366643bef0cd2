import type { Port } from '../contract/family';
import { assemblyOf, type AssemblyProfile } from './assembly';
import { knowingNoStop } from './stop-figures';
import { byFoot } from './without-power';
import { emptied, PUMP_PORTS, pumpedBooster } from './motor-pump-bench';
import { member as pump, motionOn as pumpOn, motorPump, type MotorPumpProfile } from './motor-pump/index';
import {
  member as booster,
  motionOn as boosterOn,
  motorPumpBooster,
  type MotorPumpBoosterProfile,
} from './motor-pump-booster/index';
import { BRAKE_PORTS } from './vehicle-ports';
import { onVehicle } from './vehicle-steps';
import { behindFront, member as brakes, wheelBrakes, type WheelBrakesProfile } from './wheel-brakes/index';

/** What is fitted to a vehicle with a motor-pump booster. */
export interface MotorPumpVehicleProfile extends AssemblyProfile<
  MotorPumpProfile,
  MotorPumpBoosterProfile,
  WheelBrakesProfile
> {
  readonly kind: 'motor-pump-vehicle';
}

const PORTS: readonly Port[] = [...BRAKE_PORTS, ...PUMP_PORTS];

const AT_REST = { ignition: 'off', power: 'isolated' } as const;
const AWAKE = { power: 'on', ignition: 'on' } as const;

/** A vehicle with a motor-pump booster. Handbook-models 8.5, 10. */
export const motorPumpVehicle = assemblyOf<MotorPumpProfile, MotorPumpBoosterProfile, WheelBrakesProfile>({
  kind: 'motor-pump-vehicle',
  name: 'Vehicle with motor-pump booster',
  at: {
    ...onVehicle(
      {
        ports: PORTS,
        on: AWAKE,
        off: AT_REST,
        lit: AWAKE,
        stored: ['supply'],
        says: { on: 'Ignition on', off: 'Ignition off, pump isolated' },
      },
      {
        atRest: AT_REST,
        cautions: [
          'held-by-check-valves',
          'charged-vessel',
          'starts-by-itself',
          'fluids',
          'lining-dust',
          'bench-pressure',
        ],
        first: [emptied],
        fits: 'the gauge of the accumulator, a pressure gauge at a front bleed screw, the force gauge on the pedal, clamp and meters on the pump',
        spends:
          'Ignition off, the pump’s fuse out, pedal pressed until the accumulator reads zero: its check valve holds what is stored.',
        closes: 'the accumulator’s port closed, the pump’s fuse back in',
      },
    ),
    names: {
      supply: 'the motor pump',
      unit: 'the booster',
      load: 'what it drives',
      all: 'Pump, booster and brakes',
    },
  },
  source: motorPump,
  unit: motorPumpBooster,
  load: wheelBrakes,
  members: {
    source: { ...pump, motion: pumpOn(PORTS) },
    unit: { ...booster, motion: boosterOn(PORTS) },
    load: brakes,
  },
  behind: behindFront,
  loadOf: ({ load, unit }) => ({ ...load, pedalRatio: unit.pedalRatio }),
  ...pumpedBooster,
  upcasts: [knowingNoStop],
  withoutPower: ({ load, unit }, whole, full, alone) =>
    byFoot({ stop: load.stop, valve: load, whole, powered: { ...full, supply_Pa: unit.in_Pa }, alone }),
  excused: { supply: ['charge-time', 'on-time', 'relief'], load: ['applications'] },
});
