import { at } from './analysis';
import type { Segment } from './segments';
import { indexAt, type Trace } from './trace';

/** Of what stands before and after a pull in steps, so much belongs to it. */
const STAND_S = 2;
/** Who stands longer at a level holds it: what leaks meanwhile is no part of a pull. */
const LONGEST_STAND_S = 30;

/**
 * A pull or a let-down made in steps, with a stand for the eye at each level, is one. It begins and ends on a stand,
 * where there is one.
 */
export function inSteps(trace: Trace, segments: readonly Segment[]): Segment[] {
  const moves: { whole: Segment; inSteps: boolean }[] = [];
  for (const segment of segments) {
    const [before, stand] = [moves.at(-2)?.whole, moves.at(-1)?.whole];
    const goesOn =
      (segment.kind === 'apply' || segment.kind === 'release') &&
      before?.kind === segment.kind &&
      stand?.kind === 'hold' &&
      stand.to_s - stand.from_s < LONGEST_STAND_S;
    if (!goesOn) moves.push({ whole: segment, inSteps: false });
    else {
      const { to, to_s, end } = segment;
      moves.splice(-2, 2, { whole: { ...before, to, to_s, end }, inSteps: true });
    }
  }
  return moves.map(({ whole, inSteps }, i) =>
    inSteps ? fromStandToStand(trace, whole, moves[i - 1]?.whole, moves[i + 1]?.whole) : whole,
  );
}

function fromStandToStand(trace: Trace, move: Segment, before?: Segment, after?: Segment): Segment {
  const below = before?.kind === 'hold' ? before : null;
  const above = after?.kind === 'hold' ? after : null;
  const from = below ? Math.max(below.from, indexAt(trace, move.from_s - STAND_S)) : move.from;
  const to = above ? Math.min(above.to, indexAt(trace, move.to_s + STAND_S)) : move.to;
  return {
    kind: move.kind,
    from,
    to,
    ...at(trace, { from, to }),
    start: below?.end ?? move.start,
    end: above?.start ?? move.end,
  };
}
