import { depressionAfter_Pa } from '../air/leak';
import { gaussian, seeded } from '../numeric/chance';
import { effectiveAreaOf } from '../signals/effective-area';
import { forceCurve } from '../signals/force-curve';
import { fluidHold } from '../signals/fluid-hold';
import { pressureVolume } from '../signals/pressure-volume';
import { proportioning } from '../signals/proportioning';
import { hysteresisOf, ratioCurve } from '../signals/ratio-curve';
import { channelAt, wholeOf, type Channel, type Trace } from '../signals/trace';
import { vacuumDecay } from '../signals/vacuum-decay';
import { FAMILIES } from '../families/registry';
import { AT_ONCE, inputVector, placeOf, readingOf } from '../model/vectors';
import { logged } from '../twin/recording';
import { sweepTrials, swingTrials } from './metered-trials';
import { chargeTrials, gasTrials } from './stored-pressure-trials';
import { between, type Trial } from './trial';
import { BAR, family, INHG, profile, ROOM, slowPull } from './traces';

/** How often the stated 95 % limits of one estimator held the truth, over many seeds. */
export interface Coverage {
  readonly name: string;
  readonly told: number;
  readonly abstained: number;
  readonly held: number;
  /** Largest error, as a part of the truth. */
  readonly worst: number;
}

/** Half-width of 95 % limits, in standard uncertainties. */
const LIMITS = 1.96;

/** Draws a unit, a noise and a logger for one seed and estimates everything that its traces tell. */
export function trialsOf(seed: number): Trial[] {
  return [
    ...curveTrials(seed),
    ...forceTrials(seed),
    ...holdTrials(seed),
    ...otherTrials(seed),
    ...chargeTrials(seed),
    ...gasTrials(seed, false),
    ...gasTrials(seed, true),
    ...sweepTrials(seed),
    ...swingTrials(seed),
  ];
}

/** Runs seeds from 1 to a count. */
export function coverageOver(seeds: number, first = 1): Coverage[] {
  const all = Array.from({ length: seeds }, (_, i) => trialsOf(first + i)).flat();
  return [...new Set(all.map(({ name }) => name))].map((name) => {
    const mine = all.filter((trial) => trial.name === name);
    const errors = mine.flatMap(({ truth, found }) =>
      found.told ? [{ off: Math.abs(found.value - truth), u: found.u, truth }] : [],
    );
    return {
      name,
      told: errors.length,
      abstained: mine.length - errors.length,
      held: errors.filter(({ off, u }) => off <= LIMITS * u).length,
      worst: Math.max(0, ...errors.map(({ off, truth }) => off / Math.abs(truth))),
    };
  });
}

function curveTrials(seed: number): Trial[] {
  const random = seeded(seed);
  const unit = {
    ...profile,
    boostRatio: between(random, 2.2, 4.2),
    crack_Pa: between(random, 2, 4) * BAR,
    effectiveDiameter_m: between(random, 0.18, 0.25),
  };
  const { values } = family.healthy(unit);
  const supply_Pa = between(random, 14, 23) * INHG;
  const of = (reading: string) =>
    readingOf(family, values, { input_Pa: 0, supply_Pa, ...ROOM, ...AT_ONCE }, reading);
  const parameter = (id: string) => values[placeOf(family.parameters, id)]!;
  const knee = of('runoutInput');
  const pull = { supply_Pa, to_Pa: 1.35 * knee, seconds: 20, rate_Hz: 100 };
  const logger = {
    seed: seed + 10_000,
    pressureNoise_Pa: between(random, 0.02, 0.3) * BAR,
    vacuumNoise_Pa: 200,
  };
  const trace = slowPull(values, pull, logger);
  const port = (from: Trace, id: string) => channelAt(from, id)!;
  const curve = ratioCurve(trace, port(trace, 'input'), port(trace, 'output'), wholeOf(trace), 'apply');
  const down = slowPull(
    values,
    { ...pull, to_Pa: 0.9 * knee },
    { ...logger, seed: seed + 20_000 },
    'outputReleasing',
  );
  const release = ratioCurve(down, port(down, 'input'), port(down, 'output'), wholeOf(down), 'release');
  const area = effectiveAreaOf(
    trace,
    {
      input: port(trace, 'input'),
      output: port(trace, 'output'),
      supply: port(trace, 'supply'),
      activation: port(trace, 'activation'),
    },
    wholeOf(trace),
    {
      slaveArea_m2: parameter('slaveArea_m2'),
      rodArea_m2: parameter('rodArea_m2'),
      spring_N: parameter('spring_N'),
    },
  );
  return [
    { name: 'crack', truth: unit.crack_Pa, found: curve.crack },
    { name: 'jump-in', truth: (unit.boostRatio - 1) * unit.crack_Pa, found: curve.jumpIn },
    { name: 'boost ratio', truth: unit.boostRatio, found: curve.boostRatio },
    { name: 'runout input', truth: knee, found: curve.runoutInput },
    { name: 'runout output', truth: of('runoutOutput'), found: curve.runoutOutput },
    {
      name: 'slope beyond runout',
      truth: 1 - parameter('rodArea_m2') / parameter('slaveArea_m2'),
      found: curve.slopeBeyond,
    },
    { name: 'hysteresis', truth: parameter('hysteresis'), found: hysteresisOf(curve, release) },
    { name: 'effective area', truth: parameter('effectiveArea_m2'), found: area },
  ];
}

/** One channel over time with noise. */
function single(at: (t_s: number) => number, seconds: number, rate_Hz: number, sigma: number, seed: number) {
  const random = seeded(seed);
  const time_s = Float64Array.from({ length: Math.round(seconds * rate_Hz) }, (_, i) => i / rate_Hz);
  const values = time_s.map((t) => at(t) + sigma * gaussian(random));
  const channel: Channel = { name: 'p', port: 'output', quantity: 'pressure', values };
  return { trace: { time_s, channels: [channel] } satisfies Trace, channel };
}

/** A slow application of a servo drawn from its closed form. */
function forceTrials(seed: number): Trial[] {
  const random = seeded(seed + 90_000);
  const servo = FAMILIES['rod-servo'];
  const typical = servo.healthy(servo.typical);
  const drawn: Readonly<Record<string, number>> = {
    effectiveArea_m2: between(random, 0.012, 0.03),
    preload_N: between(random, 60, 150),
    crack_Pa: between(random, 1, 2) * BAR,
    liftRange_Pa: between(random, 4, 8) * BAR,
  };
  const values = servo.parameters.map(({ id }, i) => drawn[id] ?? typical.values[i]!);
  const supply_Pa = between(random, 14, 23) * INHG;
  const steady = (input_Pa: number) =>
    servo.steady(values, inputVector(servo.inputs, { input_Pa, supply_Pa, ...ROOM, ...AT_ONCE }));
  const truth = (reading: string, input_Pa: number) => steady(input_Pa)[placeOf(servo.readings, reading)]!;
  const full_Pa = drawn.crack_Pa! + drawn.liftRange_Pa!;
  const logger = {
    seed: seed + 30_000,
    pressureNoise_Pa: between(random, 0.005, 0.05) * BAR,
    forceNoise_N: between(random, 1, 8),
  };
  const rows = Array.from({ length: 2000 }, (_, i) => {
    const input_Pa = (1.35 * full_Pa * (i + 0.5)) / 2000;
    const at = servo.ports.map(({ id }) =>
      id === 'input' ? input_Pa : id === 'output' ? truth('output', input_Pa) : supply_Pa,
    );
    return [i / 100, ...at];
  });
  const trace = logged(rows, servo.ports, logger);
  const curve = forceCurve(trace, channelAt(trace, 'input')!, channelAt(trace, 'output')!, wholeOf(trace))!;
  return [
    { name: 'force begins', truth: truth('beginInput', 0), found: curve.begins },
    { name: 'full lift', truth: full_Pa, found: curve.fullLift },
    { name: 'full force', truth: truth('output', full_Pa), found: curve.fullForce },
  ];
}

function holdTrials(seed: number): Trial[] {
  const random = seeded(seed + 30_000);
  const rate = (between(random, 0.5, 9) * BAR) / 60;
  const [drop, tau] = [between(random, 0.5, 4) * BAR, between(random, 3, 14)];
  const hold = single(
    (t) => 80 * BAR - rate * t + drop * Math.exp(-t / tau),
    between(random, 25, 120),
    20,
    between(random, 0.02, 0.2) * BAR,
    seed + 40_000,
  );
  const conductance = between(random, 5e-11, 8e-10);
  const start_Pa = between(random, 10, 22) * INHG;
  const leak = { conductance_m3PerSPa: conductance, volume_m3: 4e-3, ...ROOM };
  const decay = single(
    (t) => depressionAfter_Pa(start_Pa, t, leak),
    between(random, 15, 60),
    20,
    between(random, 20, 300),
    seed + 50_000,
  );
  const room = { ...ROOM, volume_m3: 4e-3 };
  return [
    {
      name: 'loss on hold',
      truth: rate,
      found: fluidHold(hold.trace, hold.channel, wholeOf(hold.trace), BAR / 600).loss,
    },
    {
      name: 'air leak',
      truth: conductance,
      found: vacuumDecay(decay.trace, decay.channel, wholeOf(decay.trace), room, 1).conductance,
    },
  ];
}

function otherTrials(seed: number): Trial[] {
  const random = seeded(seed + 60_000);
  const [split, beyond] = [between(random, 20, 50) * BAR, between(random, 0.2, 0.6)];
  const noise = between(random, 0.05, 0.3) * BAR;
  const time_s = Float64Array.from({ length: 1500 }, (_, i) => i / 100);
  const front = time_s.map((t) => (90 * BAR * t) / 15);
  const rear = front.map((p) => Math.min(p, split) + beyond * Math.max(0, p - split));
  const noisy = (values: Float64Array, sigma: number) => values.map((v) => v + sigma * gaussian(random));
  const valve: Trace = {
    time_s,
    channels: [
      { name: 'front', port: 'front', quantity: 'pressure', values: noisy(front, noise) },
      { name: 'rear', port: 'rear', quantity: 'pressure', values: noisy(rear, noise) },
    ],
  };
  const parted = proportioning(valve, valve.channels[0]!, valve.channels[1]!, wholeOf(valve));
  const [air, give] = [between(random, 0.1, 2) * 1e-6, between(random, 1, 5) * 1e-13];
  const volume = front.map((p) => 1e-6 + air * (1 - ROOM.barometer_Pa / (ROOM.barometer_Pa + p)) + give * p);
  const line: Trace = {
    time_s,
    channels: [
      { name: 'p', port: 'output', quantity: 'pressure', values: front },
      { name: 'v', port: 'volume', quantity: 'volume', values: noisy(volume, 2e-8) },
    ],
  };
  const taken = pressureVolume(line, line.channels[0]!, line.channels[1]!, wholeOf(line), ROOM.barometer_Pa);
  return [
    { name: 'split', truth: split, found: parted.split },
    { name: 'slope beyond the split', truth: beyond, found: parted.slopeBeyond },
    { name: 'air trapped', truth: air, found: taken.air },
    { name: 'give', truth: give, found: taken.give },
  ];
}
