import type { Port } from '../contract/family';
import { assemblyOf, type AssemblyProfile } from './assembly';
import {
  asRead,
  batterySupply,
  member as supply,
  motionOn as supplyOn,
  type BatterySupplyProfile,
} from './battery-supply/index';
import {
  electromechanical,
  member as booster,
  motionOn as boosterOn,
  type ElectromechanicalProfile,
} from './electromechanical/index';
import { fuseOut, MOTOR_PORTS, motorBoosted } from './motor-booster-bench';
import { BRAKE_PORTS } from './vehicle-ports';
import { onVehicle } from './vehicle-steps';
import { behindFront, member as brakes, wheelBrakes, type WheelBrakesProfile } from './wheel-brakes/index';
import { byFoot } from './without-power';

/** What is fitted to a vehicle with an electromechanical booster. */
export interface MotorBoosterVehicleProfile extends AssemblyProfile<
  BatterySupplyProfile,
  ElectromechanicalProfile,
  WheelBrakesProfile
> {
  readonly kind: 'electromechanical-vehicle';
}

const PORTS: readonly Port[] = [...BRAKE_PORTS, ...MOTOR_PORTS];

const AT_REST = { ignition: 'off', power: 'isolated' } as const;
const AWAKE = { power: 'on', ignition: 'on' } as const;

/** A vehicle with an electromechanical booster. Handbook-models 8.8, 10. */
export const motorBoosterVehicle = assemblyOf<
  BatterySupplyProfile,
  ElectromechanicalProfile,
  WheelBrakesProfile
>({
  kind: 'electromechanical-vehicle',
  name: 'Vehicle with electromechanical booster',
  at: {
    ...onVehicle(
      {
        ports: PORTS,
        on: AWAKE,
        off: AT_REST,
        lit: AWAKE,
        stored: [],
        says: { on: 'Ignition on', off: 'Ignition off, booster isolated' },
      },
      {
        atRest: AT_REST,
        cautions: ['high-current', 'wakes-itself', 'fluids', 'lining-dust', 'bench-pressure'],
        first: [fuseOut],
        fits: 'a pressure gauge at a front bleed screw, the force gauge on the pedal, clamp and meters on the feed and the sensor',
        spends: 'Ignition off, the fuse of the booster out, foot off.',
        closes: 'the fuse of the booster back in, plugs home and locked',
      },
    ),
    names: {
      supply: 'the battery with its feed',
      unit: 'the booster',
      load: 'what it drives',
      all: 'Feed, booster and brakes',
    },
  },
  source: batterySupply,
  unit: electromechanical,
  load: wheelBrakes,
  members: {
    source: { ...supply, motion: supplyOn(PORTS) },
    asRead,
    unit: { ...booster, motion: boosterOn(PORTS) },
    load: brakes,
  },
  behind: behindFront,
  loadOf: ({ load, unit }) => ({ ...load, pedalRatio: unit.pedalRatio }),
  ...motorBoosted,
  withoutPower: ({ load }, whole, full, alone) =>
    byFoot({ stop: load.stop, valve: load, whole, powered: full, alone }),
  excused: { supply: [], load: [] },
});
