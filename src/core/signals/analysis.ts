import type { LoggedUnit } from '../contract/logged-unit';
import type { Sentence } from '../quantities/sentence';
import type { Quantity } from '../quantities/units';
import { blocksOf } from './blocks';
import type { Estimate } from './estimate';
import type { Segment } from './segments';
import { vacuumAt, type Channel, type Span, type Trace } from './trace';

/** What is known beside the trace. SI. */
export interface About {
  readonly barometer_Pa: number;
  readonly temperature_K: number;
  /** Slave cylinder or rod, whichever the unit has, and vacuum volume; null where no profile was named. */
  readonly unit: LoggedUnit | null;
}

/** One number that the trace was made to yield, and where. */
export interface TraceResult {
  readonly id: string;
  readonly name: string;
  readonly quantity: Quantity;
  readonly estimate: Estimate;
}

/** A line of a fit, to be drawn over the readings. */
export interface FitLine {
  readonly on: 'input-output' | 'time';
  /** Port that it belongs to. */
  readonly port: string;
  /** Points in SI: input and output, or seconds and value. */
  readonly points: readonly (readonly [number, number])[];
}

/** A stretch of a trace in which something was tested, with what it tells. */
export interface Stretch {
  readonly kind:
    | 'bypass'
    | 'pull'
    | 'let down'
    | 'hold'
    | 'vacuum'
    | 'drawing'
    | 'reserve'
    | 'split'
    | 'volume'
    | 'charge'
    | 'cycles'
    | 'standing'
    | 'sweep'
    | 'held'
    | 'stamp'
    | 'pair'
    | 'blend'
    | 'discharge'
    | 'valve'
    | 'blocked';
  readonly name: string;
  readonly from_s: number;
  readonly to_s: number;
  readonly results: readonly TraceResult[];
  readonly lines: readonly FitLine[];
  /** Vacuum that the unit had at the end of a pull, Pa; null where it was not logged or does not matter. */
  readonly supply_Pa: number | null;
  /** Readings of output against input, thinned out, Pa. */
  readonly points: readonly (readonly [number, number])[];
  readonly notes: readonly Sentence[];
}

/** Everything that a trace was made to yield. Plain data: it is stored, sent and printed as it is. */
export interface Analysis {
  readonly segments: readonly Omit<Segment, 'from' | 'to'>[];
  readonly stretches: readonly Stretch[];
  readonly notes: readonly Sentence[];
}

/** A pull of less than this part of the greatest input is none to be fitted. */
export const LEAST_PULL = 0.2;

export const at = (trace: Trace, { from, to }: Span) => ({
  from_s: trace.time_s[from]!,
  to_s: trace.time_s[Math.max(from, to - 1)]!,
});

export const result = (id: string, name: string, quantity: Quantity, estimate: Estimate): TraceResult => ({
  id,
  name,
  quantity,
  estimate,
});

/** Mean vacuum over the last fifth of a stretch. */
export function suppliedAt(trace: Trace, { from, to }: Span): number | null {
  const supply = vacuumAt(trace);
  if (!supply) return null;
  const mean = meanOf(trace, supply, { from: Math.floor(to - (to - from) / 5), to });
  return Number.isFinite(mean) ? mean : null;
}

export const meanOf = (trace: Trace, channel: Channel, span: Span) =>
  blocksOf(trace, [channel], span, 1).means[0]![0]!;
