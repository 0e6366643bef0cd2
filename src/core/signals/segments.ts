import { blocksOf, type Blocks } from './blocks';
import { wholeOf, type Channel, type Span, type Trace } from './trace';

/** What the hand was doing over a stretch of a trace. */
export interface Segment extends Span {
  readonly kind: 'rest' | 'apply' | 'hold' | 'release';
  readonly from_s: number;
  readonly to_s: number;
  /** Level at its beginning and at its end. */
  readonly start: number;
  readonly end: number;
}

const MOST_BLOCKS = 20_000;
const SHORTEST_BLOCK_S = 0.04;
/** A level that stays this long is a hold. */
const LEAST_HOLD_S = 0.8;
/** A hold wanders no more than this part of the channel's range. */
const LEVEL_PART = 0.01;
/** Below this part of the range the channel is at rest. */
const REST_PART = 0.05;

/**
 * Divides a trace by what one channel does: rest, apply, hold, release. Levels are told by their width, not by a
 * rate, so that noise, spikes, steps of the logger, gaps and uneven sampling do not make segments of their own.
 */
export function segmentsOf(trace: Trace, channel: Channel, span: Span = wholeOf(trace)): Segment[] {
  if (span.to - span.from < 3) return [];
  const duration_s = trace.time_s[span.to - 1]! - trace.time_s[span.from]!;
  const most = Math.max(8, Math.min(MOST_BLOCKS, Math.ceil(duration_s / SHORTEST_BLOCK_S)));
  const blocks = blocksOf(trace, [channel], span, most);
  const good = indicesOf(blocks.means[0]!);
  if (good.length < 3) return [];
  const levels = good.map((i) => blocks.means[0]![i]!);
  const times = good.map((i) => blocks.time_s[i]!);
  const sorted = Float64Array.from(levels).sort();
  const low = sorted[Math.floor(0.005 * sorted.length)]!;
  const range = sorted[Math.ceil(0.995 * sorted.length) - 1]! - low;
  const width = Math.max(4 * blocks.sigma[0]!, LEVEL_PART * range);
  if (!(range > 6 * blocks.sigma[0]!) || width === 0) return [];
  const pieces = movesBetween(levels, plateaus(levels, times, width), width);
  const segments = pieces.map(({ from, to, still }): Segment => {
    const [start, end] = [levels[from]!, levels[to - 1]!];
    const kind = still
      ? Math.max(start, end) < low + REST_PART * range
        ? 'rest'
        : 'hold'
      : end > start
        ? 'apply'
        : 'release';
    const first = blocks.first[good[from]!]!;
    const after = to < good.length ? blocks.first[good[to]!]! : span.to;
    return {
      kind,
      from: first,
      to: after,
      from_s: trace.time_s[first]!,
      to_s: trace.time_s[after - 1]!,
      start,
      end,
    };
  });
  return joined(segments);
}

const indicesOf = (means: Blocks['means'][number]): number[] =>
  Array.from(means.keys()).filter((i) => Number.isFinite(means[i]!));

interface Piece extends Span {
  readonly still: boolean;
}

/** Stretches in which the level stays within twice the width, each as long as it can be. */
function plateaus(levels: readonly number[], times: readonly number[], width: number): Piece[] {
  const found: Piece[] = [];
  for (let from = 0; from < levels.length;) {
    let low = levels[from]!;
    let high = low;
    let to = from + 1;
    for (; to < levels.length; to += 1) {
      low = Math.min(low, levels[to]!);
      high = Math.max(high, levels[to]!);
      if (high - low > 2 * width) break;
    }
    const long = times[to - 1]! - times[from]! >= LEAST_HOLD_S;
    if (long) found.push({ from, to, still: true });
    from = long ? to : from + 1;
  }
  return chained(found, levels, width);
}

/** Plateaus that touch are one: a slow leak, or where they climb from one to the next, a slow pull that is no hold. */
function chained(found: readonly Piece[], levels: readonly number[], width: number): Piece[] {
  const chains: Piece[][] = [];
  for (const piece of found) {
    const last = chains.at(-1);
    if (last && last.at(-1)!.to === piece.from) last.push(piece);
    else chains.push([piece]);
  }
  return chains.flatMap((chain): Piece[] => {
    const whole = { from: chain[0]!.from, to: chain.at(-1)!.to, still: true };
    if (chain.length === 1) return [whole];
    const drift = Math.abs(levels[whole.to - 1]! - levels[whole.from]!);
    if (drift <= 6 * width) return [whole];
    // What is long for a hold at either end of a slow pull stays one.
    const ends = [chain[0]!, chain.at(-1)!];
    const typical = (whole.to - whole.from) / chain.length;
    return ends.filter((piece) => piece.to - piece.from > 3 * typical);
  });
}

/** Fills what lies between the plateaus with moves, parted where they turn. */
function movesBetween(levels: readonly number[], still: readonly Piece[], width: number): Piece[] {
  const pieces: Piece[] = [];
  let at = 0;
  for (const piece of [...still, { from: levels.length, to: levels.length, still: true }]) {
    if (piece.from > at) {
      // The move reaches to the edge of the plateaus beside it.
      const turns = turnsOf(levels, Math.max(0, at - 1), Math.min(levels.length, piece.from + 1), 3 * width);
      const edges = [at, ...turns.filter((turn) => turn > at && turn < piece.from), piece.from];
      edges.slice(1).forEach((to, i) => pieces.push({ from: edges[i]!, to, still: false }));
    }
    if (piece.to > piece.from) pieces.push(piece);
    at = piece.to;
  }
  return pieces;
}

/** Indices at which the level turns back by more than a threshold. */
function turnsOf(levels: readonly number[], from: number, to: number, threshold: number): number[] {
  const turns: number[] = [];
  let extreme = from;
  let up: boolean | null = null;
  for (let i = from + 1; i < to; i += 1) {
    const change = levels[i]! - levels[extreme]!;
    if (up === null) {
      if (Math.abs(change) > threshold) {
        up = change > 0;
        extreme = i;
      }
    } else if (up ? change >= 0 : change <= 0) extreme = i;
    else if (Math.abs(change) > threshold) {
      turns.push(extreme);
      up = !up;
      extreme = i;
    }
  }
  return turns;
}

/** Neighbours of one kind are one, and a move that goes nowhere belongs to what was before it. */
function joined(segments: readonly Segment[]): Segment[] {
  const out: Segment[] = [];
  for (const segment of segments) {
    const last = out.at(-1);
    if (last && last.kind === segment.kind)
      out[out.length - 1] = { ...last, to: segment.to, to_s: segment.to_s, end: segment.end };
    else out.push(segment);
  }
  return out;
}
