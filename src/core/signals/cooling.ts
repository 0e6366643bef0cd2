import { courseOf } from './blocks';
import { untold, type Estimate } from './estimate';
import { SURE, type FluidHold } from './fluid-hold';
import { leastSquares } from './least-squares';
import type { Channel, Span, Trace } from './trace';

const MOST_BLOCKS = 600;
/** Time constants with which gas in an accumulator cools: 10 to 30 s are typical (handbook 8.6), and some beyond. */
const TAUS_S = Array.from({ length: 25 }, (_, i) => 5 * 9 ** (i / 24));
/** Real gas leaves an exponential by about this part of what it cools. */
const REAL_GAS_PART = 0.01;
/** What is left of the fit of cooling alone may be so much of what noise would leave. */
const EXPLAINED = 2;
/** Cooling is over by then: three of its longest time constants, on a hold of which the first minute is past. */
const OVER_S = 300;

/**
 * The loss of a hold, unless gas that cools explains the fall as well. Gas that was just compressed cools for about a
 * minute and takes the pressure down with it, with no fluid lost (handbook 6).
 *
 * @param resolve_PaPerS a loss that is smaller than this is none to be told
 */
export function unlessCooling(
  trace: Trace,
  channel: Channel,
  span: Span,
  { loss }: FluidHold,
  resolve_PaPerS: number,
): Estimate {
  const leaks = loss.told && loss.value > Math.max(SURE * loss.u, resolve_PaPerS);
  if (!leaks || !cooledAlone(trace, channel, span)) return loss;
  const long_s = trace.time_s[span.to - 1]! - trace.time_s[span.from]!;
  return untold(
    'So the pressure falls where gas in an accumulator cools, too: {loss} so far, and none of it need be a leak.',
    'Name the profile of a unit that stores no gas, or hold for {longer} longer: cooling is over by then.',
    {
      loss: { value: loss.value, quantity: 'pressureRate', u: loss.u, withU: true },
      longer: { value: Math.max(60, OVER_S - long_s), quantity: 'duration' },
    },
  );
}

/** Whether p = p_end + a·e^(−t/τ) with a time constant of cooling gas goes through the readings. */
function cooledAlone(trace: Trace, channel: Channel, span: Span): boolean {
  const { t, values, sigma } = courseOf(trace, channel, span, MOST_BLOCKS);
  const ones = new Float64Array(t.length).fill(1);
  return TAUS_S.some((tau_s) => {
    const decay = t.map((at) => Math.exp(-at / tau_s));
    const fitted = leastSquares([ones, decay], values, ones);
    if (!fitted || fitted.freedom <= 0) return false;
    const cooled = fitted.parameters[1]!;
    const allowed = sigma ** 2 + (REAL_GAS_PART * cooled) ** 2;
    return cooled > 0 && fitted.chi2 <= EXPLAINED * fitted.freedom * allowed;
  });
}
