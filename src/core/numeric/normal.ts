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

/**
 * Quantile of Student's t with ν degrees of freedom, by the expansion in 1/ν of Abramowitz and Stegun 26.7.5 to its
 * third term: within 0.5 % for ν ≥ 10 and p up to 0.9999.
 *
 * @throws RangeError where ν is below 1
 */
export function studentQuantile(p: number, freedom: number): number {
  if (!(freedom >= 1)) throw new RangeError(`freedom: ${freedom} must be at least 1`);
  const z = normalQuantile(p);
  const first = (z ** 3 + z) / 4;
  const second = (5 * z ** 5 + 16 * z ** 3 + 3 * z) / 96;
  const third = (3 * z ** 7 + 19 * z ** 5 + 17 * z ** 3 - 15 * z) / 384;
  return z + first / freedom + second / freedom ** 2 + third / freedom ** 3;
}
