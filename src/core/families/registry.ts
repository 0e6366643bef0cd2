import type { Family } from '../contract/family';
import { byWireVehicle } from './by-wire-vehicle';
import { hydraulicBench } from './hydraulic-bench';
import { hydraulicVehicle } from './hydraulic-vehicle';
import { motorBoosterBench } from './motor-booster-bench';
import { motorBoosterVehicle } from './motor-booster-vehicle';
import { motorPumpBench } from './motor-pump-bench';
import { motorPumpVehicle } from './motor-pump-vehicle';
import { pedalBooster } from './pedal-vacuum/index';
import { pedalValve } from './pedal-valve/index';
import { pedalValveVehicle } from './pedal-valve-vehicle';
import { remoteVacuum } from './remote-vacuum/index';
import { rodServo } from './rod-servo/index';
import { storedPressureBench } from './stored-pressure-bench';
import { storedPressureVehicle } from './stored-pressure-vehicle';
import { vacuumVehicle } from './vacuum-vehicle';

/** Every family, by kind. Adding one adds its folder, its line here and its drawing. */
export const FAMILIES = {
  'remote-vacuum': remoteVacuum,
  'rod-servo': rodServo,
  'pedal-vacuum': pedalBooster,
  'pedal-valve': pedalValve,
  'hydraulic-booster': hydraulicBench,
  'motor-pump-booster': motorPumpBench,
  'stored-pressure': storedPressureBench,
  electromechanical: motorBoosterBench,
  'vacuum-vehicle': vacuumVehicle,
  'motor-pump-vehicle': motorPumpVehicle,
  'hydraulic-vehicle': hydraulicVehicle,
  'stored-pressure-vehicle': storedPressureVehicle,
  'pedal-valve-vehicle': pedalValveVehicle,
  'electromechanical-vehicle': motorBoosterVehicle,
  'by-wire-vehicle': byWireVehicle,
} as const satisfies Record<string, Family>;

export type FamilyKind = keyof typeof FAMILIES;

export const FAMILY_KINDS = Object.keys(FAMILIES) as [FamilyKind, ...FamilyKind[]];

/** Kinds that are known over time: those that the simulated bench can be. */
export const SIMULATED: readonly FamilyKind[] = FAMILY_KINDS.filter((kind) => FAMILIES[kind].motion !== null);
