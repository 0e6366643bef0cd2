import { sentence, type Sentence } from '../../quantities/sentence';

/** A front pressure, and the rear one read with it, Pa. */
export interface FrontRear {
  readonly front_Pa: number;
  readonly rear_Pa: number;
}

/**
 * So far behind the front the rear lies beyond the split for certain, Pa, and so far it does not count at all: in between it
 * counts in part, or a reading that moved by a hair would move the line by bars.
 */
const BEHIND_PA = 3e5;
const BESIDE_PA = 1e5;
/** A point that counts by this much is one of those that a line needs. */
const CERTAIN = 0.5;
/** A line through fewer points than this leaves nothing to see whether it is one. */
const LEAST = 3;

const weightOf = ({ front_Pa, rear_Pa }: FrontRear) =>
  Math.min(1, Math.max(0, (front_Pa - rear_Pa - BESIDE_PA) / (BEHIND_PA - BESIDE_PA)));

/**
 * Where the rear is held back and how steeply it goes on: the least-squares line of rear against front through the points
 * beyond the split, which lies where that line meets rear = front. Handbook 6 and 10.
 *
 * @returns NaN for both where there are too few points beyond it: `moreNeeded` says so
 */
export function splitOf(pairs: readonly FrontRear[]): { readonly split_Pa: number; readonly slope: number } {
  const beyond = pairs.filter((pair) => weightOf(pair) > 0);
  if (beyond.length < LEAST) return { split_Pa: NaN, slope: NaN };
  const total = beyond.reduce((sum, pair) => sum + weightOf(pair), 0);
  const mean = (of: (pair: FrontRear) => number) =>
    beyond.reduce((sum, pair) => sum + weightOf(pair) * of(pair), 0) / total;
  const [x0, y0] = [mean(({ front_Pa }) => front_Pa), mean(({ rear_Pa }) => rear_Pa)];
  const xx = mean(({ front_Pa }) => (front_Pa - x0) ** 2);
  const xy = mean(({ front_Pa, rear_Pa }) => (front_Pa - x0) * (rear_Pa - y0));
  const slope = xy / xx;
  return { split_Pa: (y0 - slope * x0) / (1 - slope), slope };
}

/** How many more points are needed, and where, before split and slope can be told; null where there are enough. */
export function moreNeeded(pairs: readonly FrontRear[], expectedSplit_Pa: number): Sentence | null {
  const lacking = LEAST - pairs.filter((pair) => weightOf(pair) >= CERTAIN).length;
  if (lacking <= 0) return null;
  const above = Math.max(expectedSplit_Pa, ...pairs.map(({ front_Pa }) => front_Pa));
  return sentence(
    `The split is not unique with so few points beyond it: read ${lacking} more, front above {above}.`,
    { above: { value: above, quantity: 'pressure' } },
  );
}
