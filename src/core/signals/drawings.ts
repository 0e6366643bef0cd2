import { at, result, type Stretch } from './analysis';
import { blocksOf } from './blocks';
import { told, untold, type Estimate } from './estimate';
import { segmentsOf, type Segment } from './segments';
import { SOME_VACUUM_PA } from './stands';
import { channelAt, type Channel, type Span, type Trace, vacuumAt } from './trace';

/** From nothing: a vacuum below this part of what is reached was not drawn before. */
const FROM_NOTHING = 0.1;
/** A source has done most of its work here, as a part of what it reaches. */
const MOSTLY = 0.9;
/** A vacuum within this part of its top stands there … */
const LEVEL_PART = 0.02;
/** … where it does so for this part of the time that it took to rise. */
const STAND_PART = 0.25;
const MOST_BLOCKS = 400;

/** Rises of a vacuum that somebody logged alone: what a pump or an engine reaches, and how soon. Handbook 9. */
export function drawings(trace: Trace): Stretch[] {
  const supply = vacuumAt(trace);
  if (!supply || channelAt(trace, 'input') || channelAt(trace, 'output')) return [];
  const segments = segmentsOf(trace, supply);
  return segments.flatMap((rise, i): Stretch[] => {
    if (rise.kind !== 'apply' || rise.end - rise.start < SOME_VACUUM_PA) return [];
    const after = segments[i + 1];
    const whole = { from: rise.from, to: after?.kind === 'hold' ? after.to : rise.to };
    const { reached, soon } = reachedBy(trace, supply, rise, whole);
    return [
      {
        kind: 'drawing',
        name: 'Vacuum drawn',
        ...at(trace, rise),
        results: [
          result('vacuum-reached', 'Vacuum reached', 'depression', reached),
          result('time-to-most', 'Time from nothing to nine tenths of it', 'duration', soon),
        ],
        lines: [],
        points: [],
        supply_Pa: null,
        notes: [],
      },
    ];
  });
}

function reachedBy(
  trace: Trace,
  supply: Channel,
  rise: Segment,
  whole: Span,
): { reached: Estimate; soon: Estimate } {
  const { means, sigma, time_s } = blocksOf(trace, [supply], whole, MOST_BLOCKS);
  const course = Array.from(means[0]!, (level, i) => ({ level, t: time_s[i]! })).filter(({ level }) =>
    Number.isFinite(level),
  );
  const top = Math.max(...course.map(({ level }) => level));
  const stand = course.filter(({ level }) => level > top - Math.max(LEVEL_PART * top, 4 * sigma[0]!));
  const rising_s = stand[0]!.t - course[0]!.t;
  if (stand.at(-1)!.t - stand[0]!.t < STAND_PART * rising_s) {
    const none = untold('The vacuum did not come to a stand at its top.', 'Let it draw until it stands.');
    return { reached: none, soon: none };
  }
  const mean = stand.reduce((sum, { level }) => sum + level, 0) / stand.length;
  const spread = Math.sqrt(stand.reduce((sum, { level }) => sum + (level - mean) ** 2, 0) / stand.length);
  const reached = told(mean, Math.max(spread, sigma[0]!), 'depression');
  if (rise.start > FROM_NOTHING * mean)
    return { reached, soon: untold('The vacuum did not begin at nothing.', 'Vent it, then let it draw.') };
  const most = course.find(({ level }) => level >= MOSTLY * mean)!;
  const block_s = course.length > 1 ? course[1]!.t - course[0]!.t : 0;
  return { reached, soon: told(most.t - trace.time_s[rise.from]!, block_s / Math.sqrt(3), 'duration') };
}
