import { gaussian, seeded } from '../numeric/chance';
import type { Quantity } from '../quantities/units';
import type { Trace } from '../signals/trace';
import type { Vector } from '../model/descriptor';
import type { Family } from '../contract/family';
import type { Hands } from '../model/motion';
import { Running } from '../model/running';

/** Noise of a logger, SI, and the step it writes down; chance comes from the seed. */
export interface Logger {
  readonly seed: number;
  readonly rate_Hz?: number;
  readonly pressureNoise_Pa?: number;
  readonly vacuumNoise_Pa?: number;
  readonly forceNoise_N?: number;
  readonly pressureStep_Pa?: number;
  /** A reading in so many is a spike. */
  readonly spikeEvery?: number;
  /** A reading in so many is missing. */
  readonly gapEvery?: number;
  /** Where the output's transducer ends, Pa. */
  readonly outputEnd_Pa?: number;
}

export interface Room {
  readonly barometer_Pa: number;
  readonly temperature_K: number;
}

const SPIKE_PA = 1e7;
const USUAL_RATE_HZ = 100;

type Ports = Family['ports'];

/** Writes true readings down as a logger does; what is read on a stopwatch is none of them. @param rows time, then the value at each port */
export function logged(rows: readonly (readonly number[])[], ports: Ports, logger: Logger): Trace {
  const random = seeded(logger.seed);
  const noises: Partial<Record<Quantity, number>> = {
    pressure: logger.pressureNoise_Pa,
    depression: logger.vacuumNoise_Pa,
    force: logger.forceNoise_N,
  };
  const time_s = Float64Array.from(rows, (row) => row[0]!);
  const channels = ports.flatMap(({ id, name, quantity }, c) => {
    if (quantity === null || quantity === 'duration') return [];
    const noise = noises[quantity] ?? 0;
    const values = Float64Array.from(rows, (row) => {
      let value = row[c + 1]! + noise * gaussian(random);
      if (logger.spikeEvery && random() * logger.spikeEvery < 1) value += (random() - 0.5) * SPIKE_PA;
      if (quantity === 'pressure' && logger.pressureStep_Pa)
        value = Math.round(value / logger.pressureStep_Pa) * logger.pressureStep_Pa;
      if (id === 'output' && logger.outputEnd_Pa) value = Math.min(value, logger.outputEnd_Pa);
      return logger.gapEvery && random() * logger.gapEvery < 1 ? NaN : value;
    });
    return [{ name, port: id, quantity, values }];
  });
  return { time_s, channels };
}

/** What is done at a bench, one thing after another: each change, then some seconds. */
export type Script = readonly (readonly [change: Hands, seconds: number])[];

/**
 * A trace of a unit on a bench with a vacuum pump and plugged ports, done by a script.
 *
 * @throws RangeError where the family is known at rest only, or the equations cannot be solved
 */
export function recordBench(
  family: Family,
  parameters: Vector,
  supply_Pa: number,
  room: Room,
  script: Script,
  logger: Logger,
): Trace {
  if (!family.motion) throw new RangeError(`family: ${family.kind} has no motion`);
  const bench = new Running(family.motion, parameters, { ...room, supply_Pa }, family.ports.length);
  const rows: number[][] = [];
  const every = 1 / (logger.rate_Hz ?? USUAL_RATE_HZ);
  for (const [change, seconds] of script) {
    bench.set(change);
    const solved = bench.advance(seconds, every, (t, shown) => rows.push([t, ...shown]));
    if (!solved.ok) throw new RangeError(`bench: ${solved.why} at ${solved.at_s} s`);
  }
  return logged(rows, family.ports, logger);
}

/** How far the handle is pulled in a whole test, Pa. */
export interface Pulls {
  readonly bypass_Pa: number;
  readonly beyondRunout_Pa: number;
  readonly hold_Pa: number;
}

/** Bypass, then vacuum, a slow pull to beyond runout, a let-down, a hold, release, and the vacuum shut in. */
export const wholeTest = ({ bypass_Pa, beyondRunout_Pa, hold_Pa }: Pulls): Script => {
  const slow = beyondRunout_Pa / 15;
  const quick = hold_Pa / 2.2;
  return [
    [{}, 2],
    [{ handle_Pa: bypass_Pa, pull_PaPerS: bypass_Pa / 10 }, 14],
    [{ handle_Pa: 0, pull_PaPerS: bypass_Pa / 5 }, 8],
    [{ valve: 'open' }, 22],
    [{ handle_Pa: beyondRunout_Pa, pull_PaPerS: slow }, 22],
    [{ handle_Pa: hold_Pa, pull_PaPerS: slow }, 10],
    [{ handle_Pa: 0, pull_PaPerS: slow }, 14],
    [{ handle_Pa: hold_Pa, pull_PaPerS: quick }, 8],
    [{ shutIn: true }, 60],
    [{ shutIn: false, handle_Pa: 0, pull_PaPerS: quick }, 10],
    [{ valve: 'shut' }, 60],
  ];
};

/** Empty, then fed and left alone: a pump that charges it, and what its switch does from then on. */
export const leftToItsSwitch = (fed: Hands, seconds: number): Script => [
  [{}, 1],
  [fed, seconds],
];

/** A valve fed until its accumulators are full, swept slowly over its travel and back, then set to one travel at once and held. */
export const sweptAndHeld = ({
  fed,
  charge_s,
  beyondStop_m,
  held_m,
}: {
  readonly fed: Hands;
  readonly charge_s: number;
  readonly beyondStop_m: number;
  readonly held_m: number;
}): Script => [
  [{}, 1],
  [fed, charge_s],
  [{ treadle_m: beyondStop_m, press_mPerS: beyondStop_m / 20 }, 22],
  [{ treadle_m: 0, press_mPerS: beyondStop_m / 20 }, 22],
  [{ treadle_m: held_m, press_mPerS: 10 * held_m }, 12],
  [{ treadle_m: 0, press_mPerS: 10 * held_m }, 4],
];

/** A slow application on a full tank, then the source shut: left alone, and applied again and again. */
export const reserveTest = ({
  input_Pa,
  applications,
}: {
  readonly input_Pa: number;
  readonly applications: number;
}): Script => [
  [{ valve: 'open' }, 40],
  [{ handle_Pa: input_Pa, pull_PaPerS: input_Pa / 12 }, 18],
  [{ handle_Pa: 0 }, 16],
  [{ valve: 'shut' }, 60],
  ...Array.from({ length: applications }, (): Script => [
    [{ handle_Pa: input_Pa, pull_PaPerS: 2 * input_Pa }, 4],
    [{ handle_Pa: 0 }, 4],
  ]).flat(),
];
