import type { Model } from '../model/member';
import type { Vector } from '../model/descriptor';

/**
 * A unit as it may come from manufacture. Where a profile bounds a combination, somewhere between the outermost units and the middle one;
 * else each number by itself.
 *
 * @param width so many times the tolerances, at the most
 * @param random even chance from 0 to 1
 */
export function unitAsMade(
  { values, tolerances, extremes }: ReturnType<Model<unknown>['healthy']>,
  width: number,
  random: () => number,
): Vector {
  const corner = extremes?.[Math.floor(random() * extremes.length)];
  const by = width * random();
  return values.map((value, i) =>
    corner ? value + by * (corner[i]! - value) : value + width * (2 * random() - 1) * tolerances[i]!,
  );
}
