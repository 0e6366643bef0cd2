import { gaussian, seeded } from '../procedure/rehearse';
import type { Trace } from '../signals/trace';
import type { Vector } from '../twin/descriptor';
import { benchSource, closedLine, Installation, PLUGGED_PORT, type Hands } from '../twin/installation';
import { BAR, family, INHG, profile } from './bench';

/** Noise of a logger on each port, SI, and the step it writes down; chance comes from the seed. */
export interface Logger {
  readonly seed: number;
  readonly rate_Hz?: number;
  readonly pressureNoise_Pa?: number;
  readonly vacuumNoise_Pa?: number;
  readonly pressureStep_Pa?: number;
  /** A reading in so many is a spike. */
  readonly spikeEvery?: number;
  /** A reading in so many is missing. */
  readonly gapEvery?: number;
  /** Where the output's transducer ends, Pa. */
  readonly outputEnd_Pa?: number;
}

const ROOM = { barometer_Pa: 101_325, temperature_K: 293.15 };
const PORTS = ['input', 'output', 'supply', 'activation'] as const;

/** Writes true readings down as a logger does. */
export function logged(rows: readonly (readonly number[])[], logger: Logger): Trace {
  const random = seeded(logger.seed);
  const time_s = Float64Array.from(rows, (row) => row[0]!);
  const channels = PORTS.map((port, c) => {
    const fluid = c < 2;
    const noise = fluid ? (logger.pressureNoise_Pa ?? 0) : (logger.vacuumNoise_Pa ?? 0);
    const values = Float64Array.from(rows, (row) => {
      let value = row[c + 1]! + noise * gaussian(random);
      if (logger.spikeEvery && random() * logger.spikeEvery < 1) value += (random() - 0.5) * 100 * BAR;
      if (fluid && logger.pressureStep_Pa)
        value = Math.round(value / logger.pressureStep_Pa) * logger.pressureStep_Pa;
      if (port === 'output' && logger.outputEnd_Pa) value = Math.min(value, logger.outputEnd_Pa);
      return logger.gapEvery && random() * logger.gapEvery < 1 ? NaN : value;
    });
    const quantity = fluid ? ('pressure' as const) : ('depression' as const);
    return { name: port, port, quantity, values };
  });
  return { time_s, channels };
}

/** A pull so slow that every reading stands on the closed form: the truth that an estimator is held against. */
export function slowPull(
  parameters: Vector,
  {
    supply_Pa,
    to_Pa,
    seconds,
    rate_Hz,
  }: { supply_Pa: number; to_Pa: number; seconds: number; rate_Hz: number },
  logger: Logger,
  reading: 'output' | 'outputReleasing' = 'output',
): Trace {
  const places = [reading, 'activation'].map((id) => family.readings.findIndex((r) => r.id === id));
  const count = Math.round(seconds * rate_Hz);
  const rows = Array.from({ length: count }, (_, i) => {
    const part = (i + 0.5) / count;
    const input = to_Pa * (reading === 'output' ? part : 1 - part);
    const at = family.steady(parameters, [input, supply_Pa, ROOM.barometer_Pa, ROOM.temperature_K, 0]);
    return [i / rate_Hz, input, at[places[0]!]!, supply_Pa, at[places[1]!]!];
  });
  return logged(rows, logger);
}

/** What is done at a bench, one thing after another: each change, then some seconds. */
export type Script = readonly (readonly [change: Partial<Hands>, seconds: number])[];

/** A trace of the bench over time, done by a script. */
export function benchTrace(parameters: Vector, supply_Pa: number, script: Script, logger: Logger): Trace {
  const bench = new Installation(
    family.motion!,
    parameters,
    benchSource(supply_Pa),
    closedLine(PLUGGED_PORT, ROOM.barometer_Pa),
    ROOM,
    PORTS.length,
  );
  const rows: number[][] = [];
  const every = 1 / (logger.rate_Hz ?? 100);
  for (const [change, seconds] of script) {
    bench.set(change);
    const solved = bench.advance(seconds, every, (t, shown) => rows.push([t, ...shown]));
    if (!solved.ok) throw new Error(`bench: ${solved.why} at ${solved.at_s} s`);
  }
  return logged(rows, logger);
}

/** Bypass, then vacuum, a slow pull to beyond runout, a hold, release, and the vacuum shut in. */
export const WHOLE_TEST: Script = [
  [{}, 2],
  [{ handle_Pa: 60 * BAR, pull_PaPerS: 6 * BAR }, 14],
  [{ handle_Pa: 0, pull_PaPerS: 12 * BAR }, 8],
  [{ valve: 'open' }, 22],
  [{ handle_Pa: 38 * BAR, pull_PaPerS: 2.5 * BAR }, 22],
  [{ handle_Pa: 22 * BAR, pull_PaPerS: 2.5 * BAR }, 10],
  [{ handle_Pa: 0, pull_PaPerS: 2.5 * BAR }, 14],
  [{ handle_Pa: 22 * BAR, pull_PaPerS: 10 * BAR }, 8],
  [{ shutIn: true }, 60],
  [{ shutIn: false, handle_Pa: 0, pull_PaPerS: 10 * BAR }, 10],
  [{ valve: 'shut' }, 60],
];

export { BAR, family, INHG, profile, ROOM };
