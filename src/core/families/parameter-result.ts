import { notTaken, type Result } from '../contract/result';
import type { ResultRule } from '../contract/result-rules';
import type { RunContext } from '../contract/run-context';
import { judged } from '../procedure/judged';
import { captureIds, type ItemReading } from '../procedure/measured-item';
import type { Read } from './loss-rate';

/** Step of a difference, as a part of the reading. */
const STEP = 1e-4;

/** A number that several readings give together, judged against what a sound unit has. */
export function parameterResult(
  context: RunContext<unknown>,
  read: Read,
  rule: Extract<ResultRule, { of: 'parameter' }>,
): Result {
  const { id, name, about = 'unit', step, quantity, nominal, against } = rule;
  const head = { id, name, step, item: null, about, quantity } as const;
  const source = against?.source ?? nominal?.part.source ?? '';
  const readings = Object.entries(rule.from).flatMap(([known, item]): [string, ItemReading][] => {
    const reading = read(item);
    return reading ? [[known, reading]] : [];
  });
  if (readings.length < Object.keys(rule.from).length) return notTaken(head, source);
  const values = Object.fromEntries(readings.map(([known, { value_SI }]) => [known, value_SI]));
  const why = rule.unless?.(values);
  if (why) return { ...notTaken(head, source), notes: [why] };
  const value = rule.value(values);
  if (!Number.isFinite(value)) return notTaken(head, source);
  const terms = readings.map(([known, measured]) => ({
    sensitivity: slope(rule.value, values, known),
    measured,
  }));
  const doubted = rule.doubt && readings.findIndex(([known]) => known === rule.doubt!.about);
  return judged(
    head,
    {
      value,
      expected: nominal?.value ?? null,
      limits:
        against?.limits ??
        (nominal
          ? { low: nominal.value * (1 - nominal.part.value), high: nominal.value * (1 + nominal.part.value) }
          : null),
      limitSource: source,
      terms,
      ...(doubted !== undefined && {
        doubt: {
          instrument: readings[doubted]![1].instrument.tag,
          u: (rule.doubt!.off(values) / Math.sqrt(3)) * Math.abs(terms[doubted]!.sensitivity),
        },
      }),
      captures: captureIds(...readings.map(([, reading]) => reading)),
    },
    context,
  );
}

/** How the value moves with one reading, by central differences. */
function slope(
  of: (read: Readonly<Record<string, number>>) => number,
  at: Readonly<Record<string, number>>,
  known: string,
): number {
  const here = at[known]!;
  const h = STEP * (Math.abs(here) || 1);
  return (of({ ...at, [known]: here + h }) - of({ ...at, [known]: here - h })) / (2 * h);
}
