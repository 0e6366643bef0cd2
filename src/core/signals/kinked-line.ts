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

/**
 * Least squares over the place of the knee. The points are put in order once and summed from the top, so that each
 * place costs the same few steps however many points there are: all gaps are tried, then golden section about the best.
 */
function bestKnee(cloud: Cloud, w: Float64Array): { knee: number; parameters: number[] } | null {
  const sums = new Sums(cloud, w);
  const { x } = sums;
  if (x.length < 2 * LEAST_SIDE) return null;
  const [low, high] = [x[LEAST_SIDE - 1]!, x[x.length - LEAST_SIDE]!];
  if (!(high > low)) return null;
  let best = null as ReturnType<Sums['at']>;
  const stride = Math.max(1, Math.floor(x.length / KNEES));
  for (let i = LEAST_SIDE - 1; i <= x.length - LEAST_SIDE; i += stride) {
    const tried = sums.at(x[i]!);
    if (tried && (!best || tried.gain > best.gain)) best = tried;
  }
  if (!best) return null;
  const place = x.indexOf(best.knee);
  const golden = (Math.sqrt(5) - 1) / 2;
  let left = x[Math.max(LEAST_SIDE - 1, place - stride)]!;
  let right = x[Math.min(x.length - LEAST_SIDE, place + stride)]!;
  for (let i = 0; i < SHRINK; i += 1) {
    const one = sums.at(right - golden * (right - left));
    const two = sums.at(left + golden * (right - left));
    if (!one || !two) break;
    if (one.gain > two.gain) right = two.knee;
    else left = one.knee;
    const better = one.gain > two.gain ? one : two;
    if (better.gain >= best.gain) best = better;
  }
  return { knee: best.knee, parameters: best.parameters };
}

/** Weighted sums over points in order of x, from each point to the top; x and y are taken from their means. */
class Sums {
  readonly x: Float64Array;
  private readonly x0: number;
  private readonly y0: number;
  /** Σ w, Σ wx, Σ wy, Σ wxx, Σ wxy of all points from a place on. */
  private readonly above: readonly Float64Array[];

  constructor(cloud: Cloud, w: Float64Array) {
    const order = Array.from(cloud.x.keys())
      .filter((i) => w[i]! > 0)
      .sort((a, b) => cloud.x[a]! - cloud.x[b]!);
    const total = order.reduce((sum, i) => sum + w[i]!, 0);
    this.x = Float64Array.from(order, (i) => cloud.x[i]!);
    this.x0 = order.reduce((sum, i) => sum + w[i]! * cloud.x[i]!, 0) / total;
    this.y0 = order.reduce((sum, i) => sum + w[i]! * cloud.y[i]!, 0) / total;
    const n = order.length;
    this.above = Array.from({ length: 5 }, () => new Float64Array(n + 1));
    const [s, sx, sy, sxx, sxy] = this.above as [
      Float64Array,
      Float64Array,
      Float64Array,
      Float64Array,
      Float64Array,
    ];
    for (let k = n - 1; k >= 0; k -= 1) {
      const i = order[k]!;
      const [x, y, wi] = [cloud.x[i]! - this.x0, cloud.y[i]! - this.y0, w[i]!];
      s[k] = s[k + 1]! + wi;
      sx[k] = sx[k + 1]! + wi * x;
      sy[k] = sy[k + 1]! + wi * y;
      sxx[k] = sxx[k + 1]! + wi * x * x;
      sxy[k] = sxy[k + 1]! + wi * x * y;
    }
  }

  /** The fit with the knee here, and by how much Σ w·y² it explains: most gain is least squares. */
  at(knee: number): { knee: number; gain: number; parameters: number[] } | null {
    const [s, sx, sy, sxx, sxy] = this.above as [
      Float64Array,
      Float64Array,
      Float64Array,
      Float64Array,
      Float64Array,
    ];
    const j = firstAbove(this.x, knee);
    const r = knee - this.x0;
    const ramp = sx[j]! - r * s[j]!;
    const rampX = sxx[j]! - r * sx[j]!;
    const rampY = sxy[j]! - r * sy[j]!;
    const rampRamp = rampX - r * ramp;
    const right = [sy[0]!, sxy[0]!, rampY];
    const solved = solveThree([s[0]!, sx[0]!, sxx[0]!, ramp, rampX, rampRamp], right);
    if (!solved) return null;
    const [a, b, d] = solved;
    return {
      knee,
      gain: a * right[0]! + b * right[1]! + d * right[2]!,
      parameters: [a + this.y0 - b * this.x0, b, d],
    };
  }
}

function firstAbove(x: Float64Array, knee: number): number {
  let low = 0;
  let high = x.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (x[middle]! > knee) high = middle;
    else low = middle + 1;
  }
  return low;
}

/** Symmetric equations in three unknowns, by the rows of their lower triangle. */
function solveThree(
  [m00, m10, m11, m20, m21, m22]: readonly [number, number, number, number, number, number],
  [y0, y1, y2]: readonly number[],
): [number, number, number] | null {
  const l10 = m10 / m00;
  const l20 = m20 / m00;
  const d1 = m11 - l10 * m10;
  const l21 = (m21 - l20 * m10) / d1;
  const d2 = m22 - l20 * m20 - l21 * (m21 - l20 * m10);
  if (!(d1 > 1e-11 * m11 && d2 > 1e-11 * m22)) return null;
  const z1 = y1! - l10 * y0!;
  const z2 = y2! - l20 * y0! - l21 * z1;
  const c = z2 / d2;
  const b = z1 / d1 - l21 * c;
  return [y0! / m00 - l10 * b - l20 * c, b, c];
}
