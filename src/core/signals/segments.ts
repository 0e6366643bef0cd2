import { blocksOf, type Blocks } from './blocks';
import { median } from './noise';
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
/** A hold wanders no more than this part of the channel's reach. */
const LEVEL_PART = 0.01;
/** Nobody pulls so slowly that the whole reach would take longer: what moves less is a hold that leaks, s. */
const SLOWEST_PULL_S = 600;
/** Below this part of the range the channel is at rest … */
const REST_PART = 0.05;
/** … where it was let go at all: its lowest level is below this part of its highest. */
const LET_GO_PART = 0.15;
/** A fluid pressure that never moves is at rest up to the typical limit of what may remain (handbook 8.1), Pa. */
export const REMAINS_PA = 0.5e5;

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
  const high = sorted[Math.ceil(0.995 * sorted.length) - 1]!;
  const range = high - low;
  const letGo = low < LET_GO_PART * high || channel.quantity === 'depression';
  const reach = letGo ? range : high;
  const width = Math.max(4 * blocks.sigma[0]!, LEVEL_PART * reach);
  if (!(range > 6 * blocks.sigma[0]!) || width === 0)
    return [unmoved(trace, channel, span, (low + high) / 2)];
  const still = plateaus({ levels, times, width, reach });
  const pieces = settled(movesBetween(levels, still, width), levels, width);
  const segments = pieces.map(({ from, to, still }): Segment => {
    const [start, end] = [levels[from]!, levels[to - 1]!];
    // A move of one reading is told by what lies beside it.
    const rises = to - from > 1 ? end > start : (levels[to] ?? end) > (levels[from - 1] ?? start);
    const kind = still
      ? letGo && Math.max(start, end) < low + REST_PART * range
        ? 'rest'
        : 'hold'
      : rises
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

/** A channel that never moves: at rest, or a pressure held from before the first reading to after the last. */
function unmoved(trace: Trace, { quantity }: Channel, span: Span, level: number): Segment {
  const held = quantity === 'pressure' && level > REMAINS_PA;
  const [from_s, to_s] = [trace.time_s[span.from]!, trace.time_s[span.to - 1]!];
  return { ...span, kind: held ? 'hold' : 'rest', from_s, to_s, start: level, end: level };
}

const indicesOf = (means: Blocks['means'][number]): number[] =>
  Array.from(means.keys()).filter((i) => Number.isFinite(means[i]!));

interface Piece extends Span {
  readonly still: boolean;
}

/** Stretches in which the level stays within twice the width, each as long as it can be. */
function plateaus(course: Course): Piece[] {
  const { levels, times, width } = course;
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
  return chained(found, course);
}

interface Course {
  readonly levels: readonly number[];
  readonly times: readonly number[];
  /** What a level may wander. */
  readonly width: number;
  /** From where the channel is let go to the highest it reads. */
  readonly reach: number;
}

/** Plateaus that touch are one: a slow leak, or where they climb from one to the next, a slow pull that is no hold. */
function chained(found: readonly Piece[], course: Course): Piece[] {
  const { levels, times, width, reach } = course;
  const chains: Piece[][] = [];
  for (const piece of found) {
    const last = chains.at(-1);
    const touches = last?.at(-1)!.to === piece.from;
    if (last && touches && !jumps(levels, piece.from, width)) last.push(piece);
    else chains.push([piece]);
  }
  return chains.flatMap((chain): Piece[] => {
    const whole = { from: chain[0]!.from, to: chain.at(-1)!.to, still: true };
    if (chain.length === 1) return [whole];
    const drift = Math.abs(levels[whole.to - 1]! - levels[whole.from]!);
    const creeps = drift * SLOWEST_PULL_S < reach * (times[whole.to - 1]! - times[whole.from]!);
    return drift <= 6 * width || creeps ? [whole] : endsOf(whole, course);
  });
}

/** Whether the level changes from one reading to the next by more than it may wander: something was done in between. */
const jumps = (levels: readonly number[], at: number, width: number): boolean =>
  Math.abs(levels[at]! - levels[at - 1]!) > 3 * width;

/** Readings by whose median an end of a slow pull is known. */
const AT_END = 5;

/**
 * What stands still at either end of a slow pull: where the level stays within its width for more than twice as long as
 * the pull as a whole takes to cross it.
 */
function endsOf(pull: Span, { levels, times, width }: Course): Piece[] {
  const long_s = times[pull.to - 1]! - times[pull.from]!;
  const crossing_s = (width * long_s) / Math.abs(levels[pull.to - 1]! - levels[pull.from]!);
  const enough_s = Math.max(LEAST_HOLD_S, 2 * crossing_s);
  const near = (level: number) => (i: number) => Math.abs(levels[i]! - level) <= width;
  const atFirst = near(median(levels.slice(pull.from, pull.from + AT_END)));
  const atLast = near(median(levels.slice(Math.max(pull.from, pull.to - AT_END), pull.to)));
  let first = pull.from;
  while (first < pull.to && atFirst(first)) first += 1;
  let last = pull.to;
  while (last > first && atLast(last - 1)) last -= 1;
  const pieces = [
    { from: pull.from, to: first, still: true },
    { from: last, to: pull.to, still: true },
  ];
  return pieces.filter(({ from, to }) => to > from && times[to - 1]! - times[from]! >= enough_s);
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
    const last = pieces.at(-1);
    if (piece.to > piece.from && last?.still && last.to === piece.from && jumps(levels, piece.from, width)) {
      // A move between two readings: the last of one plateau and the first of the next are all there is of it.
      pieces[pieces.length - 1] = { ...last, to: last.to - 1 };
      pieces.push({ from: piece.from - 1, to: piece.from + 1, still: false });
      pieces.push({ ...piece, from: piece.from + 1 });
    } else if (piece.to > piece.from) pieces.push(piece);
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

/** A move that goes nowhere is none: it belongs to the plateau beside it. */
function settled(pieces: readonly Piece[], levels: readonly number[], width: number): Piece[] {
  const out: Piece[] = [];
  pieces.forEach((piece, i) => {
    // From the plateau before it to the one behind it: a move may have no more than one reading of its own.
    const [from, to] = [Math.max(0, piece.from - 1), Math.min(levels.length - 1, piece.to)];
    const course = levels.slice(from, to + 1);
    const way = Math.max(...course) - Math.min(...course);
    const nowhere = !piece.still && way <= 3 * width;
    const before = out.at(-1);
    const goesOn = piece.still && !jumps(levels, piece.from, width);
    if (before?.still && (nowhere || goesOn)) out[out.length - 1] = { ...before, to: piece.to };
    else if (nowhere && pieces[i + 1]?.still) out.push({ ...piece, still: true });
    else out.push(piece);
  });
  return out;
}

/** Neighbours of one kind are one. */
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
