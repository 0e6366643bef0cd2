import { sentence, type Sentence } from '../quantities/sentence';
import { told, untold, type Estimate, type Told } from './estimate';
import { leastSquares } from './least-squares';
import { grainOf } from './noise';

/** One moment of an electric vacuum pump, as the vehicle tells it. SI. */
export interface PumpMoment {
  readonly t_s: number;
  /** At the unit, below the barometer. */
  readonly depression_Pa: number;
  readonly barometer_Pa: number;
  readonly runs: boolean;
  /** It runs or stands because a tester asked for it, and not by its own switch. */
  readonly asked: boolean;
}

/** What is known of the pump before; null where it is not. */
export interface PumpKnown {
  /** Its own thresholds, as the unit says them. */
  readonly onBelow_Pa: number | null;
  readonly offAbove_Pa: number | null;
  /** Part of the barometer that a sound one still leaves, and how much that may be more. */
  readonly floorShare: number | null;
  readonly floorMore: number;
}

/** What a log of it tells. */
export interface PumpTold {
  /** How much the vacuum grew over its longest run. */
  readonly grew: Estimate;
  readonly stopsAt: Estimate;
  readonly startsAt: Estimate;
  /** Loss while it stands and nobody presses. */
  readonly drift: Estimate;
  /** Part of the time that it runs by its own switch. */
  readonly duty: Estimate;
  /** What it would come to if it ran on for ever. */
  readonly reach: Estimate;
  readonly says: readonly Sentence[];
}

/** A run or a stand: from one moment to another, the last within it. */
interface Stretch {
  readonly from: number;
  readonly to: number;
  readonly runs: boolean;
  readonly asked: boolean;
}

/** A change beside which noise is nothing: by so many standard deviations of a moment. */
const CLEAR_SIGMA = 6;
/** Between two moments a foot takes away more than this, Pa; what leaks in takes longer. */
const PRESSED_PA = 150;
/** A run or stand is looked at from so long on, s, and from so many moments. */
const LEAST_S = 3;
const LEAST_MOMENTS = 12;
/** So many moments tell how fast it falls at an end of a stand. */
const FALL_MOMENTS = 10;
/** A run in which it grows by less than this part of the barometer pulls nothing. */
const GROWS_PART = 0.02;
/** A stand of this length tells a drift, s. */
const DRIFT_S = 10;
/** What a run tends to is told where it is known as well as this, as a part of the barometer. */
const REACH_TOLD = 0.02;
/** A run is fitted by so many moments at the most: a pump that never stops is told of while it runs on. */
const MOST_FITTED = 300;
/** Rates at which a run may approach it, 1/s, and how finely they are tried. */
const RATES_PER_S = { least: 0.005, most: 2, tried: 60 } as const;

/**
 * An electric vacuum pump from what its vehicle tells: whether the vacuum grows and not only the motor turns, where its switch stops
 * and starts it, what is lost while it stands, how much of the time it runs, and what it tends to. Handbook 8.3, handbook-models 9:
 * dp/dt = −(S/V)·(p − p_e), p_e = ε·p_atm; one whose p_e lies above p_atm − Δp_off never stops, by a leak, by wear, or by the altitude.
 */
export function vacuumPump(log: readonly PumpMoment[], known: PumpKnown): PumpTold {
  const stretches = stretchesOf(log);
  const noise_Pa = noiseOf(log);
  const longest = longestOf(log, stretches, true);
  const reach = longest ? reachOf(log, longest, noise_Pa) : untold('The pump does not run in the log.');
  const grew = longest ? grewBy(log, longest, noise_Pa) : untold('The pump does not run in the log.');
  const stopsAt = switchedAt(log, stretches, noise_Pa, true, known.onBelow_Pa);
  const startsAt = switchedAt(log, stretches, noise_Pa, false, known.onBelow_Pa);
  const found = { grew, stopsAt, startsAt, drift: driftOf(log, stretches, noise_Pa), reach };
  return { ...found, duty: dutyOf(log, stretches), says: saidOf(log, longest, found, noise_Pa, known) };
}

function stretchesOf(log: readonly PumpMoment[]): Stretch[] {
  const found: { from: number; to: number; runs: boolean; asked: boolean }[] = [];
  log.forEach(({ runs, asked }, i) => {
    const last = found.at(-1);
    if (last?.runs === runs && last.asked === asked) last.to = i;
    else found.push({ from: i, to: i, runs, asked });
  });
  return found;
}

function noiseOf(log: readonly PumpMoment[]): number {
  if (log.length < 3) return 0;
  const { sigma, step } = grainOf(
    Float64Array.from(log, ({ depression_Pa }) => depression_Pa),
    { from: 0, to: log.length },
  );
  return Math.max(sigma, step / Math.sqrt(12));
}

const lasts_s = (log: readonly PumpMoment[], { from, to }: Pick<Stretch, 'from' | 'to'>) =>
  log[to]!.t_s - log[from]!.t_s;

/** The longest run, or stand, that is long enough to tell anything. */
function longestOf(log: readonly PumpMoment[], all: readonly Stretch[], runs: boolean): Stretch | null {
  const long = all.filter(
    (one) => one.runs === runs && lasts_s(log, one) >= LEAST_S && one.to - one.from >= LEAST_MOMENTS,
  );
  return long.sort((one, other) => lasts_s(log, other) - lasts_s(log, one))[0] ?? null;
}

function grewBy(log: readonly PumpMoment[], { from, to }: Stretch, noise_Pa: number): Estimate {
  const by = log[to]!.depression_Pa - log[from]!.depression_Pa;
  return told(by, Math.SQRT2 * noise_Pa, 'depression');
}

/** Where its own switch turned it off, or on: between the last moment before and the first behind. */
function switchedAt(
  log: readonly PumpMoment[],
  all: readonly Stretch[],
  noise_Pa: number,
  off: boolean,
  onBelow_Pa: number | null,
): Estimate {
  const found = all.flatMap((one, i) => {
    const before = all[i - 1];
    if (!before || before.asked || one.asked || before.runs !== off || one.runs === off) return [];
    // A stand with which the log begins ends with the key, where there was less vacuum from the first than it means to start below.
    if (!off && i === 1 && log[before.from]!.depression_Pa < (onBelow_Pa ?? Infinity)) return [];
    const [last, first] = [log[before.to]!.depression_Pa, log[one.from]!.depression_Pa];
    // It falls slowly behind a stop, and before a start but for a press: the turn lies within what it loses from one moment to the next.
    const falls = fallsBy(log, off ? one : { from: before.to, to: before.from });
    const [low, high] = off ? [first, first + falls] : [Math.min(last - falls, first), last];
    return [{ at: (low + high) / 2, u: Math.hypot(noise_Pa, (high - low) / Math.sqrt(12)) }];
  });
  if (found.length === 0)
    return off
      ? untold('The pump does not stop by itself in the log.', 'Log on with the foot off the pedal.')
      : untold('The pump does not start by itself in the log.', 'Press the pedal lightly until it starts.');
  const mean = found.reduce((sum, { at }) => sum + at, 0) / found.length;
  const own = Math.hypot(...found.map(({ u }) => u)) / found.length;
  const scatter =
    found.length > 1
      ? Math.hypot(...found.map(({ at }) => at - mean)) / Math.sqrt(found.length * (found.length - 1))
      : 0;
  return told(mean, Math.max(own, scatter), 'depression');
}

/** What a stand loses from one moment to the next at one of its ends, by the few moments from there on. */
function fallsBy(log: readonly PumpMoment[], { from, to }: Pick<Stretch, 'from' | 'to'>): number {
  const count = Math.min(FALL_MOMENTS, Math.abs(to - from));
  const other = from + Math.sign(to - from) * count;
  const by = log[Math.min(from, other)]!.depression_Pa - log[Math.max(from, other)]!.depression_Pa;
  return count > 0 ? Math.max(0, by / count) : 0;
}

/** Loss over the longest stand in which nobody presses, by a straight line. */
function driftOf(log: readonly PumpMoment[], all: readonly Stretch[], noise_Pa: number): Estimate {
  const jump = Math.max(PRESSED_PA, CLEAR_SIGMA * noise_Pa);
  const still = all.flatMap((one) => {
    if (one.runs) return [];
    const parts: { from: number; to: number }[] = [];
    for (let i = one.from; i <= one.to; i += 1) {
      const pressed = i > one.from && Math.abs(log[i]!.depression_Pa - log[i - 1]!.depression_Pa) > jump;
      const last = parts.at(-1);
      if (last && !pressed) last.to = i;
      else parts.push({ from: i, to: i });
    }
    return parts;
  });
  const best = still.sort((one, other) => lasts_s(log, other) - lasts_s(log, one))[0];
  if (!best || lasts_s(log, best) < DRIFT_S || best.to - best.from < LEAST_MOMENTS)
    return untold(
      'The pump does not stand for {time} with the foot off the pedal.',
      'Let it stop, and leave the pedal alone.',
      { time: { value: DRIFT_S, quantity: 'duration' } },
    );
  const part = log.slice(best.from, best.to + 1);
  const fitted = leastSquares(
    [part.map(() => 1), part.map(({ t_s }) => t_s - part[0]!.t_s)],
    part.map(({ depression_Pa }) => depression_Pa),
    part.map(() => 1 / Math.max(1, noise_Pa) ** 2),
  );
  if (!fitted) return untold('The moments do not tell a line.');
  return told(-fitted.parameters[1]!, Math.sqrt(fitted.covariance[1]![1]!), 'depressionRate');
}

/** Part of the time between its first own start and its last in which it runs. */
function dutyOf(log: readonly PumpMoment[], all: readonly Stretch[]): Estimate {
  const starts = all.flatMap((one, i) =>
    i > 0 && one.runs && !one.asked && !all[i - 1]!.asked && !all[i - 1]!.runs ? [i] : [],
  );
  if (starts.length < 2)
    return untold('The pump starts by itself less than twice in the log.', 'Log for longer.');
  const cycles = starts.slice(1).map((next, n) => {
    const first = starts[n]!;
    const asked = all.slice(first, next).some((one) => one.asked);
    const whole_s = log[all[next]!.from]!.t_s - log[all[first]!.from]!.t_s;
    const on_s = log[all[first + 1]!.from]!.t_s - log[all[first]!.from]!.t_s;
    return { asked, on_s, whole_s };
  });
  const own = cycles.filter(({ asked }) => !asked);
  if (own.length === 0) return untold('The pump was asked for between its own starts.', 'Log for longer.');
  const whole_s = own.reduce((sum, one) => sum + one.whole_s, 0);
  const part = own.reduce((sum, { on_s }) => sum + on_s, 0) / whole_s;
  const spacing_s = (log.at(-1)!.t_s - log[0]!.t_s) / Math.max(1, log.length - 1);
  // Each start and stop lies somewhere between two moments.
  const ends = (Math.sqrt(2 * own.length) * spacing_s) / Math.sqrt(12) / whole_s;
  const scatter =
    own.length > 1
      ? Math.hypot(...own.map(({ on_s, whole_s: each_s }) => on_s / each_s - part)) /
        Math.sqrt(own.length * (own.length - 1))
      : 0;
  return told(part, Math.max(ends, scatter), 'percent');
}

/** p = p_e + (p₀ − p_e)·e^(−k·t): k by trial, the rest by least squares; then all three together for their doubt. */
function reachOf(log: readonly PumpMoment[], { from, to }: Stretch, noise_Pa: number): Estimate {
  const every = Math.ceil((to - from) / MOST_FITTED);
  const part = log.slice(from, to + 1).filter((_, i) => i % every === 0);
  const t = part.map(({ t_s }) => t_s - part[0]!.t_s);
  const d = part.map(({ depression_Pa }) => depression_Pa);
  const weights = part.map(() => 1 / Math.max(1, noise_Pa) ** 2);
  const ones = part.map(() => 1);
  const by = (k: number) => {
    const left = t.map((at) => Math.exp(-k * at));
    return { left, fitted: leastSquares([ones, left], d, weights) };
  };
  const { least, most, tried } = RATES_PER_S;
  let best = { k: NaN, chi2: Infinity };
  let [low, high] = [Math.log(least), Math.log(most)];
  // Ever finer about the best so far: the misfit has one lowest place.
  for (let round = 0; round < 3; round += 1) {
    const step = (high - low) / tried;
    for (let n = 0; n <= tried; n += 1) {
      const k = Math.exp(low + n * step);
      const chi2 = by(k).fitted?.chi2 ?? Infinity;
      if (chi2 < best.chi2) best = { k, chi2 };
    }
    [low, high] = [Math.log(best.k) - 1.5 * step, Math.log(best.k) + 1.5 * step];
  }
  const flat = untold(
    'The vacuum does not bend in the log, so what it tends to is not told.',
    'Let it run on.',
  );
  const { left, fitted } = by(best.k);
  if (!fitted) return flat;
  const [reach = 0, by0 = 0] = fitted.parameters;
  const all = leastSquares([ones, left, t.map((at, i) => -by0 * at * left[i]!)], d, weights);
  const u = all ? Math.sqrt(all.covariance[0]![0]!) : Infinity;
  return u < REACH_TOLD * part[0]!.barometer_Pa ? told(reach, u, 'depression') : flat;
}

/** What follows from it, in sentences. */
function saidOf(
  log: readonly PumpMoment[],
  longest: Stretch | null,
  { grew, reach, stopsAt }: Pick<PumpTold, 'grew' | 'reach' | 'stopsAt'>,
  noise_Pa: number,
  { offAbove_Pa, floorShare, floorMore }: PumpKnown,
): Sentence[] {
  if (!longest || !grew.told) return [];
  const barometer_Pa = log[longest.from]!.barometer_Pa;
  const said: Sentence[] = [];
  const begins_Pa = log[longest.from]!.depression_Pa;
  // One that was near all it can reach has nothing left to grow by.
  const hadRoom = begins_Pa < (1 - (floorShare ?? 0.5)) * 0.8 * barometer_Pa;
  if (hadRoom && grew.value < Math.max(GROWS_PART * barometer_Pa, CLEAR_SIGMA * noise_Pa))
    said.push(
      sentence(
        'The pump is on for {time} and the vacuum does not grow. A motor that turns is not yet a pump that pulls.',
        { time: { value: lasts_s(log, longest), quantity: 'duration' } },
      ),
    );
  if (reach.told && offAbove_Pa !== null && !stopsAt.told && reach.value + 2 * reach.u < offAbove_Pa)
    said.push(beyondReach(reach, offAbove_Pa, barometer_Pa, floorShare, floorMore));
  return said;
}

function beyondReach(
  reach: Told,
  off_Pa: number,
  barometer_Pa: number,
  floorShare: number | null,
  floorMore: number,
): Sentence {
  const values = {
    reach: { value: reach.value, quantity: 'depression', u: reach.u, withU: true },
    barometer: { value: barometer_Pa, quantity: 'barometer' },
    off: { value: off_Pa, quantity: 'depression' },
    share: { value: reach.value / barometer_Pa, quantity: 'percent' },
  } as const;
  const tends = 'It tends to {reach}, {share} of a barometer of {barometer}';
  if (floorShare === null) return sentence(`${tends}, and does not come to its cut-off of {off}.`, values);
  const sound = { ...values, sound: { value: 1 - floorShare, quantity: 'percent' } } as const;
  return reach.value + 2 * reach.u >= (1 - floorShare - floorMore) * barometer_Pa
    ? sentence(
        `${tends}, as a sound one does. It cannot reach its own cut-off of {off} up here: running on is no fault.`,
        sound,
      )
    : sentence(
        `${tends}, where a sound one comes to {sound}. It does not come to its cut-off of {off}: a leak, or a worn pump.`,
        sound,
      );
}
