import { scatterOf } from './blocks';
import { cloudOf, pointsOf, TOO_FAST, unhurried } from './branch-points';
import { told, untold, type Estimate } from './estimate';
import { kinkedLine } from './kinked-line';
import type { Channel, Span, Trace } from './trace';

/** How the rear follows the front through a proportioning or combination valve. */
export interface Proportioning {
  /** Front pressure at the split. */
  readonly split: Estimate;
  readonly slopeBefore: Estimate;
  readonly slopeBeyond: Estimate;
}

/** As for a ratio curve: means over large blocks keep the noise of the front from flattening the line. */
const MOST_BLOCKS = 250;

/** Split point and slopes of rear against front over one rising pull. Handbook 6 and 10. */
export function proportioning(trace: Trace, front: Channel, rear: Channel, span: Span): Proportioning {
  const slow = unhurried(pointsOf(trace, [front, rear], span, MOST_BLOCKS, scatterOf([front, rear], span)));
  if (!slow) return { split: TOO_FAST, slopeBefore: TOO_FAST, slopeBeyond: TOO_FAST };
  const line = kinkedLine(cloudOf(slow));
  if (!line || line.beyond >= line.slope) {
    const none = untold(
      'No split was seen: the rear follows the front to the end of this pull.',
      'Pull on to a higher pressure, with more readings on both sides of the split.',
    );
    return { split: none, slopeBefore: none, slopeBeyond: none };
  }
  return {
    split: told(line.knee, line.u.knee, 'pressure'),
    slopeBefore: told(line.slope, line.u.slope, 'ratio'),
    slopeBeyond: told(line.beyond, line.u.beyond, 'ratio'),
  };
}
