import { notTaken, type Result } from '../contract/result';
import type { ResultRule } from '../contract/result-rules';
import type { RunContext } from '../contract/run-context';
import type { ReadingItem } from '../contract/steps';
import { countKept, judgeCount } from '../metrology/count';
import { captureIds } from '../procedure/measured-item';
import { sentence } from '../quantities/sentence';
import type { Read } from './loss-rate';

/** How many readings in a row were enough, judged against how many there must be. */
export function counted(
  context: RunContext<unknown>,
  read: Read,
  { id, name, about = 'unit', step, measures, least, limit }: Extract<ResultRule, { of: 'count' }>,
): Result {
  const head = { id, name, step, item: null, about, quantity: 'count' } as const;
  const items = context.procedure.steps
    .flatMap((one) => (one.id === step ? one.items : []))
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
