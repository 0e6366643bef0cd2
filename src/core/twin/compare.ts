import { studentQuantile } from '../numeric/normal';
import type { FittedParameter, TwinFit } from './fit';

/** How one parameter changed between two fits. SI. */
export interface Change {
  readonly place: number;
  readonly before: number;
  readonly u_before: number;
  readonly after: number;
  readonly u_after: number;
  /** After less before. */
  readonly change: number;
  /** Standard uncertainty of the change: an error of a gauge that read both is in both, and largely drops out. */
  readonly u_change: number;
  /** Whether the readings of each run tell how large it is: where they do not, its value and U there say nothing. */
  readonly told_before: boolean;
  readonly told_after: boolean;
  /** Whether the change is beyond the noise, or null where one of the runs does not tell this parameter. */
  readonly moved: boolean | null;
}

/** So many times its own limits one of two values has to be sharper than the change, before the other run is asked again. */
const SHARP = 3;
/** Chance that noise alone makes any one parameter of a comparison look moved. */
const FALSE_ALARM = 0.01;

/**
 * Compares two fits of the same twin. A change counts as beyond the noise where it is larger than chance would make
 * the largest of as many unmoved parameters (Šidák: 1 % over
 * the whole comparison; Student's t, since the scatter is known from as many readings as are left over).
 */
export function compareFits(before: TwinFit, after: TwinFit): Change[] {
  const told = before.parameters.filter(
    ({ place, told: known }) => known && after.parameters.find((one) => one.place === place)?.told,
  ).length;
  const freedom = before.freedom + after.freedom;
  const alarm = 1 - (1 - FALSE_ALARM) ** (1 / Math.max(1, told));
  const k = freedom >= 1 ? studentQuantile(1 - alarm / 2, freedom) : Infinity;
  return before.parameters.flatMap((a, i): Change[] => {
    const j = after.parameters.findIndex(({ place }) => place === a.place);
    const b = after.parameters[j];
    if (!b) return [];
    const change = b.value - a.value;
    const u_change = Math.sqrt(varianceOfChange(before, i, after, j));
    return [
      {
        place: a.place,
        before: a.value,
        u_before: a.u,
        after: b.value,
        u_after: b.u,
        change,
        u_change,
        told_before: a.told,
        told_after: b.told,
        moved: movedFrom(before, a, after, b, change, u_change, k),
      },
    ];
  });
}

/**
 * Whether one value cannot explain both runs. Where one of them is known far better than the other, the other run is asked
 * whether it can be explained with that value: a parameter far beyond what its readings could still show has a wide
 * uncertainty and is none the less far from zero.
 */
function movedFrom(
  before: TwinFit,
  a: FittedParameter,
  after: TwinFit,
  b: FittedParameter,
  change: number,
  u_change: number,
  k: number,
): boolean | null {
  const told = a.told && b.told;
  if (told && Math.abs(change) > k * u_change) return cannotBe(before, a, after, b, k);
  const [sharp, wide, fit] = a.u < b.u ? [a, b, after] : [b, a, before];
  const clear = sharp.told && sharp.u > 0 && Math.abs(change) > SHARP * k * sharp.u;
  if (
    clear &&
    (fit.strain(wide.place, sharp.value + k * sharp.u * Math.sign(wide.value - sharp.value)) ?? 0) > k ** 2
  )
    return true;
  return told ? false : null;
}

/**
 * Whether neither run is explained nearly as well with the other's value, the rest fitted anew: about a reading that has
 * run out, one parameter takes upon itself what another one did, and a straight line does not know it. Where no fit with
 * that value settles, there is none.
 */
function cannotBe(
  before: TwinFit,
  a: FittedParameter,
  after: TwinFit,
  b: FittedParameter,
  k: number,
): boolean {
  const isFar = (rise: number | null) => rise === null || rise > k ** 2;
  return isFar(before.strain(a.place, b.value)) && isFar(after.strain(b.place, a.value));
}

function varianceOfChange(before: TwinFit, i: number, after: TwinFit, j: number): number {
  let variance = 0;
  const named = new Map<string, number>();
  const add = ({ sources }: TwinFit, at: number, sign: number) => {
    for (const { name, effect } of sources) {
      if (name === null) variance += effect[at]! ** 2;
      else named.set(name, (named.get(name) ?? 0) + sign * effect[at]!);
    }
  };
  add(after, j, 1);
  add(before, i, -1);
  for (const effect of named.values()) variance += effect ** 2;
  return variance;
}
