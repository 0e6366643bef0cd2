import type { Step } from '../../src/core/contract/steps';
import { FAMILIES } from '../../src/core/families/registry';
import type { MotorPumpBenchProfile } from '../../src/core/families/motor-pump-bench';
import type { MotorPumpVehicleProfile } from '../../src/core/families/motor-pump-vehicle';
import { Running } from '../../src/core/model/running';
import type { BenchRoom } from './bench-top';
import type { SetTo } from './vehicle';
import { Watching } from './watching';

/** Pressed slowly where the way up is read, and at once. */
const SLOW_NPERS = 100;
const AT_ONCE_NPERS = 2000;
/** Until it was charged, has cooled, was charged again and has settled, s. */
const CHARGES_S = 300;
/** A light press that takes a little, N, and how long it and the rest behind it are, s. */
const LIGHT_N = 40;
const LIGHT_S = 1;
/** More of them than this nobody makes. */
const MOST_PRESSES = 80;
/** A pump that has not stopped by then is switched off. */
const LONGEST_S = 120;
const BRIDGED_S = 5;
const HELD_S = 3;
const EVERY_S = 10;
/** The first fluid has come into the vessel by then, s. */
const FIRST_S = 0.05;
const LOOK_S = 0.05;

/**
 * A motor-pump booster on its bench or in its vehicle, tested through time: but for the charge itself, and where what is stored was
 * used up, a step begins charged and settled.
 */
export function performOnPump(
  kind: 'motor-pump-booster' | 'motor-pump-vehicle',
  parameters: readonly number[],
  room: BenchRoom,
  step: Step,
  set: SetTo,
): Record<string, number> {
  const family = FAMILIES[kind];
  const { watch_s, lamp_Pa } = (family.typical as MotorPumpBenchProfile | MotorPumpVehicleProfile).unit;
  const lamp = parameters[family.parameters.findIndex(({ id }) => id === 'lamp_Pa')] ?? lamp_Pa;
  const bench = new Watching(
    new Running(family.motion!, parameters, room, family.ports.length),
    family.ports,
  );
  const shown: Record<string, number> = {};
  const runs = () => bench.now('current') > 0;
  const press = (pedal_N: number, press_NPerS: number, hold_s: number) => {
    bench.set({ pedal_N, press_NPerS });
    bench.wait(pedal_N / press_NPerS + hold_s);
  };
  const release = (rest_s: number) => {
    bench.set({ pedal_N: 0, press_NPerS: AT_ONCE_NPERS });
    bench.wait(rest_s);
  };
  /** Light presses until the pump starts; where it does not, nothing more is taken. */
  const untilItStarts = () => {
    for (let n = 0; n < MOST_PRESSES && !runs(); n += 1) {
      bench.set({ pedal_N: LIGHT_N, press_NPerS: SLOW_NPERS });
      bench.timeUntil(runs, LIGHT_S);
      bench.set({ pedal_N: 0, press_NPerS: AT_ONCE_NPERS });
      bench.timeUntil(runs, LIGHT_S);
    }
  };
  const powered = step.state.power === 'on';
  if (step.id !== 'charge' && step.state.charge !== 'spent') {
    bench.set({ power: true });
    bench.wait(CHARGES_S);
    if (!powered) bench.set({ power: false });
  }
  let applied = 0;
  let travel_m = 0;
  for (const item of step.items) {
    if (item.kind === 'wait') {
      if (item.id === 'sink.wait') travel_m = bench.now('travel');
      if (item.id !== 'off.wait') bench.wait(item.duration_s);
      continue;
    }
    if (item.kind !== 'reading') continue;
    switch (item.measures) {
      case 'zero':
        shown[item.id] = 0;
        continue;
      case 'flickUp':
        bench.set({ power: true });
        bench.wait(FIRST_S);
        break;
      case 'chargeTime':
        // From where the power came on.
        shown[item.id] = runs() ? FIRST_S + bench.timeUntil(() => !runs(), LONGEST_S) : LONGEST_S;
        continue;
      case 'source.battery':
        untilItStarts();
        break;
      case 'cutIn':
        untilItStarts();
        break;
      case 'onTime':
        shown[item.id] = runs() ? bench.timeUntil(() => !runs(), LONGEST_S) : LONGEST_S;
        continue;
      case 'supply':
        // Just before it stops: looked back on by a meter that holds.
        if (item.id === 'feed.supply') {
          let before = bench.now('supply');
          const held = { current: bench.now('current'), drop: bench.now('drop') };
          for (let s = 0; s < LONGEST_S && runs(); s += LOOK_S) {
            before = bench.now('supply');
            held.current = bench.now('current');
            held.drop = bench.now('drop');
            bench.wait(LOOK_S);
          }
          shown['feed.supply'] = before;
          shown['feed.current'] = held.current;
          shown['feed.drop'] = held.drop;
          continue;
        }
        break;
      case 'source.current':
      case 'source.drop':
        continue;
      case 'offTime': {
        untilItStarts();
        bench.timeUntil(() => !runs(), LONGEST_S);
        // A pump that never stops, and one that never starts.
        shown[item.id] = runs() ? 0 : bench.timeUntil(runs, watch_s);
        continue;
      }
      case 'bridged': {
        let most = bench.now('supply');
        bench.set({ bridged: true });
        for (let s = 0; s < BRIDGED_S; s += LOOK_S) {
          bench.wait(LOOK_S);
          most = Math.max(most, bench.now('supply'));
        }
        shown[item.id] = most;
        continue;
      }
      case 'input': {
        const aim = set(item, item.target_Pa ?? 0);
        press(aim, SLOW_NPERS, HELD_S);
        shown[item.id] = item.target_Pa ?? 0;
        continue;
      }
      case 'kept':
        if (applied > 0) release(EVERY_S - HELD_S);
        applied += 1;
        press(item.target_Pa ?? 0, AT_ONCE_NPERS, HELD_S);
        break;
      case 'load.sink':
        shown[item.id] = bench.now('travel') - travel_m;
        continue;
      case 'lamp':
        shown[item.id] = lamp;
        continue;
    }
    shown[item.id] = bench.now(item.port);
  }
  return shown;
}
