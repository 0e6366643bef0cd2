import { adviceFor, type CloseCall } from '../metrology/advice';
import { combinedUncertainty, type Term } from '../metrology/uncertainty';
import { judge, type Limits } from '../metrology/verdict';
import type { Sentence } from '../quantities/sentence';
import type { Family } from '../contract/family';
import type { RunContext } from '../contract/run-context';
import { notTaken, type Result, type ResultHead } from '../contract/result';
import { instrumentsOf, measuredItem } from './measured-item';
import { findItem } from '../contract/steps';
import type { RunState } from '../contract/run-state';

/** A number to be judged. */
export interface Finding {
  readonly value: number;
  readonly expected?: number | null;
  readonly limits: Limits | null;
  readonly limitSource: string;
  /** The readings it was made from, with sensitivities of value − expected. */
  readonly terms: readonly Term[];
  /** Standard uncertainty that comes from no gauge: timing, the cross-check. */
  readonly otherU?: number;
  /** Doubt about one gauge beyond its class. */
  readonly doubt?: CloseCall['doubt'];
  readonly notes?: readonly Sentence[];
  readonly captures?: readonly string[];
}

/** Judges a finding, and where it is too close to call says what would settle it. Without limits it is only noted. */
export function judged(head: ResultHead, finding: Finding, context: RunContext<unknown>): Result {
  const { value, limits, terms, otherU = 0, doubt } = finding;
  const { thresholds } = context.conditions;
  const u = Math.hypot(combinedUncertainty(terms), otherU, doubt?.u ?? 0);
  const common: Result = {
    ...notTaken(head, finding.limitSource),
    value,
    u,
    expected: finding.expected ?? null,
    limits,
    notes: finding.notes ?? [],
    gauges: [...new Set(terms.map((term) => term.measured.instrument.tag))],
    captures: finding.captures ?? [],
    verdict: 'noted',
  };
  if (!limits) return common;
  const { word, pConform, margin } = judge(value, u, limits, thresholds);
  const shelf = [
    ...new Map([...context.shelf, ...Object.values(context.rig).flat()].map((g) => [g.tag, g])).values(),
  ];
  const advice =
    word === 'close' ? adviceFor({ value, limits, terms, otherU, doubt, shelf, thresholds }) : null;
  return { ...common, verdict: word, pConform, margin, advice };
}

/** Judges one reading against what the family expects at its item. */
export function judgedReading(
  expect: Family['expect'],
  head: Omit<ResultHead, 'quantity' | 'step' | 'item'>,
  context: RunContext<unknown>,
  run: RunState,
  itemId: string,
): Result | null {
  const found = findItem(context.procedure, itemId);
  if (!found || found.item.kind !== 'reading') return null;
  const { step, item } = found;
  const full = { ...head, step: step.id, item: itemId, quantity: item.quantity };
  const expectation = expect(context, run, item);
  const reading = measuredItem(instrumentsOf(context.rig, context.shelf), run, itemId);
  if (!reading) return notTaken(full, expectation?.limitSource);
  return judged(
    full,
    {
      value: reading.value_SI,
      expected: expectation?.expected ?? null,
      limits: expectation?.limits ?? null,
      limitSource: expectation?.limitSource ?? '',
      terms: [{ sensitivity: 1, measured: reading }, ...(expectation?.terms ?? [])],
      notes: expectation?.notes ?? [],
      captures: reading.captures.map(({ id }) => id),
    },
    context,
  );
}

/** Results of everything looked at: good meets, bad fails, could not look is not taken. */
export function observedResults(context: RunContext<unknown>, run: RunState): Result[] {
  return context.procedure.steps.flatMap((step) =>
    step.items.flatMap((item): Result[] => {
      if (item.kind !== 'observation') return [];
      const head = {
        id: item.id,
        name: item.name,
        step: step.id,
        item: item.id,
        about: 'unit',
        quantity: 'ratio',
      } as const;
      const seen = run.observations[item.id];
      const answer = item.answers.find(({ id }) => id === seen?.answer);
      if (!seen || !answer) return [notTaken(head)];
      const verdict = { good: 'meets', bad: 'fails', unknown: 'not-taken' } as const;
      const words = seen.note ? `${answer.label}: ${seen.note}` : answer.label;
      return [{ ...notTaken(head), verdict: verdict[answer.finds], seen: words }];
    }),
  );
}
