import { preChargeOf_Pa, type Around } from '../fluid/accumulator';
import { flowThatFilled } from '../fluid/filling-flow';
import { courseOf } from './blocks';
import { told, untold, type Estimate } from './estimate';
import { leastSquares, varianceOf } from './least-squares';
import { grainOf } from './noise';
import type { Channel, Samples, Span, Trace } from './trace';

/** What a charge of an accumulator by its pump tells. */
export interface AccumulatorCharge {
  /** Pressure to which the gauge jumps as fluid first enters the vessel, Pa. */
  readonly flickUp: Estimate;
  /** The same gas at 20 °C, Pa. */
  readonly preCharge: Estimate;
  /** Greatest pressure, where the pump stopped, Pa. */
  readonly cutOut: Estimate;
  /** From the flick-up to the cut-out, s. */
  readonly chargeTime: Estimate;
  /** Mean flow of the pump over the charge, m³/s, for a known shell. */
  readonly pumpFlow: Estimate;
}

/** Below this part of the greatest pressure a vessel counts as empty at first … */
const EMPTY_PART = 0.05;
/** … and the jump is over within so long, s: a pump fills its lines in a moment. */
const JUMP_S = 1;
const GOES_ON_PART = 0.1;
/** The course behind the jump is told by this part of the way to the cut-out, and has to be so long, s. */
const BEHIND_PART = 0.45;
const LEAST_BEHIND_S = 2;
const MOST_BLOCKS = 400;
/** The first readings behind the jump may stand in it yet, s. */
const PASSED_S = 0.15;
/** The pump has stopped where the pressure falls by so many standard deviations of a reading from its greatest. */
const STOPPED = 6;

/**
 * Pre-charge, cut-out, charge time and flow of the pump from a trace of the pressure as a pump fills an empty vessel. The gauge
 * jumps to the pressure of the gas as the first fluid enters, and from there rises as the gas is pressed: the kink between the two is
 * the flick-up. A vessel that holds fluid at first shows none. Handbook 6; handbook-models P.1.
 *
 * @param shell_m3 inside of the shell; null where it is not known
 */
export function accumulatorCharge(
  trace: Trace,
  channel: Channel,
  span: Span,
  shell_m3: number | null,
  around: Around,
): AccumulatorCharge {
  const { values } = channel;
  const noise = grainOf(values, span).sigma;
  const top = topOf(values, span);
  const ran = { from: span.from, to: top };
  const cutOut = cutOutOf(values, span, top, noise);
  const nothing = (why: Estimate): AccumulatorCharge => ({
    flickUp: why,
    preCharge: why,
    cutOut,
    chargeTime: why,
    pumpFlow: why,
  });
  const first = values[span.from]!;
  if (!(first < Math.max(EMPTY_PART * values[top]!, 3 * noise)))
    return nothing(
      untold(
        'It was started charged: the gauge stood at {first} already, so that there is no flick-up.',
        'Apply the brake until the gauge reads zero behind the check valve, and charge it again.',
        { first: { value: first, quantity: 'pressure' } },
      ),
    );
  const jump = jumpIn(trace, values, ran);
  if (!jump)
    return nothing(
      untold(
        'No jump shows: the pressure rises from nothing, as it does in a vessel that has lost its gas, or full of fluid.',
      ),
    );
  const flickUp = flickUpOf(trace, channel, ran, jump);
  if (!flickUp.told) return nothing(flickUp);
  const preCharge_Pa = preChargeOf_Pa(flickUp.value, around);
  const preCharge = told(preCharge_Pa, flickUp.u * (preCharge_Pa / flickUp.value), 'pressure');
  if (!cutOut.told) return { flickUp, preCharge, cutOut, chargeTime: cutOut, pumpFlow: cutOut };
  const time_s = trace.time_s[top]! - jump.at_s;
  const spacing_s = (trace.time_s[top]! - trace.time_s[span.from]!) / Math.max(1, top - span.from);
  const rate = (values[top]! - flickUp.value) / time_s;
  const chargeTime = told(time_s, Math.hypot(spacing_s, noise / rate), 'duration');
  return {
    flickUp,
    preCharge,
    cutOut,
    chargeTime,
    pumpFlow:
      shell_m3 === null
        ? untold('The shell is not known, so the flow of the pump is not told.', 'Name its profile.')
        : flowBehind(shell_m3, around, preCharge, chargeTime, cutOut.value),
  };
}

/** Sample of the greatest pressure that its neighbours stand beside: a spike is no cut-out. */
function topOf(values: Samples, { from, to }: Span): number {
  let top = from;
  let most = -Infinity;
  for (let i = from + 1; i < to - 1; i += 1) {
    const middle = (values[i - 1]! + values[i]! + values[i + 1]!) / 3;
    if (middle > most) [top, most] = [i, middle];
  }
  return top;
}

function cutOutOf(values: Samples, { to }: Span, top: number, noise: number): Estimate {
  const after = values.subarray(top, to);
  const fell = after.some((value) => value < values[top]! - STOPPED * noise);
  const at = (values[top - 1]! + values[top]! + values[top + 1]!) / 3;
  return fell
    ? told(at, noise, 'pressure')
    : untold(
        'The pump is not seen to stop: what it stopped at is not in the log.',
        'Log until the pump has stopped.',
      );
}

interface Jump {
  /** When half of it was over, and the sample behind it. */
  readonly at_s: number;
  readonly behind: number;
}

/** The steepest rise of the trace, where it is steep beside all that follows. */
function jumpIn({ time_s }: Trace, values: Samples, { from, to }: Span): Jump | null {
  // The first time that the vessel is not empty, and what the pressure has reached a moment later.
  let start = from;
  while (start < to && !(values[start]! > EMPTY_PART * values[to]!)) start += 1;
  let behind = start;
  while (behind < to && time_s[behind]! - time_s[start]! < PASSED_S) behind += 1;
  const reached = values[behind]!;
  if (behind >= to || time_s[behind]! - time_s[Math.max(from, start - 1)]! > JUMP_S) return null;
  // Behind a jump the pressure goes on far more slowly: in as long again it hardly rises.
  let later = behind;
  while (later < to && time_s[later]! - time_s[behind]! < PASSED_S) later += 1;
  if (values[later]! - reached > GOES_ON_PART * reached) return null;
  let half = start;
  while (half < behind && values[half]! < reached / 2) half += 1;
  return { at_s: time_s[half]!, behind };
}

/** The course behind the jump, drawn back to it: a cubic of the time, in which the gas is pressed. */
function flickUpOf(trace: Trace, channel: Channel, { to }: Span, { at_s, behind }: Jump): Estimate {
  const length_s = trace.time_s[to]! - at_s;
  let end = behind;
  while (end < to && trace.time_s[end]! - at_s < BEHIND_PART * length_s) end += 1;
  const course = courseOf(trace, channel, { from: behind, to: end }, MOST_BLOCKS);
  const since = course.t.map((t) => t + trace.time_s[behind]! - at_s);
  if (course.same || since.length < 8 || since.at(-1)! < LEAST_BEHIND_S)
    return untold('The charge is over too soon to tell the flick-up from what follows.', 'Log faster.');
  const weights = new Float64Array(since.length).fill(1 / course.sigma ** 2);
  const columns = [0, 1, 2, 3].map((power) => since.map((t) => t ** power));
  const fitted = leastSquares(columns, course.values, weights);
  if (!fitted) return untold('The readings behind the jump do not go through any charge.');
  // When the jump was is known to within a sample.
  const spacing_s = (trace.time_s[end]! - trace.time_s[behind]!) / Math.max(1, end - behind);
  const moment = Math.abs(fitted.parameters[1]!) * spacing_s;
  return told(
    fitted.parameters[0]!,
    Math.hypot(Math.sqrt(varianceOf(fitted.covariance, [1, 0, 0, 0])), moment),
    'pressure',
  );
}

/** Flow that takes the vessel from its flick-up to the cut-out in the time that it took. */
function flowBehind(
  shell_m3: number,
  around: Around,
  preCharge: Extract<Estimate, { told: true }>,
  chargeTime: Extract<Estimate, { told: true }>,
  cutOut_Pa: number,
): Estimate {
  const filledOn = (preCharge_Pa: number) =>
    flowThatFilled({ shell_m3, preCharge_Pa }, around, cutOut_Pa, chargeTime.value);
  const found = filledOn(preCharge.value);
  if (!found)
    return untold('The pump stopped below the pressure of the gas: there is no charge to tell a flow by.');
  const { usual_m3PerS, spread_m3PerS } = found;
  const byGas = (filledOn(preCharge.value + preCharge.u)?.usual_m3PerS ?? usual_m3PerS) - usual_m3PerS;
  const byTime = (usual_m3PerS * chargeTime.u) / chargeTime.value;
  return told(usual_m3PerS, Math.hypot(spread_m3PerS / Math.sqrt(12), byGas, byTime), 'pumpFlow');
}
