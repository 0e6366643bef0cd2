import type { Step } from '../../src/core/contract/steps';
import { FAMILIES } from '../../src/core/families/registry';
import { Running } from '../../src/core/model/running';
import type { BenchRoom } from './bench-top';
import type { SetTo } from './vehicle';
import { Watching } from './watching';

/** Pressed slowly where the way up is asked for, so slowly where something is to begin, and at once. */
const SLOW_MPERS = 1e-3;
const CREEP_MPERS = 2e-4;
const AT_ONCE_MPERS = 0.2;
/** As far as a pedal goes: it meets its stop before. */
const TO_THE_STOP_M = 0.05;
/** Until a pack has charged and its gas has settled, s. */
const CHARGES_S = 300;
/** An application: held, read, let go; and the next. The step asks for it. */
const HELD_S = 3;
const EVERY_S = 10;
/** A gauge of a circuit moves by so much, Pa. */
const BEGINS_PA = 2e4;
const LOOK_S = 0.02;
/** So often a swinging gauge is looked at. */
const LOOKS = 100;
/** Part of what comes at the stop to which an application is timed. Handbook-models 8.7. */
const APPLIED = 0.9;
/** The first fluid has come into the vessels by then, s. */
const FIRST_S = 0.03;

/** How the pump of each kind is started and stopped. */
const PUMPS = {
  'pedal-valve': { on: { pump: true }, off: { pump: false } },
  'pedal-valve-vehicle': { on: { key: 'engine' }, off: { key: 'off' } },
} as const;

/**
 * A pedal valve on its pump, tested through time: each step begins charged and settled, but for the one that charges from
 * empty. What a true gauge shows is returned for each reading.
 */
export function performOnPack(
  kind: keyof typeof PUMPS,
  parameters: readonly number[],
  room: BenchRoom,
  step: Step,
  set: SetTo,
): Record<string, number> {
  const family = FAMILIES[kind];
  const { on, off } = PUMPS[kind];
  const bench = new Watching(
    new Running(family.motion!, parameters, room, family.ports.length),
    family.ports,
  );
  const shown: Record<string, number> = {};
  const press = (treadle_m: number, press_mPerS: number, hold_s: number) => {
    bench.set({ treadle_m, press_mPerS });
    bench.wait(treadle_m / press_mPerS + hold_s);
  };
  const highest = (seconds: number) => {
    let most = 0;
    const from = bench.running.t_s;
    while (bench.running.t_s - from < seconds) {
      bench.running.advance(LOOK_S);
      most = Math.max(most, bench.now('output'));
    }
    return most;
  };
  /** Of a gauge that swings the middle is read. */
  const settled = (port: string) => {
    if (!port.startsWith('output')) return bench.now(port);
    const seen: number[] = [];
    for (let look = 0; look < LOOKS; look += 1) {
      bench.running.advance(LOOK_S);
      seen.push(bench.now(port));
    }
    return (Math.min(...seen) + Math.max(...seen)) / 2;
  };
  let applied = 0;
  let peak = 0;
  // The port is plugged with its gauge at zero: whatever the return holds.
  if (step.id === 'cross') bench.set({ second: 'plugged' });
  const { pump, engine } = step.state;
  if (pump !== undefined || engine !== undefined) bench.set(on);
  if (step.id !== 'charge') bench.wait(CHARGES_S);
  // It was applied before.
  if (step.id === 'reserve') {
    press(TO_THE_STOP_M, AT_ONCE_MPERS, HELD_S);
    bench.set({ treadle_m: 0, press_mPerS: AT_ONCE_MPERS });
    bench.wait(CHARGES_S);
  }
  if (pump === 'off' || engine === 'off') bench.set(off);
  for (const item of step.items) {
    if (item.kind === 'wait') bench.wait(item.duration_s);
    if (item.kind !== 'reading') continue;
    switch (item.measures) {
      case 'zero':
        shown[item.id] = 0;
        continue;
      case 'flickUp':
        bench.wait(FIRST_S);
        break;
      case 'source.charged':
        if (step.id === 'charge' && item.port === 'supply') bench.wait(CHARGES_S);
        break;
      case 'begins': {
        const before = bench.now('output');
        bench.set({ treadle_m: TO_THE_STOP_M, press_mPerS: CREEP_MPERS });
        bench.timeUntil(() => bench.now('output') > before + BEGINS_PA);
        break;
      }
      case 'input': {
        const aim = set(item, item.target_Pa ?? 0);
        if (step.id !== 'hold') {
          press(aim, SLOW_MPERS, 0);
          // What crosses over is timed from here.
          if (step.id !== 'cross') bench.untilStill('output', 'output-2');
        } else {
          bench.set({ treadle_m: aim, press_mPerS: AT_ONCE_MPERS });
          peak = highest(2);
        }
        shown[item.id] = item.target_Pa ?? 0;
        continue;
      }
      case 'peak':
        shown[item.id] = peak;
        continue;
      case 'residual':
        press(0.008, 0.01, 2);
        bench.set({ treadle_m: 0, press_mPerS: 0.01 });
        bench.wait(EVERY_S);
        bench.untilStill('output');
        break;
      case 'maximum':
        press(TO_THE_STOP_M, 0.01, 0);
        bench.untilStill('output');
        break;
      case 'applyTime': {
        const full = settled('output');
        bench.set({ treadle_m: 0, press_mPerS: 0.05 });
        bench.wait(60);
        bench.set({ treadle_m: TO_THE_STOP_M, press_mPerS: 1 });
        shown[item.id] = bench.timeUntil(() => bench.now('output') >= APPLIED * full);
        continue;
      }
      case 'kept':
      case 'kept2':
        if ((item.applications ?? 0) > applied) {
          if (applied > 0) bench.wait(EVERY_S - HELD_S);
          applied = item.applications ?? 0;
          press(TO_THE_STOP_M, AT_ONCE_MPERS, HELD_S);
          shown[`${step.id}.${applied}.supply`] = bench.now('supply');
          shown[`${step.id}.${applied}.supply2`] = bench.now('supply-2');
          bench.set({ treadle_m: 0, press_mPerS: AT_ONCE_MPERS });
        }
        continue;
    }
    shown[item.id] = settled(item.port);
  }
  return shown;
}
