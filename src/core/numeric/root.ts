const MOST_ROUNDS = 100;
/** A value this small beside those at the two ends is nothing but rounding. */
const ROUNDING = 1e-13;

/**
 * Root of a function that falls as its argument rises: false position, with the value at an end that has stayed put
 * halved (Illinois algorithm), so that both ends close in. No derivative is asked for, and a bend does no harm.
 *
 * @param f falling from `low` to `high`
 * @param close the search ends where a step is smaller than this
 * @returns the end nearest to the root, where there is none between the ends
 */
export function rootOfFalling(f: (x: number) => number, low: number, high: number, close: number): number {
  let [a, b] = [low, high];
  let fa = f(a);
  if (fa <= 0) return a;
  let fb = f(b);
  if (fb >= 0) return b;
  const nothing = ROUNDING * (fa - fb);
  let last = a;
  let side = 0;
  for (let round = 0; round < MOST_ROUNDS; round += 1) {
    const x = (a * fb - b * fa) / (fb - fa);
    const fx = f(x);
    if (Math.abs(fx) <= nothing || Math.abs(x - last) < close) return x;
    last = x;
    if (fx > 0) {
      [a, fa] = [x, fx];
      if (side > 0) fb /= 2;
      side = 1;
    } else {
      [b, fb] = [x, fx];
      if (side < 0) fa /= 2;
      side = -1;
    }
  }
  return last;
}

/** So many steps bring what settles at once to rest; where they do not, it is looked for between its bounds. */
const STEPS = 6;

/**
 * Where x = next(x), for a function that falls as its argument rises, most of the time so gently that going on from what the last
 * step gave comes to rest at once. What `next` was last asked for is the place found, as nearly as it is found.
 *
 * @param close how nearly
 * @param span between what it lies, where the steps do not come to rest
 */
export function settled(
  next: (x: number) => number,
  guess: number,
  close: number,
  span: () => readonly [least: number, most: number],
): number {
  let x = guess;
  for (let step = 0; step < STEPS; step += 1) {
    const then = next(x);
    if (Math.abs(then - x) < close) return then;
    x = then;
  }
  const found = rootOfFalling((at) => next(at) - at, ...span(), close);
  next(found);
  return found;
}
