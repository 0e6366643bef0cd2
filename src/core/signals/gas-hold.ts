import { Vessel, type Accumulator, type Around, type Charge } from '../fluid/accumulator';
import { leaked } from '../fluid/charging';
import { courseOf } from './blocks';
import { ONE_READING, told, untold, type Estimate } from './estimate';
import { longerFor, LONGEST_WANTED_S, SURE } from './fluid-hold';
import { leastSquares, type Fitted } from './least-squares';
import type { Channel, Span, Trace } from './trace';

/** What a hold of fluid on gas tells: what leaks, told apart from gas that cools by the gas law itself. */
export interface GasHold {
  /** Fluid that leaves at `at_Pa`, m³/s. */
  readonly leak: Estimate;
  /** Pressure at which it is told, Pa: at the end of the hold. */
  readonly at_Pa: number;
  /** What cooling took off by the end of the hold, Pa; below zero where the gas warmed. */
  readonly cooled_Pa: number;
  /** Pressure once it has settled, had nothing leaked since the end of the hold, Pa. */
  readonly settled_Pa: number;
  /** Pressure on the fitted curve, a time after the beginning. */
  readonly curve: readonly (readonly [t_s: number, pressure_Pa: number])[];
}

const MOST_BLOCKS = 60;
/** Time constants with which gas cools, each as likely as any other: 10 to 30 s are typical (handbook-models P.1), and some beyond. */
const TAUS_S = Array.from({ length: 9 }, (_, i) => 6 * 8 ** (i / 8));
const ROUNDS = 10;
/** A round that moves every number by less than this part of its doubt is the last. */
const STANDS_STILL = 0.01;
/** From the best of them τ is fitted with all the rest, where the readings tell it so well, as a natural logarithm. */
const TAU_TOLD = 0.12;
const STEP_LOG = 1e-3;
/** No gas that was just pressed is warmer than its shell by more than this, nor one let out colder. */
const MOST_WARMER_K = 150;
const LOG_BOUND = 0.3;
const LEAST_HOLD_S = 5;
/** What a leak is told by, the gas law and how it is stepped, is good to this part of it. */
const LAW_PART = 0.005;
/** The leak counts as told where its limits are within this part of it, at odds of 99 in 100. */
const TELLS = 0.05;
/** Steps by which derivatives are taken: parts of the gas, kelvin, and a leak of so much at 100 bar. */
const STEP_PART = 1e-4;
const STEP_K = 0.1;
const STEP_LEAK_M3PERSPA = 1e-15;

/** Gas at the beginning of a hold, how much warmer than its shell it is, and what leaks at a pressure. */
type Parameters = readonly [gas_m3: number, warmer_K: number, leak_m3PerSPa: number];

interface Held {
  readonly tau_s: number;
  readonly parameters: Parameters;
  readonly fitted: Fitted;
}

/**
 * Leak of a hold on an accumulator by the gas law: the gas cools towards its shell with τ while fluid leaves as k·p/μ. Any τ between 6
 * and 48 s may be: the leak is what they all say, each by how well it goes through the readings, so that cooling is never told as a
 * leak. Where the hold is too short to tell them apart it says how much longer to hold. Handbook 6; handbook-models P.1.
 *
 * @param known its shell and pre-charge
 * @param resolve_m3PerS the smallest leak worth telling
 */
export function gasHold(
  trace: Trace,
  channel: Channel,
  span: Span,
  known: Omit<Accumulator, 'settling_s'>,
  around: Around,
  resolve_m3PerS: number,
): GasHold {
  const { t, values, sigma, same } = courseOf(trace, channel, span, MOST_BLOCKS);
  const long_s = t.length > 0 ? t.at(-1)! - t[0]! : 0;
  const nothing = (leak: Estimate): GasHold => ({
    leak,
    at_Pa: values.at(-1) ?? NaN,
    cooled_Pa: 0,
    settled_Pa: NaN,
    curve: [],
  });
  if (same) return nothing(ONE_READING);
  if (t.length < 8 || long_s < LEAST_HOLD_S)
    return nothing(untold('The hold is too short.', 'Hold for a minute.'));
  const vesselOf: VesselOf = (settling_s) => new Vessel({ ...known, settling_s }, around);
  const lowest_Pa = Math.min(...values);
  if (lowest_Pa <= vesselOf(TAUS_S[0]!).flickUp_Pa)
    return nothing(
      untold(
        'The pressure fell to that of the gas alone, {gas}: the vessel ran empty, and then nothing holds it.',
        '',
        { gas: { value: vesselOf(TAUS_S[0]!).flickUp_Pa, quantity: 'pressure' } },
      ),
    );
  const course = { t, values, sigma };
  const found = TAUS_S.flatMap((tau_s) => fittedBy(vesselOf, tau_s, course) ?? []);
  if (found.length === 0) return nothing(NO_HOLD);
  const best = bestOf(found);
  const reach_Pa = Math.max(...values) - lowest_Pa;
  const off_Pa = sigma * Math.sqrt(best.fitted.chi2 / t.length);
  if (off_Pa > MOST_OFF * sigma && off_Pa > OFF_PART * reach_Pa) return nothing(NO_HOLD);
  const refined = improved(vesselOf, best, course, true);
  const sure =
    refined &&
    refined.fitted.chi2 <= best.fitted.chi2 &&
    refined.tau_s > TAUS_S[0]! &&
    refined.tau_s < TAUS_S.at(-1)! &&
    Math.sqrt(refined.fitted.covariance[3]![3]!) < TAU_TOLD;
  return toldBy(sure ? [refined] : found, vesselOf, course, resolve_m3PerS);
}

type VesselOf = (settling_s: number) => Vessel;
const bestOf = (found: readonly Held[]): Held =>
  found.reduce((a, b) => (b.fitted.chi2 < a.fitted.chi2 ? b : a));

interface Course {
  readonly t: Float64Array;
  readonly values: Float64Array;
  readonly sigma: number;
}

/** Readings lie so many times their noise from the best hold, and so much of the whole fall, where it is no hold on gas at all. */
const MOST_OFF = 2;
const OFF_PART = 0.01;
const NO_HOLD = untold(
  'The readings do not go through any hold on gas of this pre-charge: something else moved, or the vessel is another.',
  'Hold again with nobody at the pedal.',
);

/** What every time constant says together, each by how well it goes through the readings. */
function toldBy(
  found: readonly Held[],
  vesselOf: VesselOf,
  { t, sigma }: Course,
  resolve_m3PerS: number,
): GasHold {
  const best = bestOf(found);
  const widen = Math.max(1, best.fitted.chi2 / Math.max(1, best.fitted.freedom));
  const weights = found.map(({ fitted }) => Math.exp((best.fitted.chi2 - fitted.chi2) / 2 / widen));
  const whole = weights.reduce((sum, weight) => sum + weight, 0);
  const mean = (of: (held: Held) => number) =>
    found.reduce((sum, held, i) => sum + (weights[i]! / whole) * of(held), 0);
  const leak = mean(({ parameters }) => parameters[2]);
  const u = Math.sqrt(
    mean(({ parameters, fitted }) => fitted.covariance[2]![2]! + (parameters[2] - leak) ** 2),
  );
  const vessel = vesselOf(best.tau_s);
  const { shown, last } = courseBy(vessel, best.parameters, t);
  const settled = { ...last, temperature_K: vessel.around.temperature_K };
  const at_Pa = shown.at(-1)!;
  const value = leak * at_Pa;
  const doubt = Math.hypot(u * at_Pa, LAW_PART * value);
  const need = Math.max(TELLS * Math.abs(value), resolve_m3PerS);
  const began = vessel.gauge_Pa({ ...last, temperature_K: vessel.around.temperature_K + best.parameters[1] });
  const base = {
    at_Pa,
    cooled_Pa: began - at_Pa,
    settled_Pa: vessel.gauge_Pa(settled),
    curve: [...t].map((at_s, i) => [at_s, shown[i]!] as const),
  };
  if (SURE * doubt <= need) return { ...base, leak: told(value, doubt, 'leakRate') };
  // In a short time it is a line, what cools and how fast: as in any hold.
  const perFlow = 1 / vessel.leak_m3PerS(last, 1);
  const falls = -value * perFlow;
  const line = {
    parameters: [at_Pa, falls, base.cooled_Pa],
    covariance: [],
    chi2: best.fitted.chi2,
    freedom: best.fitted.freedom,
    tau_s: best.tau_s,
  };
  const longer_s = longerFor(line, t, sigma, need * perFlow);
  return {
    ...base,
    leak: untold(
      'The hold is too short to tell a leak from gas that cools: so far {leak}.',
      longer_s > LONGEST_WANTED_S
        ? 'A steadier gauge: with this one no hold of an hour would tell.'
        : 'Hold for {longer} longer.',
      {
        leak: { value, quantity: 'leakRate', u: doubt, withU: true },
        longer: { value: longer_s, quantity: 'duration' },
      },
    ),
  };
}

/**
 * Pressures over a hold by its parameters, and the gas at the end. Each is the mean over a block, as what was read is: that of a curve
 * lies by a twenty-fourth of its second difference beside its middle.
 */
function courseBy(vessel: Vessel, [gas_m3, warmer_K, leak_m3PerSPa]: Parameters, t: Float64Array) {
  let charge: Charge = { gas_m3, temperature_K: vessel.around.temperature_K + warmer_K };
  let before_s = 0;
  const middle = t.map((at_s) => {
    charge = leaked(vessel, charge, at_s - before_s, (pressure) => leak_m3PerSPa * pressure);
    before_s = at_s;
    return vessel.gauge_Pa(charge);
  });
  const bends = middle.map((_, i) => {
    const k = Math.max(1, Math.min(middle.length - 2, i));
    return middle[k + 1]! - 2 * middle[k]! + middle[k - 1]!;
  });
  return { shown: middle.map((value, i) => value + bends[i]! / 24), last: charge };
}

/**
 * Gauss and Newton from two beginnings, the better end of which counts: the straight line and the decay that go through the readings,
 * near which a small leak lies, and settled gas that nothing leaves, from which a large one is found.
 */
function fittedBy(vesselOf: VesselOf, tau_s: number, course: Course): Held | null {
  const vessel = vesselOf(tau_s);
  const { t, values } = course;
  const ones = new Float64Array(t.length).fill(1);
  const line = leastSquares([ones, t, t.map((at_s) => Math.exp(-at_s / tau_s))], values, ones);
  if (!line) return null;
  const [level_Pa, rises_PaPerS, drop_Pa] = line.parameters as [number, number, number];
  const settled = vessel.settledAt(Math.max(level_Pa, vessel.flickUp_Pa));
  const perKelvin = vessel.law.isochoricSlope_PaPerK(vessel.state(settled));
  const leak = vessel.leak_m3PerS(settled, -rises_PaPerS) / level_Pa;
  const still: Parameters = [vessel.settledAt(values.at(-1)!).gas_m3, 0, 0];
  const begun: Parameters[] = [[settled.gas_m3, drop_Pa / perKelvin, leak], still];
  const ended = begun.flatMap((parameters) => improved(vesselOf, { tau_s, parameters }, course, false) ?? []);
  return ended.length > 0 ? bestOf(ended) : null;
}

/** @param withTau whether the time constant is fitted too */
function improved(
  vesselOf: VesselOf,
  start: Omit<Held, 'fitted'>,
  { t, values, sigma }: Course,
  withTau: boolean,
): Held | null {
  const weights = new Float64Array(t.length).fill(1 / sigma ** 2);
  const looked = ({ tau_s, parameters }: Omit<Held, 'fitted'>) => {
    const { shown } = courseBy(vesselOf(tau_s), parameters, t);
    const chi2 = values.reduce((sum, value, k) => sum + ((value - shown[k]!) / sigma) ** 2, 0);
    return { tau_s, parameters, shown, chi2 };
  };
  let at = looked(start);
  let fitted: Fitted | null = null;
  for (let round = 0; round < ROUNDS; round += 1) {
    const { tau_s, parameters, shown } = at;
    const column = (by: Vessel, moved: Parameters, step: number) =>
      courseBy(by, moved, t).shown.map((value, k) => (value - shown[k]!) / step);
    const columns = [STEP_PART * parameters[0], STEP_K, STEP_LEAK_M3PERSPA].map((step, i) =>
      column(vesselOf(tau_s), parameters.with(i, parameters[i]! + step) as unknown as Parameters, step),
    );
    if (withTau) columns.push(column(vesselOf(tau_s * (1 + STEP_LOG)), parameters, Math.log1p(STEP_LOG)));
    fitted = leastSquares(
      columns,
      values.map((value, k) => value - shown[k]!),
      weights,
    );
    if (!fitted) return null;
    const { parameters: change, covariance } = fitted;
    if (change.every((moved, i) => moved ** 2 < STANDS_STILL ** 2 * covariance[i]![i]!)) break;
    // A step that leads further from the readings is halved.
    const from = at;
    for (const part of PARTS) {
      const next = steppedBy(from, change, part);
      if (!possible(next, vesselOf(next.tau_s))) continue;
      const there = looked(next);
      if (!(there.chi2 < from.chi2)) continue;
      at = there;
      break;
    }
    if (at === from) break;
  }
  const { tau_s, parameters, chi2 } = at;
  return fitted && Number.isFinite(chi2) ? { tau_s, parameters, fitted: { ...fitted, chi2 } } : null;
}

const PARTS = [1, 1 / 2, 1 / 4, 1 / 8, 1 / 16];

/** A part of a step on the way to the readings. */
function steppedBy(
  { tau_s, parameters: [gas_m3, warmer_K, leak_m3PerSPa] }: Omit<Held, 'fitted'>,
  change: readonly number[],
  part: number,
): Omit<Held, 'fitted'> {
  const [gas, warmer, leak, log = 0] = change.map((moved) => part * moved) as [
    number,
    number,
    number,
    number?,
  ];
  return {
    tau_s: tau_s * Math.exp(Math.max(-LOG_BOUND, Math.min(LOG_BOUND, log))),
    parameters: [gas_m3 + gas, warmer_K + warmer, leak_m3PerSPa + leak],
  };
}

/** No gas fills more than its shell, or is much hotter or colder than that. */
const possible = ({ parameters: [gas_m3, warmer_K] }: Omit<Held, 'fitted'>, { of }: Vessel): boolean =>
  gas_m3 > 0 && gas_m3 <= of.shell_m3 && Math.abs(warmer_K) <= MOST_WARMER_K;
