import type { Step } from '../../src/core/contract/steps';
import { FAMILIES } from '../../src/core/families/registry';
import { Running } from '../../src/core/model/running';
import { AT_ONCE, inputVector, placeOf } from '../../src/core/model/vectors';
import type { BenchRoom } from './bench-top';
import type { SetTo } from './vehicle';
import { Watching } from './watching';

const family = FAMILIES['by-wire-vehicle'];

/** Pressed slowly where the way up is read, and let go at once, N/s. */
const SLOW_NPERS = 150;
const AT_ONCE_NPERS = 1e4;
const HELD_S = 3;
const RESTS_S = 3;
/** Charged, cooled and charged again by then, s; a pump that has not stopped is switched off. */
const CHARGES_S = 200;
const LONGEST_S = 120;
/** The first fluid has come into the vessel by then, s. */
const FIRST_S = 0.05;
/** A pump has stopped where its gauge rises no more, Pa in so many seconds. */
const STILL_PA = 2e4;
const JUMPED_PA = 10e5;
const LOOK_S = 0.2;

/** A vehicle with a decoupled brake, tested through time. What is driven by the unit's own routine is asked of the closed forms. */
export function performOnByWire(
  parameters: readonly number[],
  room: BenchRoom,
  step: Step,
  set: SetTo,
): Record<string, number> {
  const bench = new Watching(
    new Running(family.motion!, parameters, room, family.ports.length),
    family.ports,
  );
  const shown: Record<string, number> = {};
  let pedal_N = 0;
  /** By the closed forms, where it stands now. */
  const closed = (reading: string, applications = 0) => {
    const at = {
      ...family.full(family.typical),
      ...room,
      ...AT_ONCE,
      applications,
      pedal_N,
      supply_Pa: bench.now('supply'),
      store_V: parameters[placeOf(family.parameters, 'source.battery_V')]!,
    };
    return family.steady(parameters, inputVector(family.inputs, at))[placeOf(family.readings, reading)]!;
  };
  const press = (to_N: number) => {
    pedal_N = to_N;
    bench.set({ pedal_N, press_NPerS: to_N > 0 ? SLOW_NPERS : AT_ONCE_NPERS });
    bench.wait(to_N / SLOW_NPERS + (to_N > 0 ? HELD_S : RESTS_S));
  };
  const powered = step.state.power === 'on';
  if (step.id !== 'charge' && step.state.charge !== 'spent') {
    bench.set({ power: true });
    bench.wait(CHARGES_S);
    if (!powered) bench.set({ power: false });
  }
  let charged_s = 0;
  for (const item of step.items) {
    if (item.kind === 'wait') {
      bench.wait(item.duration_s);
      continue;
    }
    if (item.kind !== 'reading') continue;
    const { measures } = item;
    if (measures === 'zero') shown[item.id] = 0;
    else if (measures === 'input') {
      if (pedal_N > 0) press(0);
      press(set(item, item.target_Pa ?? 0));
      shown[item.id] = item.target_Pa ?? 0;
    } else if (measures === 'flickUp') {
      bench.set({ power: true });
      // The gauge has jumped where it rises by little any more.
      for (let before_Pa = -1; bench.now('supply') > 1.02 * before_Pa || before_Pa < JUMPED_PA;) {
        before_Pa = bench.now('supply');
        bench.wait(FIRST_S);
        if (bench.running.t_s > LONGEST_S) break;
      }
      shown[item.id] = bench.now('supply');
    } else if (measures === 'chargeTime') {
      let before_Pa = 0;
      for (charged_s = FIRST_S; charged_s < LONGEST_S; charged_s += LOOK_S) {
        before_Pa = bench.now('supply');
        bench.wait(LOOK_S);
        if (bench.now('supply') < before_Pa + STILL_PA * LOOK_S) break;
      }
      shown[item.id] = charged_s;
    } else if (/^(apply|release|alone)|^swing$/.test(measures)) shown[item.id] = closed(measures);
    else if (measures === 'requested' || measures === 'granted') {
      bench.set({ rolling: 'passing' });
      bench.wait(1);
      shown[item.id] = bench.now(measures);
      bench.set({ rolling: 'standing' });
    } else if (measures === 'track1Back') {
      press(0);
      shown[item.id] = bench.now('track-1');
    } else if (measures.startsWith('source.') && measures !== 'source.battery')
      shown[item.id] = closed(measures, item.applications ?? 0);
    else shown[item.id] = bench.now(item.port);
  }
  return shown;
}
