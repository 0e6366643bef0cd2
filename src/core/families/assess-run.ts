import { printNames, sentence, type Sentence } from '../quantities/sentence';
import type { Assessment, Result } from '../contract/result';

/** What a family says besides the verdicts. */
interface Circumstances {
  /** What falls short in the supply, in sentences. */
  readonly supply: readonly Sentence[];
  /** Results that must have been taken before a weak supply can be told from a weak unit. */
  readonly decisive: readonly string[];
  /** Failures that something other than the unit explains: no finding against it. */
  readonly excused: readonly string[];
}

/** A run in plain words. A supply that falls short is named as the supply; the unit is judged by what it made of it. */
export function assessRun(
  results: readonly Result[],
  { supply, decisive, excused }: Circumstances,
): Assessment {
  const ofUnit = results.filter(({ about }) => about === 'unit');
  const failing = ofUnit.filter(({ id, verdict }) => verdict === 'fails' && !excused.includes(id));
  const close = ofUnit.filter(({ verdict }) => verdict === 'close');
  const missing = ofUnit.filter(({ verdict }) => verdict === 'not-taken');
  const weak = weakSupply(results);
  const names = (list: readonly Result[]) => printNames(list.map(({ name }) => name));
  const open: Sentence[] = [
    ...(close.length ? [sentence(`Too close to call: ${names(close)}.`)] : []),
    ...(missing.length ? [sentence(`Not taken: ${names(missing)}.`)] : []),
  ];
  if (failing.length > 0) {
    return {
      call: 'faulty',
      headline: 'The unit fails',
      reasons: [sentence(`Outside its limits: ${names(failing)}.`), ...supply, ...open],
    };
  }
  if (close.length > 0) return { call: 'open', headline: 'Not settled yet', reasons: [...open, ...supply] };
  const taken = ofUnit.some(({ verdict }) => verdict === 'meets');
  const decided = decisive.every((id) => results.some((r) => r.id === id && r.verdict !== 'not-taken'));
  if (missing.length > 0 && (weak.length === 0 || !decided)) {
    return {
      call: 'incomplete',
      headline: taken ? 'So far within limits, not complete' : 'Nothing judged yet',
      reasons: [...supply, ...open],
    };
  }
  if (weak.length > 0) {
    return {
      call: 'weak-supply',
      headline: 'A healthy unit on a weak supply',
      reasons: [...supply, ...open],
    };
  }
  return { call: 'healthy', headline: 'The unit met every limit tested', reasons: [] };
}

/** Results about the supply that fail. */
export const weakSupply = (results: readonly Result[]) =>
  results.filter(({ about, verdict }) => about === 'supply' && verdict === 'fails');

/** What a supply that fails makes, and what it should: in a sentence with {value} and {low}; null without both. */
export function shortOf(result: Result, words: string, more: Sentence['values'] = {}): Sentence | null {
  const low = result.limits?.low;
  if (result.value === null || low === undefined) return null;
  return sentence(words, {
    value: { value: result.value, quantity: 'depression', u: result.u, withU: true },
    low: { value: low, quantity: 'depression' },
    ...more,
  });
}
