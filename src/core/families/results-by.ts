import type { Family } from '../contract/family';
import type { ResultRule } from '../contract/result-rules';
import { notTaken, type Result } from '../contract/result';
import type { ReadingItem } from '../contract/steps';
import { countKept, judgeCount } from '../metrology/count';
import { sentence } from '../quantities/sentence';
import type { RunContext } from '../contract/run-context';
import type { RunState } from '../contract/run-state';
import { judgedReading, observedResults } from '../procedure/judged';
import { captureIds, instrumentsOf, measuredItem, type ItemReading } from '../procedure/measured-item';
import { lossRate } from './loss-rate';
import { supplyHealth } from './supply-health';

/** Results of a run by the rules of its family, in the order of the steps; those with no readings yet are not taken. */
export function resultsBy(
  model: Family,
  rules: readonly ResultRule[],
  context: RunContext<unknown>,
  run: RunState,
): Result[] {
  const instruments = instrumentsOf(context.rig, context.shelf);
  const read = (id: string) => measuredItem(instruments, run, id);
  const found = rules.flatMap((rule): readonly (Result | null)[] => {
    switch (rule.of) {
      case 'looked':
        return observedResults(context, run);
      case 'item': {
        const { id, name, about = 'unit', item } = rule;
        return [judgedReading(model.expect, { id, name, about }, context, run, item)];
      }
      case 'loss': {
        const { id, name, about = 'unit', step, start, end, quantity, limit, planned_s } = rule;
        const head = { id, name, step, item: end, about, quantity };
        return [lossRate(context, read(start), read(end), head, limit, planned_s)];
      }
      case 'count':
        return [counted(context, read, rule)];
      case 'health':
        return [supplyHealth(context, run, read(rule.item), rule)];
      case 'own':
        return rule.make();
    }
  });
  const order = context.procedure.steps.map(({ id }) => id);
  return found
    .filter((result): result is Result => result !== null)
    .sort((a, b) => order.indexOf(a.step) - order.indexOf(b.step));
}

/** How many readings in a row were enough, judged against how many there must be. */
function counted(
  context: RunContext<unknown>,
  read: (id: string) => ItemReading | null,
  { id, name, about = 'unit', step, measures, least, limit }: Extract<ResultRule, { of: 'count' }>,
): Result {
  const head = { id, name, step, item: null, about, quantity: 'count' } as const;
  const items = context.procedure.steps
    .flatMap((one) => one.items)
    .filter((item): item is ReadingItem => item.kind === 'reading' && item.measures === measures);
  const made = items.flatMap((item) => read(item.id) ?? []);
  if (made.length === 0) return notTaken(head, limit.source);
  const found = countKept(made, { low: least });
  const verdict = judgeCount(found, limit.value, context.conditions.thresholds);
  const at = { least: { value: least, quantity: items[0]!.quantity } } as const;
  return {
    ...notTaken(head, limit.source),
    value: found.count,
    u: found.u,
    limits: { low: limit.value },
    verdict: verdict?.word ?? 'not-taken',
    pConform: verdict?.pConform ?? null,
    margin: verdict?.margin ?? null,
    notes: [
      verdict === null
        ? sentence('Fewer were made than are needed.')
        : found.count === made.length
          ? sentence('All of them stayed above {least}: there may be more.', at)
          : sentence('The next one fell below {least}.', at),
    ],
    gauges: [...new Set(made.map(({ instrument }) => instrument.tag))],
    captures: captureIds(...made),
  };
}

/** One reading against what is expected at it, as a rule. */
export const byItem = (
  id: string,
  item: string,
  name: string,
  about: Result['about'] = 'unit',
): ResultRule => ({ of: 'item', item, id, name, about });

/** What was lost between the readings at the start and end of a step, as a rule. */
export const byLoss = (
  id: string,
  name: string,
  loss: Pick<Extract<ResultRule, { of: 'loss' }>, 'step' | 'quantity' | 'limit' | 'planned_s'>,
): ResultRule => ({
  of: 'loss',
  id,
  name,
  start: `${loss.step}.start`,
  end: `${loss.step}.end`,
  ...loss,
});
