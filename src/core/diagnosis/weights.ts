import { z } from 'zod';
import type { Family } from '../contract/family';

/** A change of how often a fault counts beside the others of its kind: who made it, and why. */
export const weightChangeSchema = z.strictObject({
  /** Empty gives it back the family's own. */
  weight: z
    .number('Weight: a number.')
    .min(0, 'Weight: zero or above; at zero it is left out.')
    .max(1000, 'Weight: 1 000 at the most.')
    .nullable()
    .meta({ title: 'How often it is met, as a weight; empty for the handbook’s own', quantity: 'ratio' }),
  by: z.string().trim().min(1, 'By: who says so.').max(120).meta({ title: 'By' }),
  why: z.string().trim().min(1, 'Why: what speaks for it.').max(2000).meta({ title: 'Why' }),
});
export type WeightChange = z.infer<typeof weightChangeSchema>;

/** As it stands in the journal. */
export interface WeightEntry extends WeightChange {
  readonly type: 'weighed';
  readonly fault: string;
}

/** One change of a fault's weight, and when it was made. */
export interface WeightChanged extends WeightChange {
  readonly fault: string;
  readonly at: string;
}

/** Weights that were changed, by fault, and every change that there was, the last first. */
export interface FaultWeights {
  readonly weights: Readonly<Record<string, number>>;
  readonly changes: readonly WeightChanged[];
}

/** What stands of the changes of one kind, in the order in which they were written. */
export function weightsFrom(
  written: readonly { readonly at: string; readonly entry: WeightEntry }[],
): FaultWeights {
  const weights: Record<string, number> = {};
  for (const { entry } of written) {
    if (entry.weight === null) delete weights[entry.fault];
    else weights[entry.fault] = entry.weight;
  }
  return {
    weights,
    changes: written
      .map(({ at, entry: { fault, weight, by, why } }) => ({ fault, weight, by, why, at }))
      .reverse(),
  };
}

/** Whether any fault still counts: where none does nothing could be diagnosed. */
export const anyCounts = (
  { faults }: Pick<Family, 'faults'>,
  weights: Readonly<Record<string, number>>,
): boolean => faults.some(({ id, prior }) => (weights[id] ?? prior) > 0);
