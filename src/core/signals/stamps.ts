import { at, result, type Stretch } from './analysis';
import { blocksOf } from './blocks';
import { stepResponse } from './step-response';
import { channelAt, indexAt, wholeOf, type Channel, type Span, type Trace } from './trace';

/** A foot that takes longer than this from a fifth of its force to four fifths presses, and does not stamp, s. */
const STAMPED_S = 0.06;
const LOW_PART = 0.2;
const HIGH_PART = 0.8;
/** So long is looked back to where all was at rest, and so long ahead, s. */
const BEFORE_S = 0.2;
const BEHIND_S = 1.5;
/** Lighter than this is no stamp, N. */
const LEAST_N = 30;

/** Where a pressure is read behind the pedal, the first of them that was logged, and how its results are called. */
const BEHIND = [
  { ports: ['output', 'front'], id: 'stamp', of: '' },
  { ports: ['rear'], id: 'stamp-rear', of: ', rear' },
  ...(['front-left', 'front-right', 'rear-left', 'rear-right'] as const).map((wheel) => ({
    ports: [wheel],
    id: `stamp-${wheel}`,
    of: `, ${wheel.replace('-', ' ')}`,
  })),
] as const;

/** Stamps on a pedal, and how each pressure behind it answers. */
export function stampsIn(trace: Trace): Stretch[] {
  const pedal = channelAt(trace, 'pedal');
  if (pedal?.quantity !== 'force') return [];
  return stampsOn(trace, pedal).flatMap((span) => {
    const results = BEHIND.flatMap(({ ports, id, of }) => {
      const behind = ports
        .map((port) => channelAt(trace, port))
        .find((channel) => channel?.quantity === 'pressure');
      if (!behind) return [];
      const { delay, rise, time, overshoot } = stepResponse(trace, pedal, behind, span);
      return [
        result(id, `Pressure there after a stamp${of}`, 'duration', time),
        result(`${id}-delay`, `Until it begins${of}`, 'duration', delay),
        result(`${id}-rise`, `From a tenth to nine tenths${of}`, 'duration', rise),
        result(`${id}-overshoot`, `Beyond what it comes to${of}`, 'percent', overshoot),
      ];
    });
    return results.length === 0
      ? []
      : [
          {
            kind: 'stamp',
            name: 'Stamp on the pedal',
            ...at(trace, span),
            results,
            lines: [],
            points: [],
            supply_Pa: null,
            notes: [],
          } satisfies Stretch,
        ];
  });
}

/** Below this part of the greatest force it is being let go. */
const LET_GO_PART = 0.5;

/** From a moment before each stamp, with the foot off, until it is let go. */
function stampsOn(trace: Trace, pedal: Channel): Span[] {
  const { time_s } = trace;
  // Every reading, a spike put right.
  const values = blocksOf(trace, [pedal], wholeOf(trace), time_s.length).means[0]!;
  const spans: Span[] = [];
  for (let i = 1; i < values.length; i += 1) {
    if (!(values[i]! > LEAST_N && values[i - 1]! <= LEAST_N)) continue;
    const last = indexAt({ time_s }, time_s[i]! + BEHIND_S);
    let level = 0;
    let to = i;
    while (to < last && values[to]! > LET_GO_PART * level) {
      level = Math.max(level, values[to]!);
      to += 1;
    }
    const begin = indexAt({ time_s }, time_s[i]! - BEFORE_S);
    const crossed = (part: number) => {
      let place = begin;
      while (place < to - 1 && !(values[place]! >= part * level)) place += 1;
      return place;
    };
    const [low, high] = [crossed(LOW_PART), crossed(HIGH_PART)];
    // From rest: a foot that lies on the pedal is none.
    const fromRest = low > begin;
    if (fromRest && time_s[high]! - time_s[low]! <= STAMPED_S) spans.push({ from: begin, to });
    // What is wavered on the way down begins nothing.
    i = to;
  }
  return spans;
}
