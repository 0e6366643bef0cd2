import type { Quantity } from '../quantities/units';

/** Numbers in a row, as a channel holds them. */
export type Samples = Float64Array | Float32Array;

/** One logged quantity. SI; NaN where nothing was logged. A depression is positive below the barometer. */
export interface Channel {
  readonly name: string;
  /** The port it was taken at, as a family names it ('input', 'output', 'supply', 'activation', 'front', 'rear', 'volume'); null where unknown. */
  readonly port: string | null;
  readonly quantity: Quantity;
  readonly values: Samples;
}

/** Time and channels of one length; time rises, not always evenly. */
export interface Trace {
  readonly time_s: Float64Array;
  readonly channels: readonly Channel[];
}

/** A stretch of a trace: indices from, up to and not including, to. */
export interface Span {
  readonly from: number;
  readonly to: number;
}

/** The channel at a port, or undefined. */
export const channelAt = (trace: Trace, port: string): Channel | undefined =>
  trace.channels.find((channel) => channel.port === port);

/** The channel of a vacuum that a unit works on, or undefined: what stands at the same port under pressure is another thing. */
export const vacuumAt = (trace: Trace): Channel | undefined =>
  trace.channels.find(({ port, quantity }) => port === 'supply' && quantity !== 'pressure');

export const wholeOf = ({ time_s }: Trace): Span => ({ from: 0, to: time_s.length });

/** First sample at or after a time; the number of samples where there is none. */
export function indexAt({ time_s }: Pick<Trace, 'time_s'>, at_s: number): number {
  let low = 0;
  let high = time_s.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (time_s[middle]! < at_s) low = middle + 1;
    else high = middle;
  }
  return low;
}
