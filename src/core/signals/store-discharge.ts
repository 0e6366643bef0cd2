import { at, result, type Stretch } from './analysis';
import { courseOf } from './blocks';
import { ONE_READING, told, untold, type Estimate } from './estimate';
import { leastSquares } from './least-squares';
import { channelAt, wholeOf, type Channel, type Span, type Trace } from './trace';

/** What the discharge of a capacitor tells. */
export interface StoreDischarge {
  /** R·C, s. */
  readonly constant: Estimate;
  /** From the beginning until it stands at what may be worked at, s. */
  readonly safe: Estimate;
  /** What is left at the end, V. */
  readonly left: Estimate;
}

/** Below this a store may be worked at where a profile says nothing else, V. Handbook 2. The reading opens the gate, and no sum. */
const SAFE_V = 5;
const MOST_BLOCKS = 400;
const STEPS = 25;
const LEAST_POINTS = 8;
/** Points that lie so much further from the law than their noise were drawn on by something else. */
const MISFIT = 2;
/** What is to come counts as told where the rate is known to this part of it. */
const TELLS = 0.05;
/** A fall by less than this part of it is none to be fitted; nor is a shorter one, s. */
const LEAST_FALL = 0.05;
const LEAST_S = 5;
/** It rises again where it stands so many standard errors above its lowest. */
const RISES_SIGMA = 6;

/**
 * Voltage of a capacitor that is discharged through one resistance: U₀·e^(−t/RC), fitted with two parameters. Handbook-models 8.9:
 * the wait is R·C·ln(U₀/U_safe).
 */
export function storeDischarge(trace: Trace, channel: Channel, span: Span): StoreDischarge {
  const { t, values, sigma, same } = courseOf(trace, channel, span, MOST_BLOCKS);
  const nothing = (why: Estimate): StoreDischarge => ({ constant: why, safe: why, left: why });
  if (same) return nothing(ONE_READING);
  const long_s = t.at(-1) ?? 0;
  if (t.length < LEAST_POINTS || long_s < LEAST_S)
    return nothing(untold('It was watched for too short a time.', 'Watch it for a minute or more.'));
  let [start_V, rate_PerS] = [
    values[0]!,
    Math.max(1e-6, Math.log(values[0]! / Math.max(0.1, values.at(-1)!)) / long_s),
  ];
  const weights = new Float64Array(t.length).fill(1 / sigma ** 2);
  let fitted = null;
  for (let i = 0; i < STEPS; i += 1) {
    const part = t.map((s) => Math.exp(-rate_PerS * s));
    fitted = leastSquares(
      [part, part.map((left, k) => -start_V * t[k]! * left)],
      values.map((value, k) => value - start_V * part[k]!),
      weights,
    );
    if (!fitted) return nothing(untold('The readings do not tell how it falls.'));
    const [byStart, byRate] = fitted.parameters as [number, number];
    start_V += byStart;
    rate_PerS = Math.max(rate_PerS / 4, rate_PerS + byRate);
  }
  if (!fitted || !(start_V > 0)) return nothing(untold('The readings do not tell how it falls.'));
  if (fitted.chi2 > MISFIT ** 2 * fitted.freedom)
    return nothing(
      untold(
        'It does not fall as a capacitor through one resistance does: something was drawn from it.',
        'Watch it with nothing awake.',
      ),
    );
  const [[uu, ur], [, rr]] = fitted.covariance as [[number, number], [number, number]];
  const of = (value: number, byStart: number, byRate: number, quantity: 'duration' | 'voltage'): Estimate => {
    const variance = byStart ** 2 * uu + byRate ** 2 * rr + 2 * byStart * byRate * ur;
    return told(value, Math.sqrt(Math.max(0, variance)), quantity);
  };
  const over = Math.log(start_V / SAFE_V);
  // To the last reading itself, and not to the middle of those that were taken together.
  const ends_s = trace.time_s[span.to - 1]! - trace.time_s[span.from]!;
  const end = Math.exp(-rate_PerS * ends_s);
  const rate_u = Math.sqrt(rr);
  if (rate_u > TELLS * rate_PerS)
    return {
      ...nothing(
        untold('It was watched for too short a time to tell how it goes on.', 'Watch it for longer.'),
      ),
      left: of(start_V * end, end, -start_V * ends_s * end, 'voltage'),
    };
  return {
    constant: of(1 / rate_PerS, 0, -1 / rate_PerS ** 2, 'duration'),
    safe:
      over > 0
        ? of(over / rate_PerS, 1 / (start_V * rate_PerS), -over / rate_PerS ** 2, 'duration')
        : untold('It stands below what may be worked at from the beginning.'),
    left: of(start_V * end, end, -start_V * ends_s * end, 'voltage'),
  };
}

/** A store that falls by itself, from where it last stood highest to its end or to where it rises again. */
export function dischargeIn(trace: Trace): Stretch[] {
  const store = channelAt(trace, 'store');
  if (store?.quantity !== 'voltage') return [];
  const whole = wholeOf(trace);
  const { values, sigma } = courseOf(trace, store, whole, MOST_BLOCKS);
  const size = (whole.to - whole.from) / Math.max(1, values.length);
  const most = Math.max(...values);
  const from = values.findLastIndex((value) => value >= most - RISES_SIGMA * sigma);
  let [to, least] = [from + 1, values[from]!];
  while (to < values.length && values[to]! <= least + RISES_SIGMA * sigma) {
    least = Math.min(least, values[to]!);
    to += 1;
  }
  const span = { from: Math.round(from * size), to: Math.min(whole.to, Math.round(to * size)) };
  const { time_s } = trace;
  if (!(most - least > LEAST_FALL * most) || !(time_s[span.to - 1]! - time_s[span.from]! > LEAST_S))
    return [];
  const { constant, safe, left } = storeDischarge(trace, store, span);
  return [
    {
      kind: 'discharge',
      name: 'Store that discharges itself',
      ...at(trace, span),
      results: [
        result('store-constant', 'Time constant of the store', 'duration', constant),
        result('store-safe', 'From there until 5 V', 'duration', safe),
        result('store-left', 'Left at the end', 'voltage', left),
      ],
      lines: [],
      points: [],
      supply_Pa: null,
      notes: [],
    },
  ];
}
