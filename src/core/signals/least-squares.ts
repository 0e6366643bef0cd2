import { cholesky, solve, type Matrix } from '../numeric/linear';

/** Weighted least squares: the best parameters, their covariance, and how far the points lie from them. */
export interface Fitted {
  readonly parameters: number[];
  /** Covariance, widened where the points scatter more than their weights allow, never narrowed. */
  readonly covariance: number[][];
  readonly chi2: number;
  readonly freedom: number;
}

/**
 * Fits parameters that enter linearly: Σ w·(y − Σ p_k·column_k)² least.
 *
 * @param columns one per parameter, each as long as y
 * @param weights 1/σ² of each point; 0 leaves it out
 * @returns null where the points do not tell the parameters apart
 */
export function leastSquares(
  columns: readonly ArrayLike<number>[],
  y: ArrayLike<number>,
  weights: ArrayLike<number>,
): Fitted | null {
  const n = columns.length;
  const normal = columns.map(() => new Array<number>(n).fill(0));
  const right = new Array<number>(n).fill(0);
  let points = 0;
  for (let i = 0; i < y.length; i += 1) {
    const w = weights[i]!;
    if (w === 0) continue;
    points += 1;
    for (let a = 0; a < n; a += 1) {
      const wa = w * columns[a]![i]!;
      right[a]! += wa * y[i]!;
      for (let b = 0; b <= a; b += 1) normal[a]![b]! += wa * columns[b]![i]!;
    }
  }
  if (points < n) return null;
  for (let a = 0; a < n; a += 1) for (let b = a + 1; b < n; b += 1) normal[a]![b] = normal[b]![a]!;
  const scale = normal.map((row, i) => Math.sqrt(row[i]!));
  if (scale.some((s) => !(s > 0))) return null;
  // Scaled to a unit diagonal, so that units of the parameters do not spoil the triangle.
  const unit = normal.map((row, a) => row.map((v, b) => v / (scale[a]! * scale[b]!)));
  const triangle = triangleOf(unit);
  if (!triangle) return null;
  const parameters = solve(
    triangle,
    right.map((r, a) => r / scale[a]!),
  ).map((p, a) => p / scale[a]!);
  let chi2 = 0;
  for (let i = 0; i < y.length; i += 1) {
    const w = weights[i]!;
    if (w === 0) continue;
    let off = y[i]!;
    for (let a = 0; a < n; a += 1) off -= parameters[a]! * columns[a]![i]!;
    chi2 += w * off * off;
  }
  const freedom = points - n;
  const widen = freedom > 0 ? Math.max(1, chi2 / freedom) : 1;
  const covariance = scale.map((_, b) => {
    const column = solve(
      triangle,
      scale.map((_s, a) => (a === b ? 1 : 0)),
    );
    return column.map((v, a) => (widen * v) / (scale[a]! * scale[b]!));
  });
  return { parameters, covariance, chi2, freedom };
}

/** Correlations closer to one than this tell two parameters not apart. */
const SINGULAR = 1e-11;

function triangleOf(unit: Matrix): number[][] | null {
  try {
    const triangle = cholesky(unit);
    return triangle.every((row, i) => row[i]! ** 2 > SINGULAR) ? triangle : null;
  } catch (error) {
    if (error instanceof RangeError) return null;
    throw error;
  }
}

/** Variance of Σ g_k·p_k. */
export function varianceOf(covariance: Matrix, gradient: readonly number[]): number {
  let sum = 0;
  for (let a = 0; a < gradient.length; a += 1)
    for (let b = 0; b < gradient.length; b += 1) sum += gradient[a]! * covariance[a]![b]! * gradient[b]!;
  return Math.max(0, sum);
}
