import { blocksOf } from './blocks';
import { told, untold, type Estimate } from './estimate';
import { kinkedLine, type Cloud } from './kinked-line';
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
  const { means, sigma } = blocksOf(trace, [front, rear], span, MOST_BLOCKS);
  const cloud: Cloud = { x: means[0]!, y: means[1]!, u_x: sigma[0]!, u_y: sigma[1]! };
  const line = kinkedLine(cloud);
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
