import type { ReadingItem, Step } from '../../src/core/contract/steps';
import { waitBefore, type Procedure } from '../../src/core/contract/steps';
import { RHYTHM } from '../../src/core/families/pedal-vacuum/index';
import { FAMILIES } from '../../src/core/families/registry';
import type { VacuumVehicleProfile } from '../../src/core/families/vacuum-vehicle';
import { Running } from '../../src/core/model/running';
import { placeOf } from '../../src/core/model/vectors';
import { LONGEST_S, Watching } from './watching';

/** A gauge brought to an aim: what is really there then. */
export type SetTo = (item: ReadingItem, aim: number) => number;

const family = FAMILIES['vacuum-vehicle'];

/** Hands at a vehicle. A foot comes slowly where the apply branch is asked for; a stroke that only uses up vacuum comes fast. */
const SLOW_NPERS = 40;
const FAST_NPERS = 1000;
const AT_ONCE_NPERS = 1e5;
const STROKES = 10;
/** A stab at the pedal lasts so long, s. */
const STAB_S = 0.3;
/** A vacuum has come back at this part of it, a pressure stands at that. Handbook 8.3. */
const RECOVERED = 0.9;
const STANDS = 0.95;

/**
 * One vehicle, tested through time: each step begins with what its state asks for and goes on item by item, as a technician
 * would. What a true gauge shows is returned for each reading; nothing is looked up in the closed forms but what stands still.
 */
export function perform(
  parameters: readonly number[],
  room: { readonly barometer_Pa: number; readonly temperature_K: number },
  profile: VacuumVehicleProfile,
  procedure: Procedure,
  step: Step,
  set: SetTo = (_item, aim) => aim,
): Record<string, number> {
  // The source side capped: what the check valve would let back stays.
  const capped = step.items.some((item) => item.kind === 'reading' && item.measures === 'leftCapped');
  const made = capped ? parameters.with(placeOf(family.parameters, 'source.back_m3PerSPa'), 0) : parameters;
  const start = () =>
    new Watching(new Running(family.motion!, made, room, family.ports.length), family.ports);
  const vehicle = start();
  const foot = (pedal_N: number, press_NPerS: number, seconds: number) => {
    vehicle.set({ pedal_N, press_NPerS });
    vehicle.wait(Math.abs(pedal_N) / press_NPerS + seconds);
  };
  const shown: Record<string, number> = {};
  let travel = 0;
  begin();
  for (const item of step.items) {
    if (item.kind === 'wait') {
      travel = vehicle.now('travel');
      vehicle.wait(item.duration_s);
    } else if (item.kind === 'reading') shown[item.id] = readAt(item);
  }
  return shown;

  function begin() {
    const { engine, charge } = step.state;
    if (engine === 'idle' || charge === 'full') {
      vehicle.set({ key: 'engine' });
      vehicle.wait(LONGEST_S);
    }
    if (engine === 'off') {
      vehicle.set({ key: 'off' });
      vehicle.wait(1);
    }
    if (charge === 'spent')
      for (let i = 0; i < STROKES; i += 1) {
        foot(400, FAST_NPERS, 2);
        foot(0, FAST_NPERS, 2);
      }
  }

  function readAt(item: ReadingItem): number {
    // Every aim is a force at the pedal.
    const target = set({ ...item, port: 'pedal' }, item.target_Pa ?? 0);
    switch (item.measures) {
      case 'zero':
        return 0;
      case 'input':
        foot(target, SLOW_NPERS, 0);
        vehicle.untilStill('supply', 'front');
        return item.target_Pa ?? 0;
      case 'recovery': {
        const rest = vehicle.now('supply');
        foot(profile.unit.moderate_N, FAST_NPERS, STAB_S);
        vehicle.set({ pedal_N: 0, press_NPerS: AT_ONCE_NPERS });
        return vehicle.lastTime(() => vehicle.now('supply') < RECOVERED * rest);
      }
      case 'drop': {
        const before = vehicle.now('travel');
        vehicle.set({ key: 'engine' });
        vehicle.untilStill('supply', 'front');
        return vehicle.now('travel') - before;
      }
      case 'rise':
        return travel - vehicle.now('travel');
      case 'load.sink':
        return vehicle.now('travel') - travel;
      case 'applyTime': {
        const before = start();
        before.set({ key: 'engine' });
        before.wait(LONGEST_S);
        before.set({ pedal_N: target, press_NPerS: AT_ONCE_NPERS });
        before.wait(LONGEST_S);
        const stands = before.now('front');
        vehicle.set({ pedal_N: target, press_NPerS: AT_ONCE_NPERS });
        const taken = vehicle.timeUntil(() => vehicle.now('front') >= STANDS * stands);
        foot(0, FAST_NPERS, 10);
        return taken;
      }
      case 'clearance':
        return parameters[placeOf(family.parameters, 'clearance_m')]!;
      default:
    }
    if (item.id === 'airtight.start') {
      vehicle.set({ key: 'off' });
      vehicle.wait(1);
    }
    if (item.applications !== undefined && !item.inputFrom) {
      vehicle.wait(RHYTHM.every_s - RHYTHM.held_s);
      foot(target, FAST_NPERS, RHYTHM.held_s);
      const pressure = vehicle.now(item.port);
      foot(0, FAST_NPERS, 0);
      return pressure;
    }
    const released = item.port === 'supply' && target === 0 && step.state.engine === 'idle';
    if (released && !waitBefore(procedure, item.id)) foot(0, FAST_NPERS, LONGEST_S);
    return vehicle.now(item.port);
  }
}
