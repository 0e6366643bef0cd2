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
  return chained(
    found.filter((piece) => !goesOnBeside(piece, course)),
    course,
  );
}

/** The hand's own move goes on beside a stretch where it is no more than so many times as fast there. */
const AS_FAST = 3;

/**
 * Whether a stretch is only a part of a move that is slow enough to look level for a moment: the level goes on beside it,
 * the same way and about as fast, and faster than any hold leaks.
 */
function goesOnBeside({ from, to }: Span, { levels, times, width, reach }: Course): boolean {
  const long_s = times[to - 1]! - times[from]!;
  const rate = slopeOf(levels, times, from, to);
  if (Math.abs(rate) * long_s < GOES_PART * width || Math.abs(rate) * SLOWEST_PULL_S < reach) return false;
  const alike = (a: number, b: number) => {
    if (times[b]! - times[a]! < long_s / 2) return false;
    const beside = (levels[b]! - levels[a]!) / (times[b]! - times[a]!) / rate;
    return beside > 1 / AS_FAST && beside < AS_FAST;
  };
  let before = from;
  while (before > 0 && times[from]! - times[before]! < long_s) before -= 1;
  let after = to - 1;
  while (after < times.length - 1 && times[after]! - times[to - 1]! < long_s) after += 1;
  return alike(before, from) || alike(to - 1, after);
}

/** A stretch that stays within this part of its width does not go anywhere. */
const GOES_PART = 0.8;

/** Least-squares slope of the levels over the times. */
function slopeOf(levels: readonly number[], times: readonly number[], from: number, to: number): number {
  const count = to - from;
  let [t, y] = [0, 0];
  for (let i = from; i < to; i += 1) [t, y] = [t + times[i]! / count, y + levels[i]! / count];
  let [above, below] = [0, 0];
  for (let i = from; i < to; i += 1) {
    above += (times[i]! - t) * (levels[i]! - y);
    below += (times[i]! - t) ** 2;
  }
  return below > 0 ? above / below : 0;
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
    return drift <= 6 * width || creeps ? [whole] : chain;
  });
}

/** Whether the level changes from one reading to the next by more than it may wander: something was done in between. */
const jumps = (levels: readonly number[], at: number, width: number): boolean =>
  Math.abs(levels[at]! - levels[at - 1]!) > 3 * width;

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
