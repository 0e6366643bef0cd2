/** A point with independent errors on both axes. */
export interface YorkPoint {
  readonly x: number;
  readonly y: number;
  /** Standard errors, > 0: steps and scatter only, never a gauge's shared error. */
  readonly u_x: number;
  readonly u_y: number;
}

export interface YorkFit {
  readonly intercept: number;
  readonly slope: number;
  /** Standard errors at the adjusted points, not scaled by the quality of the fit. */
  readonly u_intercept: number;
  readonly u_slope: number;
  /** Weighted sum of squared residuals; expected near `count − 2`. */
  readonly chiSquare: number;
  readonly count: number;
}

const MAX_ITERATIONS = 200;

/**
 * Straight line through points with errors on both axes, uncorrelated: D. York et al., Am. J. Phys. 72 (3), 2004.
 * Parameter errors are those at the least-squares adjusted points and are not scaled by χ².
 *
 * @returns null with fewer than two distinct inputs, or where the iteration does not settle
 * @example Pearson's data with York's weights: intercept 5.47991, slope −0.480533
 */
export function yorkFit(points: readonly YorkPoint[]): YorkFit | null {
  const start = startingSlope(points);
  if (start === null) return null;
  let slope = start;
  for (let iteration = 0; iteration < MAX_ITERATIONS; iteration++) {
    const { next, fit } = yorkStep(points, slope);
    if (!Number.isFinite(next)) return null;
    const settled = Math.abs(next - slope) <= 1e-13 * Math.max(1, Math.abs(next));
    slope = next;
    if (settled) return fit;
  }
  return null;
}

function startingSlope(points: readonly YorkPoint[]): number | null {
  const n = points.length;
  if (n < 2) return null;
  const xMean = points.reduce((sum, { x }) => sum + x, 0) / n;
  const yMean = points.reduce((sum, { y }) => sum + y, 0) / n;
  const spread = points.reduce((sum, { x }) => sum + (x - xMean) ** 2, 0);
  if (spread === 0) return null;
  return points.reduce((sum, { x, y }) => sum + (x - xMean) * (y - yMean), 0) / spread;
}

function yorkStep(points: readonly YorkPoint[], slope: number): { next: number; fit: YorkFit } {
  const weights = points.map(({ u_x, u_y }) => 1 / (u_y ** 2 + (slope * u_x) ** 2));
  const total = weights.reduce((sum, w) => sum + w, 0);
  const mean = (of: (point: YorkPoint) => number) =>
    points.reduce((sum, point, i) => sum + weights[i]! * of(point), 0) / total;
  const xMean = mean(({ x }) => x);
  const yMean = mean(({ y }) => y);
  let above = 0;
  let below = 0;
  const adjusted: number[] = [];
  points.forEach(({ x, y, u_x, u_y }, i) => {
    const U = x - xMean;
    const V = y - yMean;
    const beta = weights[i]! * (U * u_y ** 2 + slope * V * u_x ** 2);
    above += weights[i]! * beta * V;
    below += weights[i]! * beta * U;
    adjusted.push(xMean + beta);
  });
  const next = above / below;
  const intercept = yMean - next * xMean;
  const adjustedMean = adjusted.reduce((sum, x, i) => sum + weights[i]! * x, 0) / total;
  const spread = adjusted.reduce((sum, x, i) => sum + weights[i]! * (x - adjustedMean) ** 2, 0);
  const u_slope = Math.sqrt(1 / spread);
  return {
    next,
    fit: {
      intercept,
      slope: next,
      u_intercept: Math.sqrt(1 / total + (adjustedMean * u_slope) ** 2),
      u_slope,
      chiSquare: points.reduce((sum, { x, y }, i) => sum + weights[i]! * (y - intercept - next * x) ** 2, 0),
      count: points.length,
    },
  };
}

/**
 * How much the slope of a fit moves per unit of each point's y: w·(x − x̄)/Σw·(x − x̄)². Its sensitivity to the same
 * point's x is −slope times as much.
 */
export function slopeSensitivities(points: readonly YorkPoint[], slope: number): number[] {
  const weights = points.map(({ u_x, u_y }) => 1 / (u_y ** 2 + (slope * u_x) ** 2));
  const total = weights.reduce((sum, w) => sum + w, 0);
  const xMean = points.reduce((sum, { x }, i) => sum + weights[i]! * x, 0) / total;
  const spread = points.reduce((sum, { x }, i) => sum + weights[i]! * (x - xMean) ** 2, 0);
  return points.map(({ x }, i) => (weights[i]! * (x - xMean)) / spread);
}
