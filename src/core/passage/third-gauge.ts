import { permissibleError_SI } from '../metrology/accuracy';
import { type Instrument } from '../metrology/instrument';
import { randomUncertainty_SI } from '../metrology/uncertainty';
import { exchangeId, exchangeStep } from '../procedure/exchange';
import { captureIds, instrumentsOf, measuredByGauge, type ItemReading } from '../procedure/measured-item';
import type { Step } from '../contract/steps';
import { belongs } from '../procedure/run';
import { type RunState } from '../contract/run-state';
import { sentence, type Sentence } from '../quantities/sentence';
import type { RunContext } from '../contract/run-context';
import type { Port, Settling } from '../contract/family';
import { notTaken, type Result } from '../contract/result';
import type { Passage } from '../contract/passage';
import { classAllowance, gaugePairs, shareOf, type GaugePair } from './gauge-pairs';

type Context = RunContext<unknown>;

/** Inputs of a passage that are read once more with the third gauge: the highest tell the most. */
const READ_AGAIN = 2;

/** Whether one of two gauges is out of its class for certain. */
const outOfClass = ({ check, points }: GaugePair): boolean =>
  check.kind === 'through' && check.scaleDiffers && Math.abs(check.slope - 1) > classAllowance(points);

/** The gauge on the shelf that would tell which of the two is wrong: none of theirs, and fine enough to tell. */
function thirdGauge({ shelf }: Context, { points, input, output }: GaugePair): Instrument | null {
  const top_Pa = Math.max(...points.map((point) => point.output.value_SI));
  const error = (gauge: Instrument) => permissibleError_SI(gauge, top_Pa);
  const inUse = shelf.find(({ tag }) => tag === output);
  const [best] = shelf
    .filter(({ tag, quantity, fullScale_Pa }) => {
      const other = tag !== input && tag !== output;
      return other && quantity === 'pressure' && fullScale_Pa >= top_Pa;
    })
    .sort((a, b) => error(a) - error(b));
  return best && (!inUse || error(best) <= error(inUse)) ? best : null;
}

/** What would settle which of two gauges is wrong, in a sentence; nothing once it was done. */
export function settledBy(passage: Passage, context: Context, run: RunState, pair: GaugePair): Sentence[] {
  const best = thirdGauge(context, pair);
  const told = exchanges(passage, context, run).some(
    ({ found, result: { gauges } }) =>
      found !== null && gauges.includes(pair.input) && gauges.includes(pair.output),
  );
  if (!best || told) return [];
  return [
    sentence(
      `${best.tag} in ${pair.output}’s place settles it: input released and both gauges at zero, change the gauge, and repeat two of these points.`,
    ),
  ];
}

/** The step in which a third gauge tells which of two that disagree is wrong; null where none do, or it was added. */
export function settling(
  passage: Passage,
  ports: readonly Port[],
  context: Context,
  run: RunState,
): Settling | null {
  const instruments = instrumentsOf(context.rig, context.shelf);
  const [due] = gaugePairs(passage, context, run)
    .filter(outOfClass)
    .flatMap((pair) => {
      const [out, against] = [instruments.get(pair.output), instruments.get(pair.input)];
      const fresh = thirdGauge(context, pair);
      return fresh && out && against && !run.added.includes(exchangeId({ out, in: fresh }))
        ? [{ out, against, fresh }]
        : [];
    });
  if (!due) return null;
  const { out, against, fresh } = due;
  const inputs_Pa = [...passage.inputs_Pa]
    .filter((input_Pa) => input_Pa <= against.fullScale_Pa)
    .sort((a, b) => a - b)
    .slice(-READ_AGAIN);
  const plan = { against, out, in: fresh, inputs_Pa, measures: passage.measures, after: passage.step };
  return { after: plan.after, step: exchangeStep(context, ports, plan) };
}

/** Which gauge a third one has shown to be wrong. */
export type WrongGauge = 'input' | 'output' | 'both';

interface Exchanged {
  readonly result: Result;
  /** Null while it is not told. */
  readonly found: WrongGauge | null;
}

/** What came of each exchange of gauges that belongs to the run. */
export function exchanges(passage: Passage, context: Context, run: RunState): Exchanged[] {
  return context.procedure.steps.flatMap((step): Exchanged[] =>
    step.exchange && belongs(run, step) ? [exchanged(passage, context, run, step, step.exchange)] : [],
  );
}

function exchanged(
  passage: Passage,
  context: Context,
  run: RunState,
  step: Step,
  { out, in: fresh, against }: NonNullable<Step['exchange']>,
): Exchanged {
  const instruments = instrumentsOf(context.rig, context.shelf);
  const read = (item: string, tag: string) =>
    measuredByGauge(instruments, run, item).find(({ instrument }) => instrument.tag === tag) ?? null;
  const head = {
    id: step.id,
    name: `${out} against ${fresh}`,
    step: step.id,
    item: step.items.at(-1)!.id,
    about: 'gauges' as const,
    quantity: 'ratio' as const,
  };
  const rows = step.items.flatMap(({ id }) => {
    const row = /^(.*)\.output$/.exec(id)?.[1];
    const input = row && read(`${row}.input`, against);
    const output = row && read(id, fresh);
    return input && output ? [{ input, output }] : [];
  });
  const pair = gaugePairs(passage, context, run).find((one) => one.input === against && one.output === out);
  if (rows.length < READ_AGAIN || pair?.check.kind !== 'through')
    return { result: notTaken(head), found: null };
  // Each row tells the scale of the third gauge against the one that stayed; zeros are off both.
  const scales = rows.map(({ input, output }) => output.value_SI / input.value_SI);
  const scale = scales.reduce((sum, one) => sum + one, 0) / scales.length;
  const value = pair.check.slope / scale;
  const random = rows.map(({ input, output }) =>
    Math.hypot(randomUncertainty_SI(input) / input.value_SI, randomUncertainty_SI(output) / output.value_SI),
  );
  const u_scale = Math.hypot(...random) / random.length;
  const top = rows.at(-1)!;
  const known = pair.points.at(-1)!.output;
  const agrees = (off: number, a: ItemReading, b: ItemReading) => Math.abs(off) <= shareOf(a) + shareOf(b);
  const stays = agrees(scale - 1, top.input, top.output);
  const taken = agrees(value - 1, known, top.output);
  const found: WrongGauge | null = stays === taken ? (stays ? null : 'both') : stays ? 'output' : 'input';
  const words = {
    output: `${fresh} agrees with ${against}: ${out} is out of its class. What was read on it keeps that doubt; read what matters again on ${fresh}.`,
    input: `${fresh} agrees with ${out}: ${against} is out of its class. Outputs stand as they were read; inputs read on ${against} do not.`,
    both: `${fresh} agrees with neither: ${against} and ${out} are both out of their class.`,
    unknown: `${fresh} agrees with both as far as their classes go: it does not tell which of them is out.`,
  };
  return {
    found,
    result: {
      ...notTaken(head),
      value,
      u: value * Math.hypot(pair.check.u_slope / pair.check.slope, u_scale),
      verdict: 'noted',
      notes: [sentence(words[found ?? 'unknown'])],
      gauges: [against, out, fresh],
      captures: rows.flatMap((row) => captureIds(row.input, row.output)),
    },
  };
}

/**
 * How far an absolute output may be out because the two gauges disagree by more than their classes allow: one of
 * them is wrong, and nothing here says which. 0 while they agree within class, and once a third gauge has shown that it
 * is not the output gauge.
 */
export function gaugeDoubt_Pa(
  passage: Passage,
  context: Context,
  run: RunState,
  { input, output }: { input: ItemReading; output: ItemReading },
): number {
  const pair = gaugePairs(passage, context, run).find(
    (p) => p.input === input.instrument.tag && p.output === output.instrument.tag,
  );
  if (pair?.check.kind !== 'through') return 0;
  const disagreement = Math.abs(pair.check.slope - 1);
  if (disagreement <= classAllowance(pair.points)) return 0;
  const cleared = exchanges(passage, context, run).some(
    ({ found, result }) => found === 'input' && result.gauges.includes(output.instrument.tag),
  );
  return cleared ? 0 : disagreement * output.value_SI;
}
