import { leastSquares, varianceOf } from './least-squares';

/** Points with noise on both axes, of the same size for all. */
export interface Cloud {
  readonly x: Float64Array;
  readonly y: Float64Array;
  readonly u_x: number;
  readonly u_y: number;
}

/** A line with one kink: y = intercept + slope·x, beyond the knee on with another slope. */
export interface KinkedLine {
  readonly intercept: number;
  readonly slope: number;
  readonly knee: number;
  readonly beyond: number;
  /** Standard uncertainties. */
  readonly u: {
    readonly slope: number;
    readonly knee: number;
    readonly beyond: number;
    readonly kneeY: number;
  };
  /** Variance of the line before the knee at an x. */
  readonly varianceAt: (x: number) => number;
  readonly used: number;
}

/** A straight line through the same points. */
export interface PlainLine {
  readonly intercept: number;
  readonly slope: number;
  readonly u: { readonly slope: number; readonly intercept: number };
  readonly varianceAt: (x: number) => number;
  readonly chi2: number;
  readonly used: number;
}

/** A point further off than this many standard deviations is none of the line's. */
const OUTLIER = 5;
const ROUNDS = 3;
const KNEES = 48;
const LEAST_SIDE = 4;
const SHRINK = 30;

/** Straight line; what lies far off is left out and the line drawn anew. @returns null with too few points */
export function plainLine(cloud: Cloud): PlainLine | null {
  let weights: Float64Array = start(cloud);
  let slope = 1;
  let fitted = null;
  for (let round = 0; round < ROUNDS; round += 1) {
    const variance = cloud.u_y ** 2 + (slope * cloud.u_x) ** 2;
    fitted = leastSquares(
      [ones(cloud.x.length), cloud.x],
      cloud.y,
      weights.map((w) => w / variance),
    );
    if (!fitted) return null;
    const [a, b] = fitted.parameters as [number, number];
    slope = b;
    weights = keepNear(
      cloud,
      (x) => a + b * x,
      () => b,
    );
  }
  if (!fitted) return null;
  const { parameters, covariance, chi2, freedom } = fitted;
  return {
    intercept: parameters[0]!,
    slope: parameters[1]!,
    u: { slope: Math.sqrt(covariance[1]![1]!), intercept: Math.sqrt(covariance[0]![0]!) },
    varianceAt: (x) => varianceOf(covariance, [1, x]),
    chi2,
    used: freedom + 2,
  };
}

/**
 * Line with a free knee: the least squares over every place of the knee, then all four parameters together for their
 * covariance. Noise on x counts by the slope of its side (effective variance).
 *
 * @returns null where there is no knee among the points: one side has too few of them, or a straight line is as good
 */
export function kinkedLine(cloud: Cloud): KinkedLine | null {
  let weights: Float64Array = start(cloud);
  let slopes: readonly [number, number] = [1, 1];
  let found: { knee: number; parameters: number[] } | null = null;
  for (let round = 0; round < ROUNDS; round += 1) {
    const knee0: number | null = found?.knee ?? null;
    const w = weighed(cloud, weights, knee0, slopes);
    found = bestKnee(cloud, w);
    if (!found) return null;
    const { knee, parameters } = found;
    const [a, b, d] = parameters as [number, number, number];
    slopes = [b, b + d];
    weights = keepNear(
      cloud,
      (x) => a + b * x + d * Math.max(0, x - knee),
      (x) => (x > knee ? b + d : b),
    );
  }
  if (!found) return null;
  const { knee, parameters } = found;
  const w = weighed(cloud, weights, knee, slopes);
  const d = parameters[2]!;
  const ramp = cloud.x.map((x) => Math.max(0, x - knee));
  const edge = cloud.x.map((x) => (x > knee ? -d : 0));
  const last = leastSquares(
    [ones(cloud.x.length), cloud.x, ramp, edge],
    residual(cloud, parameters, knee),
    w,
  );
  if (!last) return null;
  const { covariance } = last;
  const [a, b] = parameters as [number, number];
  const u = (gradient: number[]) => Math.sqrt(varianceOf(covariance, gradient));
  // A bend that noise could make is no knee.
  if (Math.abs(d) < 4 * u([0, 0, 1, 0])) return null;
  return {
    intercept: a,
    slope: b,
    knee,
    beyond: b + d,
    u: {
      slope: u([0, 1, 0, 0]),
      knee: u([0, 0, 0, 1]),
      beyond: u([0, 1, 1, 0]),
      kneeY: u([1, knee, 0, b]),
    },
    varianceAt: (x) => varianceOf(covariance, [1, x, 0, 0]),
    used: last.freedom + 4,
  };
}

const ones = (n: number) => new Float64Array(n).fill(1);

const start = ({ x, y }: Cloud) =>
  x.map((value, i) => (Number.isFinite(value) && Number.isFinite(y[i]!) ? 1 : 0));

const residual = ({ x, y }: Cloud, [a, b, d]: number[], knee: number) =>
  y.map((value, i) => value - a! - b! * x[i]! - d! * Math.max(0, x[i]! - knee));

function weighed(
  { x, u_x, u_y }: Cloud,
  weights: Float64Array,
  knee: number | null,
  [before, after]: readonly [number, number],
): Float64Array {
  const near = 1 / (u_y ** 2 + (before * u_x) ** 2);
  const far = 1 / (u_y ** 2 + (after * u_x) ** 2);
  return weights.map((w, i) => w * (knee !== null && x[i]! > knee ? far : near));
}

function keepNear(
  { x, y, u_x, u_y }: Cloud,
  line: (x: number) => number,
  slope: (x: number) => number,
): Float64Array {
  const off = x.map((value, i) => {
    const r = (y[i]! - line(value)) / Math.hypot(u_y, slope(value) * u_x);
    return Number.isFinite(r) ? Math.abs(r) : Infinity;
  });
  const finite = off.filter(Number.isFinite).sort();
  // Where the points scatter more than their noise, far off is measured by how they scatter.
  const spread = Math.max(1, 1.4826 * (finite[finite.length >> 1] ?? 1));
  return off.map((r) => (r <= OUTLIER * spread ? 1 : 0));
}

/** Least squares over the place of the knee: a search on a grid, then golden section about the best. */
function bestKnee(cloud: Cloud, w: Float64Array): { knee: number; parameters: number[] } | null {
  const used = cloud.x.filter((_, i) => w[i]! > 0).sort();
  if (used.length < 2 * LEAST_SIDE) return null;
  const low = used[LEAST_SIDE - 1]!;
  const high = used[used.length - LEAST_SIDE]!;
  if (!(high > low)) return null;
  const at = (knee: number) => {
    const ramp = cloud.x.map((x) => Math.max(0, x - knee));
    const fitted = leastSquares([ones(cloud.x.length), cloud.x, ramp], cloud.y, w);
    return fitted && { knee, chi2: fitted.chi2, parameters: fitted.parameters };
  };
  const step = (high - low) / KNEES;
  let best = null as ReturnType<typeof at>;
  for (let i = 0; i <= KNEES; i += 1) {
    const tried = at(low + i * step);
    if (tried && (!best || tried.chi2 < best.chi2)) best = tried;
  }
  if (!best) return null;
  const golden = (Math.sqrt(5) - 1) / 2;
  let [left, right] = [Math.max(low, best.knee - step), Math.min(high, best.knee + step)];
  for (let i = 0; i < SHRINK; i += 1) {
    const one = at(right - golden * (right - left));
    const two = at(left + golden * (right - left));
    if (!one || !two) break;
    if (one.chi2 < two.chi2) right = two.knee;
    else left = one.knee;
    const better = one.chi2 < two.chi2 ? one : two;
    if (better.chi2 <= best.chi2) best = better;
  }
  return best;
}
