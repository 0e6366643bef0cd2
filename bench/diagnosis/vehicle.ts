import { FAMILIES } from '../../src/core/families/registry';
import type { VacuumVehicleProfile } from '../../src/core/families/vacuum-vehicle';
import { RHYTHM } from '../../src/core/families/pedal-vacuum/index';
import { Running } from '../../src/core/model/running';
import { placeOf } from '../../src/core/model/vectors';
import type { ReadingItem, Step } from '../../src/core/contract/steps';
import { waitBefore, type Procedure } from '../../src/core/contract/steps';

/** A gauge brought to an aim: what is really there then. */
export type SetTo = (item: ReadingItem, aim: number) => number;

const family = FAMILIES['vacuum-vehicle'];
const port = (id: string) => family.ports.findIndex((one) => one.id === id);

/** Hands at a vehicle. A foot comes slowly where the apply branch is asked for; a stroke that only uses up vacuum comes fast. */
const SLOW_NPERS = 40;
const FAST_NPERS = 1000;
const AT_ONCE_NPERS = 1e5;
/** Longest that anybody waits for something to come or to stand still, s. */
const LONGEST_S = 60;
const STROKES = 10;
/** A stab at the pedal lasts so long, s. */
const STAB_S = 0.3;
/** It stands where it changes by less than this part of it in a second; and is waited for at least so long, s. */
const STILL_PER_S = 2e-3;
const AT_LEAST_S = 3;
const EVERY_S = 0.01;
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
  const vehicle = new Running(family.motion!, made, room, family.ports.length);
  const now = (id: string) => vehicle.read()[port(id)]!;
  const foot = (pedal_N: number, press_NPerS: number, seconds: number) => {
    vehicle.set({ pedal_N, press_NPerS });
    vehicle.advance(Math.abs(pedal_N) / press_NPerS + seconds);
  };
  const shown: Record<string, number> = {};
  const starts: Record<string, number> = {};
  begin();
  for (const item of step.items) {
    if (item.kind === 'wait') {
      starts['travel'] = now('travel');
      vehicle.advance(item.duration_s);
    } else if (item.kind === 'reading') shown[item.id] = readAt(item);
  }
  return shown;

  function begin() {
    const { engine, charge } = step.state;
    if (engine === 'idle' || charge === 'full') {
      vehicle.set({ key: 'engine' });
      vehicle.advance(LONGEST_S);
    }
    if (engine === 'off') {
      vehicle.set({ key: 'off' });
      vehicle.advance(1);
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
        untilStill();
        return item.target_Pa ?? 0;
      case 'recovery': {
        const rest = now('supply');
        foot(profile.unit.moderate_N, FAST_NPERS, STAB_S);
        vehicle.set({ pedal_N: 0, press_NPerS: AT_ONCE_NPERS });
        return lastTime(() => now('supply') < RECOVERED * rest);
      }
      case 'drop': {
        const before = now('travel');
        vehicle.set({ key: 'engine' });
        untilStill();
        return now('travel') - before;
      }
      case 'rise':
        return starts['travel']! - now('travel');
      case 'load.sink':
        return now('travel') - starts['travel']!;
      case 'applyTime': {
        const parallel = new Running(family.motion!, made, room, family.ports.length);
        parallel.set({ key: 'engine' });
        parallel.advance(LONGEST_S);
        parallel.set({ pedal_N: target, press_NPerS: AT_ONCE_NPERS });
        parallel.advance(LONGEST_S);
        const stands = parallel.read()[port('front')]!;
        vehicle.set({ pedal_N: target, press_NPerS: AT_ONCE_NPERS });
        const taken = timeUntil(() => now('front') >= STANDS * stands);
        foot(0, FAST_NPERS, 10);
        return taken;
      }
      case 'clearance':
        return parameters[placeOf(family.parameters, 'clearance_m')]!;
      default:
    }
    if (item.id === 'airtight.start') {
      vehicle.set({ key: 'off' });
      vehicle.advance(1);
    }
    if (item.applications !== undefined && !item.inputFrom) {
      vehicle.advance(RHYTHM.every_s - RHYTHM.held_s);
      foot(target, FAST_NPERS, RHYTHM.held_s);
      const pressure = now(item.port);
      foot(0, FAST_NPERS, 0);
      return pressure;
    }
    if (
      item.port === 'supply' &&
      target === 0 &&
      !waitBefore(procedure, item.id) &&
      step.state.engine === 'idle'
    ) {
      foot(0, FAST_NPERS, LONGEST_S);
    }
    return now(item.port);
  }

  /** Waits until vacuum and pressure stand, or nobody would wait any longer. */
  function untilStill(): void {
    const watched = () => [now('supply'), now('front')];
    const from = vehicle.t_s;
    for (let before = watched(); vehicle.t_s - from < LONGEST_S;) {
      vehicle.advance(1);
      const after = watched();
      const still = after.every((value, i) => Math.abs(value - before[i]!) <= STILL_PER_S * Math.abs(value));
      if (still && vehicle.t_s - from >= AT_LEAST_S) return;
      before = after;
    }
  }

  /** Time at which something is so for the last time, s, within the longest that anybody waits. */
  function lastTime(so: () => boolean): number {
    const from = vehicle.t_s;
    let last = from;
    while (vehicle.t_s - from < LONGEST_S) {
      vehicle.advance(EVERY_S);
      if (so()) last = vehicle.t_s;
    }
    return last - from;
  }

  /** Time until something is so, s; the longest that anybody waits where it does not come. */
  function timeUntil(so: () => boolean): number {
    const from = vehicle.t_s;
    while (!so() && vehicle.t_s - from < LONGEST_S) vehicle.advance(EVERY_S);
    return vehicle.t_s - from;
  }
}
