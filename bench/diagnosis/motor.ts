import type { Step } from '../../src/core/contract/steps';
import { FAMILIES } from '../../src/core/families/registry';
import type { MotorBoosterBenchProfile } from '../../src/core/families/motor-booster-bench';
import type { MotorBoosterVehicleProfile } from '../../src/core/families/motor-booster-vehicle';
import { AT_ONCE, inputVector, placeOf } from '../../src/core/model/vectors';
import { Running } from '../../src/core/model/running';
import type { BenchRoom } from './bench-top';
import type { SetTo } from './vehicle';
import { Watching } from './watching';

/** Pressed slowly where the way up is read, as slowly as a foot can where something begins, and at once; N/s. */
const SLOW_NPERS = 150;
const CREEPING_NPERS = 4;
const AT_ONCE_NPERS = 1e4;
/** A control unit is awake and has its current by then, s. */
const AWAKE_S = 3;
const HELD_S = 2;
const RESTS_S = 5;
/** It has begun to help where the pressure is there, Pa. */
const BEGUN_PA = 3e4;
/** Only the foot adds where it grows by less than twice what the foot alone would make; looked for from behind where it begins, N. */
const FLAT = 2;
const FROM_N = 16;
const LOOK_N = 2;
/** No foot presses harder, N. */
const MOST_N = 600;
/** A stamp is timed to this part of what it comes to. Handbook-models 8.8. */
const STEP_PART = 0.9;
const EYE_S = 0.001;
const LONGEST_S = 5;

/** An electromechanical booster on its bench or in its vehicle, tested through time. */
export function performOnMotor(
  kind: 'electromechanical' | 'electromechanical-vehicle',
  parameters: readonly number[],
  room: BenchRoom,
  step: Step,
  set: SetTo,
): Record<string, number> {
  const family = FAMILIES[kind];
  const bench = new Watching(
    new Running(family.motion!, parameters, room, family.ports.length),
    family.ports,
  );
  const { unit, load } = family.typical as MotorBoosterBenchProfile | MotorBoosterVehicleProfile;
  const bore_m = 'bore_m' in load ? load.bore_m : load.masterBore_m;
  const foot_PaPerN = unit.pedalRatio / ((Math.PI / 4) * bore_m ** 2);
  const inputs = inputVector(family.inputs, { ...family.full(family.typical), ...room, ...AT_ONCE });
  const returns_s = family.steady(parameters, inputs)[placeOf(family.readings, 'returns')]!;
  const output = kind === 'electromechanical' ? 'output' : 'front';
  const shown: Record<string, number> = {};
  const press = (pedal_N: number, press_NPerS: number) => {
    bench.set({ pedal_N, press_NPerS });
    bench.wait(Math.abs(pedal_N - bench.now('pedal')) / press_NPerS + HELD_S);
  };
  const release = () => {
    bench.set({ pedal_N: 0, press_NPerS: AT_ONCE_NPERS });
    bench.wait(RESTS_S);
  };
  if (step.state.power === 'on') {
    bench.set({ power: true });
    bench.wait(AWAKE_S);
  }
  let held_N = 0;
  let travel_m = 0;
  for (const item of step.items) {
    if (item.kind === 'wait') {
      if (item.id === 'sink.wait') travel_m = bench.now('travel');
      bench.wait(item.duration_s);
      continue;
    }
    if (item.kind !== 'reading') continue;
    switch (item.measures) {
      case 'zero':
        shown[item.id] = 0;
        continue;
      case 'input': {
        if (bench.now('pedal') > 0) release();
        held_N = set(item, item.target_Pa ?? 0);
        // The stamp itself is timed by what is read next.
        if (step.id !== 'step') press(held_N, SLOW_NPERS);
        shown[item.id] = item.target_Pa ?? 0;
        continue;
      }
      case 'crackPedal':
        bench.set({ pedal_N: MOST_N, press_NPerS: CREEPING_NPERS });
        bench.timeUntil(() => bench.now(output) > BEGUN_PA);
        shown[item.id] = bench.now('pedal');
        release();
        continue;
      case 'falls': {
        const at_Pa = bench.now(output);
        bench.set({ pedal_N: 0, press_NPerS: CREEPING_NPERS });
        bench.timeUntil(() => bench.now(output) < at_Pa - (2 * BEGUN_PA) / 3);
        shown[item.id] = bench.now('pedal');
        continue;
      }
      case 'runoutPedal': {
        release();
        // A gear that binds keeps some.
        const from_Pa = bench.now(output) + BEGUN_PA;
        press(FROM_N, SLOW_NPERS);
        let [at_N, before_Pa] = [FROM_N, bench.now(output)];
        while (at_N < MOST_N) {
          bench.set({ pedal_N: at_N + LOOK_N, press_NPerS: SLOW_NPERS });
          bench.wait(0.5);
          const grew_Pa = bench.now(output) - before_Pa;
          if (before_Pa > from_Pa && grew_Pa < FLAT * foot_PaPerN * LOOK_N) break;
          before_Pa = bench.now(output);
          at_N += LOOK_N;
        }
        shown[item.id] = at_N;
        release();
        continue;
      }
      case 'step': {
        press(held_N, AT_ONCE_NPERS);
        const full_Pa = bench.now(output);
        release();
        bench.set({ pedal_N: held_N, press_NPerS: 1e5 });
        let passed_s = 0;
        for (; passed_s < LONGEST_S && bench.now(output) < STEP_PART * full_Pa; passed_s += EYE_S)
          bench.wait(EYE_S);
        shown[item.id] = passed_s;
        continue;
      }
      case 'track1Back':
        release();
        break;
      case 'returns':
        // Over a way that no pressure fills: by the spring's own sum.
        shown[item.id] = returns_s;
        continue;
      case 'load.sink':
        shown[item.id] = bench.now('travel') - travel_m;
        continue;
    }
    shown[item.id] = bench.now(item.port);
  }
  return shown;
}
