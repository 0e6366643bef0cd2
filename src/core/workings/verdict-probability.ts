import { z } from 'zod';
import { conformance } from '../metrology/verdict';
import { Plot } from '../plot/plot';
import { steps } from '../plot/axes';
import { defineWorking, field } from '../contract/working';

const verdictFields = z
  .strictObject({
    value: field('Value', 'ratio', -1e6, 1e6),
    U: field('Expanded uncertainty U (k = 2)', 'ratio', 1e-9, 1e6),
    low: field('Lower limit (empty: none)', 'ratio', -1e6, 1e6).nullable(),
    high: field('Upper limit (empty: none)', 'ratio', -1e6, 1e6).nullable(),
  })
  .refine(({ low, high }) => low === null || high === null || low <= high, {
    path: ['high'],
    message: 'Upper limit: it must not be below the lower one.',
  });
type VerdictFields = z.infer<typeof verdictFields>;

function probability({ value, U, low, high }: VerdictFields): number {
  if (low === null && high === null) throw new RangeError('low: give at least one limit');
  return conformance(value, U / 2, { ...(low === null ? {} : { low }), ...(high === null ? {} : { high }) });
}

/** How probable it is that the true value keeps to its limits, given what was read and how well. */
export const verdict = defineWorking<VerdictFields>({
  name: 'verdict-probability',
  title: 'Verdict probability',
  about: 'How probable it is that the true value keeps to its limits, given what was read and how well.',
  source: 'JCGM 106, normal distribution',
  input: verdictFields,
  example: { value: 3.4, U: 0.2, low: 3.24, high: 3.96 },
  compute: (input) => [
    {
      id: 'pConform',
      name: 'Probability of keeping to the limits',
      value: probability(input),
      quantity: 'percent',
    },
  ],
  picture: (input) => {
    probability(input);
    const limits = [input.low, input.high].filter((limit) => limit !== null);
    const low = Math.min(input.value, ...limits) - 1.6 * input.U;
    const high = Math.max(input.value, ...limits) + 1.6 * input.U;
    const plot = new Plot(
      { title: 'Value', low, high },
      { title: 'Probability of keeping to the limits', low: 0, high: 1 },
    );
    plot.line(steps(low, high, 160).map((value) => [value, probability({ ...input, value })] as const));
    for (const limit of limits) plot.mark(limit, 'limit');
    plot.point(input.value, probability(input));
    return plot.svg('Probability of keeping to the limits against the value read');
  },
});
