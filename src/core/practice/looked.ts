import { SHOWS_FROM, type Fault, type Look } from '../contract/family';
import type { ObservationItem } from '../contract/steps';

/** Faults that something has, each with its severity, from 0, just begun, to 1, severe. */
export type Having = readonly (readonly [fault: Pick<Fault, 'signs'>, severity: number])[];

/**
 * What is seen where something is looked at, by the faults that it has.
 *
 * @param rate what the error rates of the look are multiplied by: 0 for one that is always right
 * @param random even chance from 0 to 1: asked once for what is seen, and once where several answers say the same
 * @returns null where no answer says it
 */
export function seenBy(
  { id, answers }: Pick<ObservationItem, 'id' | 'answers'>,
  having: Having,
  { falseAlarm, miss }: Pick<Look, 'falseAlarm' | 'miss'>,
  rate: number,
  random: () => number,
): string | null {
  const [good, bad] = (['good', 'bad'] as const).map((finds) =>
    answers.filter((one) => one.finds === finds).map((one) => one.id),
  ) as [string[], string[]];
  const signs = having.flatMap(([fault, severity]) =>
    fault.signs[id] !== undefined && severity > SHOWS_FROM ? [fault.signs[id]] : [],
  );
  const wrong = random() < rate * (signs.length > 0 ? miss : falseAlarm);
  const of = signs.length > 0 === wrong ? good : signs.length > 0 ? signs : bad;
  return of[Math.floor(random() * of.length)] ?? null;
}
