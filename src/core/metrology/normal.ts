/**
 * Standard normal distribution function Φ(z).
 *
 * Marsaglia's series Φ(z) = ½ + φ(z)·(z + z³/3 + z⁵/(3·5) + …), J. Stat. Softw. 11(4), 2004. Absolute error below
 * 1e-15 for |z| ≤ 8; beyond that the answer is 0 or 1 to double precision.
 */
export function normalCdf(z: number): number {
  if (z > 8) return 1;
  if (z < -8) return 0;
  let sum = z;
  let term = z;
  for (let i = 3; Math.abs(term) > 1e-17 * Math.abs(sum); i += 2) {
    term *= (z * z) / i;
    sum += term;
  }
  return 0.5 + (sum * Math.exp((-z * z) / 2)) / Math.sqrt(2 * Math.PI);
}

/**
 * The z with Φ(z) = p, by bisection on `normalCdf`; error below 1e-12.
 *
 * @throws RangeError unless 0 < p < 1
 */
export function normalQuantile(p: number): number {
  if (!(p > 0 && p < 1)) throw new RangeError(`p: ${p} is not between 0 and 1`);
  let low = -8;
  let high = 8;
  while (high - low > 1e-12) {
    const middle = (low + high) / 2;
    if (normalCdf(middle) < p) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
