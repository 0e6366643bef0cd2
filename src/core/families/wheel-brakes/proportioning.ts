import { sentence, type Sentence } from '../../quantities/sentence';

/** A front pressure, and the rear one read with it, Pa. */
export interface FrontRear {
  readonly front_Pa: number;
  readonly rear_Pa: number;
}

/** So far must the rear stay behind the front for a point to lie beyond the split, Pa: more than two gauges differ. */
const BEHIND_PA = 2e5;
/** A line through fewer points than this leaves nothing to see whether it is one. */
const LEAST = 3;

const beyondOf = (pairs: readonly FrontRear[]) =>
  pairs.filter(({ front_Pa, rear_Pa }) => front_Pa - rear_Pa > BEHIND_PA);

/**
 * Where the rear is held back and how steeply it goes on: the least-squares line of rear against front through the points
 * beyond the split, which lies where that line meets rear = front. Handbook 6 and 10.
 *
 * @returns NaN for both where there are too few points beyond it: `moreNeeded` says so
 */
export function splitOf(pairs: readonly FrontRear[]): { readonly split_Pa: number; readonly slope: number } {
  const beyond = beyondOf(pairs);
  if (beyond.length < LEAST) return { split_Pa: NaN, slope: NaN };
  const mean = (of: (pair: FrontRear) => number) =>
    beyond.reduce((sum, pair) => sum + of(pair), 0) / beyond.length;
  const [x0, y0] = [mean(({ front_Pa }) => front_Pa), mean(({ rear_Pa }) => rear_Pa)];
  const xx = mean(({ front_Pa }) => (front_Pa - x0) ** 2);
  const xy = mean(({ front_Pa, rear_Pa }) => (front_Pa - x0) * (rear_Pa - y0));
  const slope = xy / xx;
  return { split_Pa: (y0 - slope * x0) / (1 - slope), slope };
}

/** How many more points are needed, and where, before split and slope can be told; null where there are enough. */
export function moreNeeded(pairs: readonly FrontRear[], expectedSplit_Pa: number): Sentence | null {
  const lacking = LEAST - beyondOf(pairs).length;
  if (lacking <= 0) return null;
  const above = Math.max(expectedSplit_Pa, ...pairs.map(({ front_Pa }) => front_Pa));
  return sentence(
    `The split is not unique with so few points beyond it: read ${lacking} more, front above {above}.`,
    { above: { value: above, quantity: 'pressure' } },
  );
}
