/** A matrix as rows. */
export type Matrix = readonly (readonly number[])[];

/**
 * Lower triangle L with A = L·Lᵀ (Cholesky).
 *
 * @throws RangeError where A is not positive definite
 */
export function cholesky(a: Matrix): number[][] {
  const l = a.map(() => new Array<number>(a.length).fill(0));
  for (let i = 0; i < a.length; i += 1) {
    for (let j = 0; j <= i; j += 1) {
      let sum = a[i]![j]!;
      for (let k = 0; k < j; k += 1) sum -= l[i]![k]! * l[j]![k]!;
      if (i !== j) l[i]![j] = sum / l[j]![j]!;
      else if (sum > 0) l[i]![i] = Math.sqrt(sum);
      else throw new RangeError(`a: not positive definite at row ${i}`);
    }
  }
  return l;
}

/** Solves A·x = b by the triangle of A. */
export function solve(l: Matrix, b: readonly number[]): number[] {
  const x = [...b];
  for (let i = 0; i < x.length; i += 1) {
    for (let k = 0; k < i; k += 1) x[i]! -= l[i]![k]! * x[k]!;
    x[i]! /= l[i]![i]!;
  }
  for (let i = x.length - 1; i >= 0; i -= 1) {
    for (let k = i + 1; k < x.length; k += 1) x[i]! -= l[k]![i]! * x[k]!;
    x[i]! /= l[i]![i]!;
  }
  return x;
}

export const transpose = (a: Matrix): number[][] => (a[0] ?? []).map((_, j) => a.map((row) => row[j]!));

export const dot = (a: readonly number[], b: readonly number[]): number =>
  a.reduce((sum, x, i) => sum + x * b[i]!, 0);

export const times = (a: Matrix, x: readonly number[]): number[] => a.map((row) => dot(row, x));
