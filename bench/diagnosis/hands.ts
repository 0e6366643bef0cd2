import type { Step } from '../../src/core/contract/steps';
import { FAMILIES, type FamilyKind } from '../../src/core/families/registry';
import type { RemoteVacuumProfile } from '../../src/core/families/remote-vacuum/index';
import type { RodServoProfile } from '../../src/core/families/rod-servo/index';
import type { VacuumVehicleProfile } from '../../src/core/families/vacuum-vehicle';
import { INHG_PA } from '../../src/core/quantities/units';
import { RIGS } from '../../src/core/scenarios/bench';
import { performOnBench, type BenchRoom } from './bench-top';
import { performOnByWire } from './by-wire';
import { performOnMotor } from './motor';
import { performOnPack } from './pack';
import { performOnPump } from './pump';
import { performOnSteering } from './steering';
import { performOnStored } from './stored';
import { perform, type SetTo } from './vehicle';

/** Carries out a step on a unit of some parameters: what a gauge that is not out would show, by item. */
export type Hands = (
  parameters: readonly number[],
  room: BenchRoom,
  step: Step,
  set: SetTo,
) => Record<string, number>;

/** Sea level, and how deep a bench's source reaches. A vehicle brings its own source. */
export const ROOM: BenchRoom = { barometer_Pa: 101_325, temperature_K: 293.15, supply_Pa: 20 * INHG_PA };

const vehicle = FAMILIES['vacuum-vehicle'];
const remote = FAMILIES['remote-vacuum'].typical as RemoteVacuumProfile;
const servo = FAMILIES['rod-servo'].typical as RodServoProfile;

/** Who carries out the steps of a kind through time. */
export const HANDS: Partial<Record<FamilyKind, Hands>> = {
  'vacuum-vehicle': (parameters, room, step, set) => {
    const { typical, procedure } = vehicle;
    return perform(
      parameters,
      room,
      typical as VacuumVehicleProfile,
      procedure(typical, RIGS['vacuum-vehicle']),
      step,
      set,
    );
  },
  'hydraulic-booster': (...at) => performOnSteering('hydraulic-booster', ...at),
  'hydraulic-vehicle': (...at) => performOnSteering('hydraulic-vehicle', ...at),
  'pedal-valve': (...at) => performOnPack('pedal-valve', ...at),
  'pedal-valve-vehicle': (...at) => performOnPack('pedal-valve-vehicle', ...at),
  'motor-pump-booster': (...at) => performOnPump('motor-pump-booster', ...at),
  'motor-pump-vehicle': (...at) => performOnPump('motor-pump-vehicle', ...at),
  electromechanical: (...at) => performOnMotor('electromechanical', ...at),
  'electromechanical-vehicle': (...at) => performOnMotor('electromechanical-vehicle', ...at),
  'by-wire-vehicle': performOnByWire,
  'stored-pressure': (...at) => performOnStored('stored-pressure', ...at),
  'stored-pressure-vehicle': (...at) => performOnStored('stored-pressure-vehicle', ...at),
  'remote-vacuum': (parameters, room, step, set) =>
    performOnBench(
      'remote-vacuum',
      parameters,
      room,
      step,
      { most_Pa: remote.fullInput_Pa, moves: { activation: 300, output: 5e3 }, mark_Pa: null },
      set,
    ),
  'rod-servo': (parameters, room, step, set) =>
    performOnBench(
      'rod-servo',
      parameters,
      room,
      step,
      { most_Pa: servo.fullInput_Pa, moves: { output: 5 }, mark_Pa: servo.pullDownTo_Pa },
      set,
    ),
};
