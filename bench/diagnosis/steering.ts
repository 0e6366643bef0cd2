import type { ReadingItem, Step } from '../../src/core/contract/steps';
import { supplied } from '../../src/core/contract/sources';
import { FIRM } from '../../src/core/families/hydraulic-booster/index';
import { FAMILIES } from '../../src/core/families/registry';
import { READ_RHYTHM } from '../../src/core/fluid/power-piston';
import type { Hands } from '../../src/core/model/motion';
import { Running } from '../../src/core/model/running';
import type { BenchRoom } from './bench-top';
import type { SetTo } from './vehicle';
import { Watching } from './watching';

/** A foot comes slowly where the way up is read, eases off slowly, and else comes and goes at once. */
const SLOW_NPERS = 40;
const EASING_NPERS = 10;
const AT_ONCE_NPERS = 2000;
/** The line of the steering comes up with what turns its pump, and goes with it, s. */
const STARTS_S = 2;
/** A firm brake that charges the accumulator, N; made so often and held so long, with a time between in which the gas cools, s. */
/** Applications that leave nothing stored. */
const SPENDING = 40;
/** The load valve is closed to a pressure for so long, and shut, s. */
const LOADED_S = 1;
const SHUT_S = 5;
const HELD_S = 3;
/** A pressure has fallen by so much where it is seen to fall, and is gone below so much, Pa; a pedal is up within so much, m. */
const FALLS_PA = 0.3e5;
const GONE_PA = 0.5e5;
const UP_M = 1e-3;
const LOOK_S = 0.02;

/** What turns the pump, and where its pressure is read. */
const PLACES = {
  'hydraulic-vehicle': { on: { key: 'engine' }, off: { key: 'off' }, output: 'front' },
  'hydraulic-booster': { on: { pump: true }, off: { pump: false }, output: 'output' },
} as const;

/** A booster that the steering pump feeds, tested on its bench or in its vehicle through time; a step begins as its state asks. */
export function performOnSteering(
  kind: keyof typeof PLACES,
  parameters: readonly number[],
  room: BenchRoom,
  step: Step,
  set: SetTo,
): Record<string, number> {
  const family = FAMILIES[kind];
  const { on, off, output } = PLACES[kind];
  const car = new Watching(new Running(family.motion!, parameters, room, family.ports.length), family.ports);
  const shown: Record<string, number> = {};
  const foot = (pedal_N: number, press_NPerS: number, hold_s: number) => {
    car.set({ pedal_N, press_NPerS });
    car.wait(pedal_N / press_NPerS + hold_s);
  };
  const turn = (drive: Hands) => {
    car.set(drive);
    car.wait(STARTS_S);
  };
  if (step.state.charge === 'full') {
    turn(on);
    for (let n = 1; n <= FIRM.times; n += 1) {
      foot(FIRM.pedal_N, AT_ONCE_NPERS, FIRM.held_s);
      foot(0, AT_ONCE_NPERS, n < FIRM.times ? FIRM.apart_s : FIRM.off_s);
    }
    turn(off);
  } else if (supplied(step.state)) turn(on);
  else
    for (let n = 0; n < SPENDING; n += 1) {
      foot(FIRM.pedal_N, AT_ONCE_NPERS, 1);
      foot(0, AT_ONCE_NPERS, 1);
    }

  let travel_m = 0;
  let lowest_m = 0;
  const readAt = (item: ReadingItem): number => {
    // Every aim is a force at the pedal.
    const target_N = set({ ...item, port: 'pedal' }, item.target_Pa ?? 0);
    switch (item.measures) {
      case 'zero':
        return 0;
      case 'input':
        foot(target_N, SLOW_NPERS, HELD_S);
        return item.target_Pa ?? 0;
      case 'source.flow':
        car.set({ loadValve: 'half' });
        car.wait(LOADED_S);
        return car.now(item.port);
      case 'source.shut': {
        car.set({ loadValve: 'shut' });
        car.wait(SHUT_S);
        const most_Pa = car.now(item.port);
        car.set({ loadValve: 'open' });
        return most_Pa;
      }
      case 'drop': {
        const from_m = car.now('travel');
        car.set(on);
        for (let s = 0; s < HELD_S; s += LOOK_S) {
          car.wait(LOOK_S);
          lowest_m = Math.max(lowest_m, car.now('travel'));
        }
        return lowest_m - from_m;
      }
      case 'back':
        return lowest_m - car.now('travel');
      case 'falls': {
        const from_Pa = car.now(output);
        car.set({ pedal_N: 0, press_NPerS: EASING_NPERS });
        car.timeUntil(() => car.now(output) < from_Pa - FALLS_PA);
        return car.now('pedal');
      }
      case 'release': {
        foot(target_N, SLOW_NPERS, HELD_S);
        car.set({ pedal_N: 0, press_NPerS: 1e5 });
        return car.timeUntil(() => car.now(output) < GONE_PA && car.now('travel') < UP_M);
      }
      case 'load.sink':
        return car.now('travel') - travel_m;
      default:
    }
    if (item.applications === undefined || item.inputFrom) return car.now(item.port);
    if (item.applications > 1) foot(0, AT_ONCE_NPERS, READ_RHYTHM.rests_s);
    foot(target_N, AT_ONCE_NPERS, READ_RHYTHM.held_s);
    return car.now(item.port);
  };
  for (const item of step.items) {
    if (item.kind === 'wait') {
      travel_m = car.now('travel');
      car.wait(item.duration_s);
    } else if (item.kind === 'reading') shown[item.id] = readAt(item);
  }
  return shown;
}
