import type { Vector } from '../model/descriptor';
import type { HealthyUnit } from '../model/vectors';

/** Units in service lie wider than the limits of new ones: so many times. Handbook-models 12 has its benchmark drawn so. */
const IN_SERVICE = 1.5;
/** Standard deviation of what lies evenly between two limits so widened, as a part of the half-width between the limits. */
const EVEN = IN_SERVICE / Math.sqrt(3);
/** A way in which units differ by less than this part of the greatest is none. */
const NEGLIGIBLE = 1e-9;

/**
 * How healthy units differ from each other: ways that have nothing to do with one another, each by one standard deviation.
 * Units lie evenly between limits that are somewhat wider than those of new ones; where a profile bounds a combination of parameters, evenly between those outermost ones.
 */
export function spreadOf({ values, tolerances, extremes }: HealthyUnit): Vector[] {
  if (!extremes)
    return tolerances.flatMap((half, i) =>
      half === 0 ? [] : [values.map((_, j) => (i === j ? EVEN * half : 0))],
    );
  // Each parameter by a scale of its own: they are of different kinds.
  const scale = values.map((value, i) => Math.max(...extremes.map((one) => Math.abs(one[i]! - value))));
  const used = scale.flatMap((most, i) => (most > 0 ? [i] : []));
  const off = extremes.map((one) => used.map((i) => (one[i]! - values[i]!) / scale[i]!));
  const left = used.map((_, i) =>
    used.map((_one, j) => (EVEN ** 2 * off.reduce((sum, row) => sum + row[i]! * row[j]!, 0)) / off.length),
  );
  // Cholesky's triangle with the greatest variance left taken first, until there is none: one column for each way.
  const ways: Vector[] = [];
  const most = Math.max(...left.map((row, i) => row[i]!));
  for (;;) {
    const pivot = left.reduce((best, row, i) => (row[i]! > left[best]![best]! ? i : best), 0);
    const variance = left[pivot]?.[pivot] ?? 0;
    if (!(variance > NEGLIGIBLE * most)) return ways;
    const way = left.map((row) => row[pivot]! / Math.sqrt(variance));
    for (let i = 0; i < left.length; i += 1)
      for (let j = 0; j < left.length; j += 1) left[i]![j]! -= way[i]! * way[j]!;
    const whole = values.map(() => 0);
    used.forEach((i, at) => (whole[i] = way[at]! * scale[i]!));
    ways.push(whole);
  }
}
