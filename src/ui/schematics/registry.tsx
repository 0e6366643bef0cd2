import type { ComponentType } from 'react';
import type { FamilyKind } from '@/core/families/registry';
import { ByWireVehicleDrawing } from './by-wire-vehicle';
import type { SchematicProps } from './drawing';
import { ElectromechanicalDrawing } from './electromechanical';
import { ElectromechanicalVehicleDrawing } from './electromechanical-vehicle';
import { HydraulicBoosterDrawing } from './hydraulic-booster';
import { HydraulicVehicleDrawing } from './hydraulic-vehicle';
import { MotorPumpBoosterDrawing } from './motor-pump-booster';
import { MotorPumpVehicleDrawing } from './motor-pump-vehicle';
import { PedalVacuumDrawing } from './pedal-vacuum';
import { PedalValveDrawing } from './pedal-valve';
import { RemoteVacuumDrawing } from './remote-vacuum';
import { RodServoDrawing } from './rod-servo';
import { StoredPressureDrawing } from './stored-pressure';
import { StoredPressureVehicleDrawing } from './stored-pressure-vehicle';
import { VacuumVehicleDrawing } from './vacuum-vehicle';

/** One drawing per family. */
export const SCHEMATICS = {
  'remote-vacuum': RemoteVacuumDrawing,
  'rod-servo': RodServoDrawing,
  'pedal-vacuum': PedalVacuumDrawing,
  'pedal-valve': PedalValveDrawing,
  'hydraulic-booster': HydraulicBoosterDrawing,
  'motor-pump-booster': MotorPumpBoosterDrawing,
  'motor-pump-vehicle': MotorPumpVehicleDrawing,
  'hydraulic-vehicle': HydraulicVehicleDrawing,
  'stored-pressure': StoredPressureDrawing,
  'stored-pressure-vehicle': StoredPressureVehicleDrawing,
  electromechanical: ElectromechanicalDrawing,
  'electromechanical-vehicle': ElectromechanicalVehicleDrawing,
  'by-wire-vehicle': ByWireVehicleDrawing,
  'pedal-valve-vehicle': PedalValveDrawing,
  'vacuum-vehicle': VacuumVehicleDrawing,
} as const satisfies Record<FamilyKind, ComponentType<SchematicProps>>;
