import type { Family } from '../contract/family';
import type { Against, ResultRule } from '../contract/result-rules';
import type { Result } from '../contract/result';
import { counted } from './counted';
import { parameterResult } from './parameter-result';
import type { RunContext } from '../contract/run-context';
import type { RunState } from '../contract/run-state';
import { judgedReading, observedResults } from '../procedure/judged';
import { instrumentsOf, measuredItem } from '../procedure/measured-item';
import { BLANK } from './expectation';
import { lossRate, type Read } from './loss-rate';
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
        const { id, name, about = 'unit', item, against, says } = rule;
        const expect: Family['expect'] = against
          ? () => ({ ...BLANK, limits: against.limits, limitSource: against.source })
          : model.expect;
        return [saying(judgedReading(expect, { id, name, about }, context, run, item), says, read)];
      }
      case 'loss': {
        const { id, name, about = 'unit', step, start, end, quantity, limit, planned_s } = rule;
        const head = { id, name, step, item: end, about, quantity };
        return [lossRate(context, read(start), read(end), head, limit, planned_s)];
      }
      case 'count':
        return [counted(context, read, rule)];
      case 'parameter':
        return [parameterResult(context, read, rule)];
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

/** A result with the sentence that its rule has on what it came to. */
function saying(
  result: Result | null,
  says: Extract<ResultRule, { of: 'item' }>['says'],
  read: Read,
): Result | null {
  if (!result || !says) return result;
  const found = Object.entries(says.from).map(([name, item]) => [name, read(item)?.value_SI] as const);
  if (found.some(([, value]) => value === undefined)) return result;
  const say = says.of(result, Object.fromEntries(found) as Record<string, number>);
  return say ? { ...result, notes: [...result.notes, say] } : result;
}

/** One reading against what is expected at it, or against limits of its own, as a rule. */
export const byItem = (
  id: string,
  item: string,
  name: string,
  about: Result['about'] = 'unit',
  against?: Against,
): ResultRule => ({ of: 'item', item, id, name, about, ...(against && { against }) });

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
