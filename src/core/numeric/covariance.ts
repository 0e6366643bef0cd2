/**
 * Cholesky's triangle L of a covariance, L·Lᵀ, in place: square, row by row, the lower triangle read and overwritten.
 *
 * @returns the natural logarithm of its determinant
 * @throws RangeError where it is not positive definite
 */
export function triangleOf(covariance: Float64Array, size: number): number {
  const l = covariance;
  let logDeterminant = 0;
  for (let i = 0; i < size; i += 1) {
    for (let j = 0; j <= i; j += 1) {
      let sum = l[i * size + j]!;
      for (let k = 0; k < j; k += 1) sum -= l[i * size + k]! * l[j * size + k]!;
      if (i !== j) l[i * size + j] = sum / l[j * size + j]!;
      else if (sum > 0) {
        l[i * size + i] = Math.sqrt(sum);
        logDeterminant += Math.log(sum);
      } else throw new RangeError(`covariance: not positive definite at row ${i}`);
    }
  }
  return logDeterminant;
}

/**
 * L⁻¹·v in place, L the first `size` rows of a triangle.
 *
 * @param stride length of a row of it
 */
export function solveForward(l: Float64Array, stride: number, size: number, v: Float64Array): void {
  for (let i = 0; i < size; i += 1) {
    let sum = v[i]!;
    for (let j = 0; j < i; j += 1) sum -= l[i * stride + j]! * v[j]!;
    v[i] = sum / l[i * stride + i]!;
  }
}

/** L⁻ᵀ·v in place. With the one before it: Σ⁻¹·v. */
export function solveBackward(l: Float64Array, stride: number, size: number, v: Float64Array): void {
  for (let i = size - 1; i >= 0; i -= 1) {
    let sum = v[i]!;
    for (let j = i + 1; j < size; j += 1) sum -= l[j * stride + i]! * v[j]!;
    v[i] = sum / l[i * stride + i]!;
  }
}

/**
 * Inverse of a covariance, and the natural logarithm of its determinant, by Cholesky's triangle. In place and without a new
 * array: it is asked for many times over. Both arrays are square, row by row.
 *
 * @param covariance symmetric and positive definite, its lower triangle read; overwritten by the triangle L of L·Lᵀ
 * @param inverse filled with the whole inverse
 * @returns ln det
 * @throws RangeError where it is not positive definite
 */
export function invertCovariance(covariance: Float64Array, size: number, inverse: Float64Array): number {
  const l = covariance;
  const logDeterminant = triangleOf(covariance, size);
  // L⁻¹ column by column into the lower triangle, then L⁻ᵀ·L⁻¹.
  for (let column = 0; column < size; column += 1)
    for (let i = column; i < size; i += 1) {
      let sum = i === column ? 1 : 0;
      for (let k = column; k < i; k += 1) sum -= l[i * size + k]! * inverse[k * size + column]!;
      inverse[i * size + column] = sum / l[i * size + i]!;
    }
  for (let i = 0; i < size; i += 1)
    for (let j = 0; j <= i; j += 1) {
      let sum = 0;
      for (let k = i; k < size; k += 1) sum += inverse[k * size + i]! * inverse[k * size + j]!;
      // Row i of L⁻¹ is still needed below its own place only in rows from i on, so that the upper triangle can hold the product.
      inverse[j * size + i] = sum;
    }
  for (let i = 0; i < size; i += 1)
    for (let j = 0; j < i; j += 1) inverse[i * size + j] = inverse[j * size + i]!;
  return logDeterminant;
}

/**
 * The inverse of a covariance to which one more unknown number of standard deviation 1 is added, in place, by Sherman and Morrison:
 * (Σ + e·eᵀ)⁻¹ = Σ⁻¹ − v·vᵀ/(1 + eᵀ·v) with v = Σ⁻¹·e.
 *
 * @param inverse square, row by row, the whole of it
 * @param effect what the number does to each of the readings that it reaches, so many of them
 * @param reached their places
 * @param v room for a row
 * @returns by how much the natural logarithm of the determinant grows: ln(1 + eᵀ·v)
 */
export function addToInverse(
  inverse: Float64Array,
  size: number,
  { effect, reached, count }: { effect: Float64Array; reached: Int32Array; count: number },
  v: Float64Array,
): number {
  let grows = 1;
  for (let i = 0; i < size; i += 1) {
    let sum = 0;
    for (let n = 0; n < count; n += 1) sum += inverse[i * size + reached[n]!]! * effect[n]!;
    v[i] = sum;
  }
  for (let n = 0; n < count; n += 1) grows += effect[n]! * v[reached[n]!]!;
  for (let i = 0; i < size; i += 1) {
    const by = v[i]! / grows;
    if (by === 0) continue;
    for (let j = 0; j <= i; j += 1)
      inverse[j * size + i] = inverse[i * size + j] = inverse[i * size + j]! - by * v[j]!;
  }
  return Math.log(grows);
}
