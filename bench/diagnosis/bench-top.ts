import type { ReadingItem, Step } from '../../src/core/contract/steps';
import { FAMILIES } from '../../src/core/families/registry';
import { Running } from '../../src/core/model/running';
import { placeOf, readingOf, AT_ONCE } from '../../src/core/model/vectors';
import type { SetTo } from './vehicle';
import { LONGEST_S, Watching } from './watching';

/** A handle that is pulled slowly where the apply branch is asked for, and at once where a time is taken. */
const SLOW_PAPERS = 4e5;
const AT_ONCE_PAPERS = 1e8;
/** So slowly the input is raised where it is read as something else begins to move, and so often looked at, s. */
const CREEP_PAPERS = 5e4;
const LOOK_S = 0.1;
/** A gauge shows a vacuum where it stands at so many times what it moves by: behind a severe leak the last of it never goes. */
const SHOWS = 10;
/** Nobody comes up to a runout from below this part of the most. */
const LEAST_PART = 0.1;
/** One application in so many seconds, held for so long: the step asks for it. */
const EVERY_S = 10;
const HELD_S = 3;
/** Parts of the full force between which it is timed. Handbook 8.2. */
const TIMED = { low: 0.1, high: 0.9 } as const;

/** A bench: the room, and how deep its source reaches. */
// A type and no interface: only so is it a record of numbers too.
export type BenchRoom = {
  readonly barometer_Pa: number;
  readonly temperature_K: number;
  readonly supply_Pa: number;
};

/** What a hand does and an eye waits for, by what is measured. */
export interface Ways {
  /** Most that an input may be raised to, Pa. */
  readonly most_Pa: number;
  /** A gauge moves by more than this; one that falls by less in a second has stopped. */
  readonly moves: Readonly<Record<string, number>>;
  /** Reading for which a stopwatch runs while the source fills the unit, and the mark at which it is stopped, Pa. */
  readonly mark_Pa: number | null;
}

/**
 * A unit on its bench, tested through time: each step begins with what its state asks for and goes on item by item. What a true
 * gauge shows is returned for each reading; only what no time changes is looked up in the closed forms.
 */
export function performOnBench(
  kind: 'remote-vacuum' | 'rod-servo',
  parameters: readonly number[],
  room: BenchRoom,
  step: Step,
  { most_Pa, moves, mark_Pa }: Ways,
  set: SetTo,
): Record<string, number> {
  const family = FAMILIES[kind];
  const start = () =>
    new Watching(new Running(family.motion!, parameters, room, family.ports.length), family.ports);
  const bench = start();
  const gauges = ['output', 'supply'];
  const pull = (handle_Pa: number, pull_PaPerS: number) => {
    bench.set({ handle_Pa, pull_PaPerS });
    bench.wait(most_Pa / pull_PaPerS);
  };
  const items = step.items.filter((item) => item.kind === 'reading');
  const shown: Record<string, number> = {};
  begin();
  for (const item of step.items) {
    if (item.kind === 'wait') {
      const held = item.id.startsWith('hold');
      if (held) bench.set({ shutIn: true });
      if (item.starts === 'key') pull(0, SLOW_PAPERS);
      bench.wait(item.duration_s);
    } else if (item.kind === 'reading') {
      const value = readAt(item);
      // What is never reached is not timed: there is nothing to write down.
      if (value !== null) shown[item.id] = value;
    }
  }
  return shown;

  function begin() {
    const on = step.state.vacuum === 'on';
    // What is shut in was open before; what is read without vacuum is vented.
    const stored = !on && items.some(({ measures }) => measures === 'supply');
    if (items.some(({ measures }) => measures === 'pullDown')) return;
    if (on || stored) {
      bench.set({ valve: 'open' });
      bench.untilAtRest(2 * LONGEST_S);
    }
    const applied = items.find(({ measures }) => measures === 'supplyLeftApplied');
    if (applied) pull(set({ ...applied, port: 'input' }, applied.target_Pa ?? 0), SLOW_PAPERS);
    if (applied) bench.untilStill(...gauges);
    if (stored) bench.set({ valve: 'shut' });
    // What is read on the way back, or when all is let go, was applied before.
    if (items.some(({ measures }) => measures === 'outputReleasing' || measures === 'residual')) {
      pull(most_Pa, SLOW_PAPERS);
      bench.untilStill(...gauges);
    }
  }

  function readAt(item: ReadingItem): number | null {
    const target = set({ ...item, port: 'input' }, item.target_Pa ?? 0);
    switch (item.measures) {
      case 'zero':
        return 0;
      case 'input':
        bench.set({ shutIn: false });
        pull(target, SLOW_PAPERS);
        bench.untilStill(...gauges);
        return item.target_Pa ?? 0;
      case 'crackInput':
        return inputAs('activation');
      case 'beginInput':
        return inputAs('output');
      case 'runoutInput':
        untilRunout();
        return bench.now('input');
      case 'runoutOutput':
      case 'fullActivation':
        return bench.now(item.port);
      case 'pullDown': {
        bench.set({ valve: 'open' });
        const reaches = Math.min(mark_Pa ?? 0, 0.99 * room.supply_Pa);
        const taken = bench.timeUntil(() => bench.now('supply') >= reaches, 10 * LONGEST_S);
        bench.wait(LONGEST_S);
        return taken < 10 * LONGEST_S ? taken : null;
      }
      case 'applyTime': {
        const before = start();
        before.set({ valve: 'open' });
        before.untilAtRest(2 * LONGEST_S);
        before.set({ handle_Pa: target, pull_PaPerS: AT_ONCE_PAPERS });
        before.wait(LONGEST_S);
        const full = before.now('output');
        bench.set({ handle_Pa: target, pull_PaPerS: AT_ONCE_PAPERS });
        const taken = bench.timeUntil(() => bench.now('output') >= TIMED.high * full);
        bench.wait(LONGEST_S);
        return taken;
      }
      case 'releaseTime': {
        const full = bench.now('output');
        bench.set({ handle_Pa: 0, pull_PaPerS: AT_ONCE_PAPERS });
        const taken = bench.timeUntil(() => bench.now('output') <= TIMED.low * full);
        return taken < LONGEST_S ? taken : null;
      }
      case 'reserveForce': {
        pull(target, AT_ONCE_PAPERS);
        // The most that the pointer shows while it is held.
        let force = 0;
        bench.timeUntil(() => {
          force = Math.max(force, bench.now('output'));
          return false;
        }, HELD_S);
        pull(0, AT_ONCE_PAPERS);
        bench.wait(EVERY_S - HELD_S);
        return force;
      }
      case 'switchCloses':
        return readingOf(
          family,
          parameters,
          { ...room, ...AT_ONCE, input_Pa: 0 },
          family.readings[placeOf(family.readings, item.measures)]!.id,
        );
      default:
    }
    if (item.target_Pa === 0 && step.state.vacuum === 'on') {
      pull(0, SLOW_PAPERS);
      bench.untilStill(...gauges);
    } else if (item.port === 'supply' && item.measures === 'supplyApplied' && !item.inputFrom) {
      pull(target, SLOW_PAPERS);
      bench.untilStill(...gauges);
    }
    return bench.now(item.port);
  }

  /** The input at which another gauge first moves as it is raised slowly. */
  function inputAs(port: string): number {
    pull(0, SLOW_PAPERS);
    bench.wait(LONGEST_S);
    const rest = bench.now(port);
    bench.set({ handle_Pa: most_Pa, pull_PaPerS: CREEP_PAPERS });
    while (Math.abs(bench.now(port) - rest) < moves[port]! && bench.now('input') < 0.999 * most_Pa)
      bench.wait(LOOK_S);
    return bench.now('input');
  }

  /** Up from where the working side still has a vacuum, until it has none or its gauge falls no more. */
  function untilRunout(): void {
    let from_Pa = most_Pa;
    do {
      from_Pa /= 2;
      pull(from_Pa, SLOW_PAPERS);
      bench.untilStill(...gauges);
    } while (bench.now('activation') < SHOWS * moves['activation']! && from_Pa > LEAST_PART * most_Pa);
    bench.set({ handle_Pa: 2 * most_Pa, pull_PaPerS: CREEP_PAPERS });
    const before = bench.now('activation');
    let last = before;
    let begun = false;
    do {
      last = bench.now('activation');
      bench.wait(1);
      // Friction of the valve: on the way up it stands at first.
      begun ||= before - bench.now('activation') > moves['activation']!;
    } while (
      (!begun || last - bench.now('activation') > moves['activation']!) &&
      bench.now('input') < 1.99 * most_Pa
    );
    bench.set({ handle_Pa: bench.now('input') });
  }
}
