import type { AssessRules, Shortfall } from '../contract/assess-rules';
import type { Family } from '../contract/family';
import type { Assessment, Result } from '../contract/result';
import type { Room, RunContext } from '../contract/run-context';
import type { RunState } from '../contract/run-state';
import { AT_ONCE, readingOf } from '../model/vectors';
import { roomOf } from '../procedure/room';
import { printNames, sentence, type Sentence } from '../quantities/sentence';

/** What a family says besides the verdicts. */
interface Circumstances {
  /** What falls short in the supply, in sentences. */
  readonly supply: readonly Sentence[];
  /** Results that must have been taken before a weak supply can be told from a weak unit. */
  readonly decisive: readonly string[];
  /** Failures and close calls that something other than the unit explains: no finding against it. */
  readonly excused: readonly string[];
}

/** A run in plain words. A supply that falls short is named as the supply; the unit is judged by what it made of it. */
export function assessRun(
  results: readonly Result[],
  { supply, decisive, excused }: Circumstances,
): Assessment {
  const ofUnit = results.filter(({ about }) => about === 'unit');
  const failing = ofUnit.filter(({ id, verdict }) => verdict === 'fails' && !excused.includes(id));
  const close = ofUnit.filter(({ id, verdict }) => verdict === 'close' && !excused.includes(id));
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
const weakSupply = (results: readonly Result[]) =>
  results.filter(({ about, verdict }) => about === 'supply' && verdict === 'fails');

/** How a health that is referred to sea level falls short: in every family the same. */
const HEALTH: Shortfall = {
  words: 'The supply would make {value} at sea level; a healthy one makes {low} or more.',
};

/** A run in plain words, by the rules of its family. */
export function assessBy(
  model: Family,
  { room, shortfalls, decisive, excuses }: AssessRules,
  context: RunContext<unknown>,
  run: RunState,
  results: readonly Result[],
): Assessment {
  const weak = weakSupply(results);
  const known: Readonly<Record<string, Shortfall>> = { 'supply-health': HEALTH, ...shortfalls };
  const supply = weak.flatMap((result) => {
    const shortfall = known[result.id];
    return (
      (shortfall && shortOf(model, context.profile, roomOf(context, run, room), result, shortfall)) ?? []
    );
  });
  return assessRun(results, { supply, decisive, excused: weak.flatMap(({ id }) => excuses[id] ?? []) });
}

/** What a supply that fails makes, and what it should, in a sentence; null without both. */
function shortOf(
  model: Family,
  profile: unknown,
  { barometer_Pa, temperature_K }: Room,
  { value, u, limits }: Result,
  { words, shows, quantity = 'depression' }: Shortfall,
): Sentence | null {
  const low = limits?.low;
  if (value === null || low === undefined) return null;
  const on = (supply_Pa: number, { reading, quantity, at }: NonNullable<Shortfall['shows']>) => {
    const inputs = { ...AT_ONCE, ...at, supply_Pa, barometer_Pa, temperature_K };
    return { value: readingOf(model, model.healthy(profile).values, inputs, reading), quantity };
  };
  return sentence(words, {
    value: { value, quantity, u, withU: true },
    low: { value: low, quantity },
    ...(shows && { here: on(value, shows), there: on(low, shows) }),
  });
}
