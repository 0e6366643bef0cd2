import type { Result } from '../contract/result';

/** One result of one judgement and the same of another; null where the other has none. */
export interface Paired {
  readonly a: Result | null;
  readonly b: Result | null;
}

/**
 * Results of two judgements of the same kind of unit, pair by pair: by their names, and what a later version calls otherwise by what was
 * read. Each stands in one pair.
 */
export function pairedResults(before: readonly Result[], after: readonly Result[]): Paired[] {
  const left = new Set(after);
  const partners = new Map<Result, Result>();
  const pair = (same: (a: Result, b: Result) => boolean) => {
    for (const a of before) {
      if (partners.has(a)) continue;
      const b = [...left].find((one) => same(a, one));
      if (!b) continue;
      partners.set(a, b);
      left.delete(b);
    }
  };
  pair((a, b) => a.id === b.id && a.step === b.step);
  pair((a, b) => a.item !== null && a.item === b.item && a.step === b.step);
  pair((a, b) => a.id === b.id);
  return [
    ...before.map((a) => ({ a, b: partners.get(a) ?? null })),
    ...[...left].map((b) => ({ a: null, b })),
  ];
}
