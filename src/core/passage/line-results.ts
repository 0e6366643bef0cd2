import type { Family } from '../contract/family';
import type { Limit } from '../contract/keeps';
import type { Passage } from '../contract/passage';
import { notTaken, type Result, type ResultHead } from '../contract/result';
import type { RunContext } from '../contract/run-context';
import type { RunState } from '../contract/run-state';
import { findItem } from '../contract/steps';
import { combinedUncertainty, type Term } from '../metrology/uncertainty';
import { judged, judgedReading } from '../procedure/judged';
import { captureIds } from '../procedure/measured-item';
import { sentence } from '../quantities/sentence';
import { gaugePairs, pointsRead } from './gauge-pairs';
import type { LineFound } from './line';
import { gaugeDoubt_Pa } from './third-gauge';

type Context = RunContext<unknown>;

/** What a line is judged against: its slope, or output over input at the highest point, whichever the limit is for. */
export interface LineLimit {
  readonly step: string;
  readonly expected: number;
  readonly part: Limit;
  readonly limitFor: 'slope' | 'at-input';
  readonly names: {
    readonly slope: readonly [id: string, name: string];
    readonly atInput: readonly [id: string, name: string];
  };
}

/** Results of outputs against inputs whose two gauges were compared on one passage. */
export class LineResults {
  constructor(
    private readonly model: Pick<Family, 'expect'>,
    private readonly passage: Passage,
    private readonly context: Context,
    private readonly run: RunState,
  ) {}

  /** Output of each row against the twin, on the scale that the cross-check found. */
  rows(line: LineFound, rows: readonly string[]): (Result | null)[] {
    return rows.map((row, i) => {
      const used = line.used.some((point) => point.row === row);
      return this.outputAt(row, `${row}-output`, `Output at input ${i + 1}`, used ? line.correction : null);
    });
  }

  /**
   * One output against the twin. Below the knee a cross-check puts both readings on one scale, so the gauges' own
   * errors leave the residual; above it the output is judged as read, and where the two gauges disagree by more than
   * their classes that disagreement is doubt in the reading.
   */
  outputAt(row: string, id: string, name: string, correction: number | null = null): Result | null {
    const { model, passage, context, run } = this;
    const plain = judgedReading(model.expect, { id, name, about: 'unit' }, context, run, `${row}.output`);
    const [point] = pointsRead(context, run, [row]);
    if (!plain || !point || plain.verdict === 'not-taken' || plain.expected === null) return plain;
    const pair = gaugePairs(passage, context, run).find(
      (p) => p.input === point.input.instrument.tag && p.output === point.output.instrument.tag,
    );
    if (pair?.check.kind !== 'through') return plain;
    const { check } = pair;
    const found = findItem(context.procedure, `${row}.output`)?.item;
    const expectation = found?.kind === 'reading' ? model.expect(context, run, found) : null;
    if (!expectation) return plain;
    const base = {
      expected: plain.expected,
      limits: plain.limits,
      limitSource: plain.limitSource,
      captures: plain.captures,
    };
    if (correction !== null) {
      const value = point.output.value_SI / correction;
      const terms: Term[] = [
        { sensitivity: 1 / correction, sharedSensitivity: 0, measured: point.output },
        ...expectation.terms.map((term) =>
          term.measured.instrument.tag === point.input.instrument.tag
            ? { ...term, sharedSensitivity: 0 }
            : term,
        ),
      ];
      const note = sentence('Read {read}; on the scale of the input gauge that is {value}.', {
        read: { value: point.output.value_SI, quantity: 'pressure' },
        value: { value, quantity: 'pressure' },
      });
      const notes = check.scaleDiffers ? [...plain.notes, note] : plain.notes;
      return judged(
        plain,
        { ...base, value, terms, otherU: (value * check.u_slope) / check.slope, notes },
        context,
      );
    }
    const doubt_Pa = gaugeDoubt_Pa(passage, context, run, point);
    if (doubt_Pa === 0) return plain;
    const note = sentence(
      'The two gauges disagree by {doubt} here and one of them is out of class: that doubt is in U.',
      {
        doubt: { value: doubt_Pa, quantity: 'pressure' },
      },
    );
    const terms: Term[] = [{ sensitivity: 1, measured: point.output }, ...expectation.terms];
    return judged(
      plain,
      {
        ...base,
        value: point.output.value_SI,
        terms,
        doubt: { instrument: point.output.instrument.tag, u: doubt_Pa / Math.sqrt(3) },
        notes: [...plain.notes, note],
      },
      context,
    );
  }

  /** The line as a slope and as out/in at an input: both by name, and the profile says which one its limit is for. */
  slopes(line: LineFound, { step, expected, part, limitFor, names }: LineLimit): Result[] {
    const { context } = this;
    const { value, source } = part;
    const range = { low: expected * (1 - value), high: expected * (1 + value) };
    const head = ([id, name]: readonly [string, string]): ResultHead => ({
      id,
      name,
      step,
      item: null,
      about: 'unit',
      quantity: 'ratio',
    });
    const captures = line.used.flatMap((point) => captureIds(point.input, point.output));
    const finding = (limited: boolean) => ({
      limits: limited ? range : null,
      limitSource: limited ? source : '',
      expected: limited ? expected : null,
      captures,
    });
    const { slope, atInput } = line;
    const [slopeHead, inputHead] = [head(names.slope), head(names.atInput)];
    return [
      slope
        ? judged(slopeHead, { ...finding(limitFor === 'slope'), ...slope, notes: line.notes }, context)
        : { ...notTaken(slopeHead, source), notes: line.notes },
      atInput
        ? judged(
            inputHead,
            {
              ...finding(limitFor === 'at-input'),
              ...atInput,
              notes: [
                sentence('At {input} in.', { input: { value: atInput.input_Pa, quantity: 'pressure' } }),
              ],
            },
            context,
          )
        : notTaken(inputHead, source),
    ];
  }

  /** Gap between the release reading and the apply line at the same input, as a part of the output. */
  hysteresis(line: LineFound, step: string, row: string, { value: part, source }: Limit): Result {
    const { context, run } = this;
    const head: ResultHead = {
      id: 'hysteresis',
      name: 'Hysteresis, part of output',
      step,
      item: `${row}.output`,
      about: 'unit',
      quantity: 'percent',
    };
    const [down] = pointsRead(context, run, [row]);
    if (!down || !line.slope) return notTaken(head, source);
    const scale = line.correction ?? 1;
    const up_Pa = scale * (line.slope.intercept_Pa + line.slope.value * down.input.value_SI);
    const value = down.output.value_SI / up_Pa - 1;
    // The apply line and the release reading come from the same two gauges: only what differs from reading to reading counts.
    const relative = (term: Term): Term => ({ ...term, sharedSensitivity: 0 });
    const lineU = (combinedUncertainty(line.slope.terms.map(relative)) * down.input.value_SI * scale) / up_Pa;
    return judged(
      head,
      {
        value,
        limits: { high: part },
        limitSource: source,
        terms: [
          relative({ sensitivity: 1 / up_Pa, measured: down.output }),
          relative({ sensitivity: (-line.slope.value * scale) / up_Pa, measured: down.input }),
        ],
        otherU: lineU,
        captures: captureIds(down.input, down.output),
      },
      context,
    );
  }
}
