import { told, untold, type Estimate } from './estimate';
import { segmentsOf, type Segment } from './segments';
import type { Channel, Span, Trace } from './trace';

/** An application counts while the output is above the unassisted line by this part. Handbook 4 and 6. */
const ASSISTED = 0.1;

/** Whether an application was of use. */
export type Useful = (output: number, input_Pa: number) => boolean;

/** Of a unit that boosts a pressure: the output is more than a tenth above the input. */
export const assistedOutput: Useful = (output_Pa, input_Pa) => output_Pa > (1 + ASSISTED) * input_Pa;

/** Applications after the source stopped: one output per application, at the test input or the highest below it. */
export interface Reserve {
  readonly count: Estimate;
  readonly applications: readonly {
    readonly at_s: number;
    readonly input_Pa: number;
    /** SI of the output's own quantity. */
    readonly output: number;
    readonly useful: boolean;
  }[];
}

/**
 * Counts assisted applications, from the trace and not by anybody's fingers: the output where the input stands
 * highest in each application, against output = input with the assist gone, or whatever else makes one of use.
 *
 * @param span from the moment at which the source stopped
 */
export function reserveCount(
  trace: Trace,
  input: Channel,
  output: Channel,
  span: Span,
  useful: Useful = assistedOutput,
): Reserve {
  const segments = segmentsOf(trace, input, span);
  const applications = applicationsIn(segments).map(({ from, to }) => {
    const top = highest(input, { from, to });
    const [input_Pa, reached] = [meanAbout(input, top, span), meanAbout(output, top, span)];
    return {
      at_s: trace.time_s[top]!,
      input_Pa,
      output: reached,
      useful: useful(reached, input_Pa),
    };
  });
  if (applications.length === 0)
    return {
      count: untold('No application after the source stopped.', 'Stop the source, then pump the pedal.'),
      applications,
    };
  const first = applications.findIndex((one) => !one.useful);
  const count =
    first < 0
      ? untold('Every application was still of use: {count} or more.', 'Pump on until the assist is gone.', {
          count: { value: applications.length, quantity: 'count' },
        })
      : told(first, 0, 'count');
  return { count, applications };
}

/** An application is an apply with all that follows until the next one. */
function applicationsIn(segments: readonly Segment[]): Span[] {
  const spans: { from: number; to: number }[] = [];
  for (const segment of segments) {
    const last = spans.at(-1);
    if (segment.kind === 'apply' && (!last || released(segments, last.to, segment)))
      spans.push({ from: segment.from, to: segment.to });
    else if (last && segment.kind !== 'rest') last.to = segment.to;
  }
  return spans;
}

const released = (segments: readonly Segment[], from: number, next: Segment) =>
  segments.some(({ kind, to }) => kind === 'release' && to >= from - 1 && to <= next.from + 1);

function highest({ values }: Channel, { from, to }: Span): number {
  let top = from;
  for (let i = from; i < to; i += 1) if (!(values[i]! <= values[top]!)) top = i;
  return top;
}

/** Mean of the five samples about an index: one alone may be a spike. */
function meanAbout({ values }: Channel, at: number, { from, to }: Span): number {
  const near = [...values.slice(Math.max(from, at - 2), Math.min(to, at + 3))]
    .filter(Number.isFinite)
    .sort((a, b) => a - b);
  const inner = near.length >= 4 ? near.slice(1, -1) : near;
  return inner.reduce((sum, x) => sum + x, 0) / inner.length;
}
