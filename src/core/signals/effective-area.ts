import { inputPart, slaveDiaphragmArea_m2, type SlaveCylinder } from '../air/diaphragm';
import { blocksOf } from './blocks';
import { told, untold, type Estimate } from './estimate';
import { median } from './noise';
import type { Channel, Span, Trace } from './trace';

export interface AreaChannels {
  readonly input: Channel;
  readonly output: Channel;
  readonly supply: Channel;
  readonly activation: Channel;
}

const MOST_BLOCKS = 1500;
const LEAST_POINTS = 5;
/** Full activation: the working side is this close to the barometer, as a part of the supply. */
const FULL = 0.03;
/** The diaphragm still moves its fluid for a moment after the working side has filled: these first points are left out. */
const SETTLING = 0.2;

/** Effective area of the diaphragm from the part of a pull at full activation. */
export function effectiveAreaOf(
  trace: Trace,
  { input, output, supply, activation }: AreaChannels,
  span: Span,
  cylinder: SlaveCylinder,
): Estimate {
  const channels = [input, output, supply, activation];
  const { means, sigma, clip } = blocksOf(trace, channels, span, MOST_BLOCKS);
  const [x, y, s, a] = means as [Float64Array, Float64Array, Float64Array, Float64Array];
  const full = Array.from(x.keys()).filter(
    (i) =>
      [x[i], y[i], s[i], a[i]].every(Number.isFinite) &&
      s[i]! > 10 * sigma[2]! &&
      a[i]! < Math.max(FULL * s[i]!, 4 * sigma[3]!) &&
      x[i]! < clip[0]! &&
      y[i]! < clip[1]!,
  );
  const used = full.slice(Math.floor(SETTLING * full.length));
  if (used.length < LEAST_POINTS)
    return untold(
      'The activation port did not reach zero: the diaphragm did not work with all of the supply.',
      'Pull on beyond runout and wait there.',
    );
  const { slaveArea_m2 } = cylinder;
  // What is left on the working side still pushes back: the diaphragm works with the difference.
  const areas = used.map((i) => slaveDiaphragmArea_m2(cylinder, x[i]!, s[i]! - a[i]!, y[i]!));
  const middle = median(areas);
  const spread = 1.4826 * median(areas.map((area) => Math.abs(area - middle)));
  const noise =
    Math.hypot(
      sigma[1]! * slaveArea_m2,
      sigma[0]! * inputPart(cylinder) * slaveArea_m2,
      Math.hypot(sigma[2]!, sigma[3]!) * middle,
    ) / median(used.map((i) => s[i]!));
  const near = areas.filter((area) => Math.abs(area - middle) <= 5 * Math.max(spread, noise));
  const mean = near.reduce((sum, area) => sum + area, 0) / near.length;
  return told(mean, Math.max(spread, noise) / Math.sqrt(near.length), 'area');
}
