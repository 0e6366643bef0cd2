import { supplied } from '../contract/sources';
import type { Family } from '../contract/family';
import type { Keep, Keeps, Limit, Shown } from '../contract/keeps';
import type { Expectation } from '../contract/result';
import type { RunContext } from '../contract/run-context';
import type { RunState } from '../contract/run-state';
import { findItem, holdStart, type ReadingItem } from '../contract/steps';
import type { Limits } from '../metrology/verdict';
import { instrumentsOf, measuredItem } from '../procedure/measured-item';
import { predict, type Prediction } from '../procedure/predict';

interface Kept {
  readonly limits: Limits;
  readonly source: string;
}

/** What a family adds to an expectation that no rule says: a correction between two gauges, a word beforehand. */
export type Also<Profile> = (
  model: Family,
  context: RunContext<Profile>,
  run: RunState,
  item: ReadingItem,
  prediction: Prediction,
) => Pick<Expectation, 'gaugeScale' | 'notes'>;

/** An expectation of which nothing is known. */
export const BLANK = {
  expected: null,
  limits: null,
  limitSource: '',
  terms: [],
  gaugeScale: null,
  notes: [],
};

/**
 * What a healthy unit shows at an item and what its reading must keep to, before it is taken: the rules of a family, read by
 * one engine.
 *
 * @returns null where nothing is known: no reading of the twin, or a source that is on and was not read
 */
export function expectBy<Profile>(
  model: Family,
  keeps: Keeps<Profile>,
  context: RunContext<Profile>,
  run: RunState,
  item: ReadingItem,
  also?: Also<Profile>,
): Expectation | null {
  const { profile, procedure } = context;
  if (item.measures === 'zero') return { ...BLANK, expected: 0 };
  if (item.measures === 'supply') {
    // Shut off, it is what is stored that is read: nothing is asked of the source then.
    const step = findItem(procedure, item.id)?.step;
    const off = step !== undefined && !supplied(step.state);
    const need = off ? null : keeps.supply(profile, item);
    return need && { ...BLANK, limits: { low: need.value }, limitSource: need.source };
  }
  const keep = keeps.readings[item.measures] ?? keeps.otherwise;
  const prediction = predict(model, context, run, item);
  const start = startOfHold(context, run, item);
  const kept = limitsOf(keep, profile, item, prediction, start);
  if (!prediction) return kept && { ...BLANK, limits: kept.limits, limitSource: kept.source };
  if (keep.to === 'start' && start === null) return null;
  return {
    ...BLANK,
    expected:
      start === null ? prediction.expected : start - fallOverHold(model, context, run, item, prediction),
    terms: prediction.terms,
    ...(kept ? { limits: kept.limits, limitSource: kept.source } : {}),
    ...also?.(model, context, run, item, prediction),
  };
}

/** The level that a hold began with; null where the item does not end one on its own port, or it was not read. */
function startOfHold(context: RunContext<unknown>, run: RunState, item: ReadingItem): number | null {
  const start = holdStart(context.procedure, item);
  const first = start === null ? null : findItem(context.procedure, start)?.item;
  if (first?.kind !== 'reading' || first.port !== item.port) return null;
  return measuredItem(instrumentsOf(context.rig, context.shelf), run, first.id)?.value_SI ?? null;
}

/** Fall that a healthy unit shows over a hold: its start less its end, both predicted. */
function fallOverHold(
  model: Family,
  context: RunContext<unknown>,
  run: RunState,
  item: ReadingItem,
  after: Prediction,
): number {
  const before = predict(model, context, run, { ...item, elapsed_s: 0 });
  return before ? before.expected - after.expected : 0;
}

const kept = (limits: Limits, ...says: readonly (Limit | null)[]): Kept => ({
  limits,
  source: [...new Set(says.flatMap((limit) => limit?.source ?? []))].join('; '),
});

/** @throws RangeError where the twin has no such input: nothing stands in for it */
function inputOf({ inputs }: Shown, id: string): number {
  const value = inputs[id];
  if (value === undefined) throw new RangeError(`part: the twin has no input “${id}”`);
  return value;
}

/** The limits of a rule; null where the profile says nothing, or they hang on what is not known yet. */
function limitsOf<Profile>(
  keep: Keep<Profile>,
  profile: Profile,
  item: ReadingItem,
  shown: Shown | null,
  start: number | null,
): Kept | null {
  switch (keep.to) {
    case 'noted':
      return null;
    case 'at-most':
    case 'at-least': {
      const limit = keep.limit(profile, item);
      return limit && kept(keep.to === 'at-most' ? { high: limit.value } : { low: limit.value }, limit);
    }
    case 'range': {
      const [low, high] = [keep.low(profile, item), keep.high(profile, item)];
      return low && high && kept({ low: low.value, high: high.value }, low);
    }
    case 'start': {
      const loss = keep.lossPerS(profile, item);
      return loss && start !== null ? kept({ low: start - loss.value * (item.elapsed_s ?? 0) }, loss) : null;
    }
    case 'below': {
      const by = keep.by(profile, item);
      return shown && by && kept({ low: shown.expected - by.value }, by);
    }
    case 'about': {
      const least = keep.least(profile, item);
      const part = keep.part?.limit(profile, item) ?? null;
      if (!shown || !least) return null;
      const ofInput = part ? part.value * Math.abs(inputOf(shown, keep.part!.of)) : 0;
      const allowed = Math.max(least.value, ofInput);
      const low = shown.expected - allowed;
      return kept(
        { low: keep.floor === undefined ? low : Math.max(keep.floor, low), high: shown.expected + allowed },
        part ?? least,
      );
    }
    case 'band': {
      if (!shown) return null;
      const { low, high } = shown.band;
      // Where every sound unit shows the same to the last digit no reading could be shown to keep to it: it is noted, beside what is expected.
      if (low === high) return null;
      const wider = keep.wider?.(profile, item);
      return wider
        ? kept({ low, high: high * (1 + wider.value) }, wider)
        : kept({ low, high }, ...keep.says(profile));
    }
  }
}
