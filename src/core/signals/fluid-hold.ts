import { courseOf } from './blocks';
import { ONE_READING, told, untold, type Estimate } from './estimate';
import { leastSquares, varianceOf, type Fitted } from './least-squares';
import { leastStep } from './noise';
import { wholeOf, type Channel, type Span, type Trace } from './trace';

/** What a hold of fluid pressure tells. */
export interface FluidHold {
  /** Loss per second at the end of the hold, settling taken off, Pa/s. */
  readonly loss: Estimate;
  /** Pressure at which it was lost, Pa. */
  readonly at_Pa: number;
  /** Pressure that settling alone took off, and its time constant; null where no settling shows. */
  readonly settling: { readonly drop_Pa: number; readonly tau_s: number } | null;
  /** Pressure on the fitted curve, a time after the beginning. */
  readonly curve: (t_s: number) => number;
}

const MOST_BLOCKS = 600;
const TAUS = 24;
/** A settling term is believed where it betters the fit by so much. */
const BETTER = 12;
/** The loss counts as told where its limits are within this part of it … */
const TELLS = 0.05;
/** … at odds of 99 in 100: a loss of so many of its standard uncertainties is one for certain. */
export const SURE = 2.6;
export const LONGEST_WANTED_S = 3600;

export interface Settled extends Fitted {
  readonly tau_s: number | null;
}

/**
 * Loss rate of a hold: p = p₀ − L·t + a·e^(−t/τ), τ from a search. A hold with no gas behind it settles by seal and
 * hose stretch; with an accumulator this is a first look only (handbook 6). Where the loss cannot be told from the
 * settling yet, it says how much longer to hold.
 *
 * @param resolve_PaPerS the smallest loss worth telling: its fraction of a limit
 */
export function fluidHold(trace: Trace, channel: Channel, span: Span, resolve_PaPerS: number): FluidHold {
  const { t, values: p, sigma, same } = courseOf(trace, channel, span, MOST_BLOCKS);
  const long_s = t.length > 0 ? t.at(-1)! - t[0]! : 0;
  if (same) {
    const loss = unseen(trace, channel, p[0]!, long_s, resolve_PaPerS);
    return { loss, at_Pa: p[0]!, settling: null, curve: () => p[0]! };
  }
  const weights = new Float64Array(t.length).fill(1 / sigma ** 2);
  const plain = leastSquares([ones(t), t], p, weights);
  if (!plain || t.length < 8 || long_s < 2) {
    return {
      loss: untold('The hold is too short.', 'Hold for a minute.'),
      at_Pa: p.at(-1) ?? NaN,
      settling: null,
      curve: () => NaN,
    };
  }
  const best = withSettling(t, p, weights, long_s) ?? { ...plain, tau_s: null };
  const believed: Settled = plain.chi2 - best.chi2 > BETTER ? best : { ...plain, tau_s: null };
  const [p0, rate, drop = 0] = believed.parameters as [number, number, number?];
  const u = Math.sqrt(believed.covariance[1]![1]!);
  const tau = believed.tau_s;
  const need = Math.max(TELLS * Math.abs(rate), resolve_PaPerS);
  const longer_s = SURE * u > need ? longerFor(believed, t, sigma, need) : 0;
  const loss =
    longer_s > 0
      ? untold(
          'The hold is too short to tell the loss from settling and noise: so far {loss}.',
          longer_s > LONGEST_WANTED_S
            ? 'A steadier gauge: with this one no hold of an hour would tell.'
            : 'Hold for {longer} longer.',
          {
            loss: { value: -rate, quantity: 'pressureRate', u, withU: true },
            longer: { value: longer_s, quantity: 'duration' },
          },
        )
      : told(-rate, u, 'pressureRate');
  return {
    loss,
    at_Pa: p0 + rate * t.at(-1)!,
    settling: tau === null ? null : { drop_Pa: drop, tau_s: tau },
    curve: (at) => p0 + rate * at + (tau === null ? 0 : drop * Math.exp(-at / tau)),
  };
}

/**
 * Loss where every reading is the same: less than one step of the logger in all that time, unless the gauge stood at
 * an end of its range, above which it read nowhere in the trace.
 */
function unseen(trace: Trace, { values }: Channel, at_Pa: number, long_s: number, resolve_PaPerS: number) {
  const step = leastStep(values, wholeOf(trace));
  if (step === 0 || !values.some((value) => value > at_Pa + step / 2)) return ONE_READING;
  const most = (SURE * step) / Math.sqrt(3);
  return most <= resolve_PaPerS * long_s
    ? told(0, step / (Math.sqrt(3) * long_s), 'pressureRate')
    : untold(
        'No step of the gauge was lost: the hold is too short for one so coarse.',
        'Hold for {longer} longer.',
        {
          longer: { value: most / resolve_PaPerS - long_s, quantity: 'duration' },
        },
      );
}

const ones = (t: Float64Array) => new Float64Array(t.length).fill(1);

function withSettling(
  t: Float64Array,
  p: Float64Array,
  weights: Float64Array,
  long_s: number,
): Settled | null {
  let best: Settled | null = null;
  const [least, most] = [Math.max(0.3, (2 * long_s) / t.length), long_s / 1.5];
  for (let i = 0; i < TAUS; i += 1) {
    const tau_s = least * (most / least) ** (i / (TAUS - 1));
    const fitted = leastSquares([ones(t), t, decayOf(t, tau_s)], p, weights);
    if (fitted && (!best || fitted.chi2 < best.chi2)) best = { ...fitted, tau_s };
  }
  return best && refined(best, t, p, weights);
}

const decayOf = (t: Float64Array, tau_s: number) => t.map((at) => Math.exp(-at / tau_s));

/** Gauss–Newton in all four, so that the doubt of τ is in the doubt of the loss. */
function refined(start: Settled, t: Float64Array, p: Float64Array, weights: Float64Array): Settled | null {
  let { tau_s } = start;
  let parameters = start.parameters;
  for (let i = 0; i < 8; i += 1) {
    const [a, b, c] = parameters as [number, number, number];
    const decay = decayOf(t, tau_s!);
    const bend = t.map((at, k) => (c * at * decay[k]!) / tau_s! ** 2);
    const left = p.map((value, k) => value - a - b * t[k]! - c * decay[k]!);
    const step = leastSquares([ones(t), t, decay, bend], left, weights);
    if (!step) return null;
    const change = step.parameters;
    const half = tau_s! / 2;
    tau_s = tau_s! + Math.max(-half, Math.min(half, change[3]!));
    parameters = parameters.map((value, k) => value + change[k]!);
    if (Math.abs(change[3]!) < 1e-4 * tau_s)
      return { ...step, parameters, chi2: step.chi2, freedom: step.freedom, tau_s };
  }
  return null;
}

/** How much longer the same gauge would have to watch until the rate is as sure as is needed, s. */
export function longerFor(fit: Settled, t: Float64Array, sigma: number, need: number): number {
  const long_s = t.at(-1)! - t[0]!;
  const spacing = long_s / (t.length - 1);
  const widen = Math.sqrt(Math.max(1, fit.freedom > 0 ? fit.chi2 / fit.freedom : 1));
  for (let factor = 1.15; factor < 200; factor *= 1.15) {
    const count = Math.ceil((long_s * factor) / spacing);
    const stride = Math.max(1, Math.floor(count / 400));
    const at = Float64Array.from({ length: Math.ceil(count / stride) }, (_, i) => i * stride * spacing);
    const columns: ArrayLike<number>[] = [ones(at), at];
    if (fit.tau_s !== null) {
      const decay = decayOf(at, fit.tau_s);
      const drop = fit.parameters[2]!;
      columns.push(
        decay,
        at.map((s, k) => (drop * s * decay[k]!) / fit.tau_s! ** 2),
      );
    }
    const weights = new Float64Array(at.length).fill(stride / sigma ** 2);
    const design = leastSquares(columns, new Float64Array(at.length), weights);
    if (
      design &&
      SURE * widen * Math.sqrt(varianceOf(design.covariance, [0, 1, 0, 0].slice(0, columns.length))) <= need
    )
      return Math.max(1, long_s * (factor - 1));
  }
  return Infinity;
}
