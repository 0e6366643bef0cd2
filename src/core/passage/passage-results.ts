import { judged } from '../procedure/judged';
import { captureIds } from '../procedure/measured-item';
import type { RunState } from '../contract/run-state';
import { sentence, type Sentence } from '../quantities/sentence';
import type { RunContext } from '../contract/run-context';
import { notTaken, type Result, type ResultHead } from '../contract/result';
import { passageAllows_Pa, type Passage } from '../contract/passage';
import { classAllowance, gaugePairs, type GaugePair } from './gauge-pairs';
import { exchanges, settledBy } from './third-gauge';

type Context = RunContext<unknown>;

/** What two gauges on one passage say of each other, and what they say of the passage. */
export function passageResults(passage: Passage, name: string, context: Context, run: RunState): Result[] {
  const { step, offset, part } = passage;
  const gaugesHead: ResultHead = {
    id: 'cross-check',
    name: 'Output gauge against input gauge',
    step,
    item: null,
    about: 'gauges',
    quantity: 'ratio',
  };
  const lastRow = `${passage.rows.at(-1)!}.output`;
  const unitHead: ResultHead = {
    id: step,
    name,
    step,
    item: lastRow,
    about: 'unit',
    quantity: 'pressure',
  };
  const pairs = gaugePairs(passage, context, run);
  if (pairs.length === 0) return [notTaken(gaugesHead), notTaken(unitHead, offset.source)];
  const checks = pairs.flatMap((pair, i) => {
    const { input, output, points, check } = pair;
    const suffix = i === 0 ? '' : `-${i + 1}`;
    const captures = points.flatMap((p) => captureIds(p.input, p.output));
    const gauges = { ...gaugesHead, id: gaugesHead.id + suffix, name: `${output} against ${input}` };
    const unit = { ...unitHead, id: unitHead.id + suffix, item: i === pairs.length - 1 ? lastRow : null };
    if (check.kind === 'undetermined') {
      const why =
        check.why === 'no-zero'
          ? 'The vented zero of a gauge was not read, so a gauge zero cannot be told from a threshold.'
          : 'Fewer than three bypass inputs with these two gauges: a slope cannot be told from an offset.';
      return [
        { ...notTaken(gauges), notes: [sentence(why)], captures },
        { ...notTaken(unit, offset.source), notes: [sentence(why)], captures },
      ];
    }
    if (check.kind === 'passage-fault') {
      const worst = points.reduce((most, p) =>
        p.input.value_SI - p.output.value_SI > most.input.value_SI - most.output.value_SI ? p : most,
      );
      const note = sentence(
        'Blocked passage: at {at} in only {out} came through. No two gauges disagree like that, so nothing is corrected by this test.',
        {
          at: { value: worst.input.value_SI, quantity: 'pressure' },
          out: { value: worst.output.value_SI, quantity: 'pressure' },
        },
      );
      const allowed_Pa = passageAllows_Pa(passage, worst.input.value_SI);
      const finding = {
        value: worst.output.value_SI - worst.input.value_SI,
        limits: { low: -allowed_Pa, high: allowed_Pa },
        limitSource: part.source,
        terms: [
          { sensitivity: 1, measured: worst.output },
          { sensitivity: -1, measured: worst.input },
        ],
        notes: [note],
        captures,
      };
      return [{ ...notTaken(gauges), captures }, judged(unit, finding, context)];
    }
    return [
      {
        ...notTaken(gauges),
        value: check.slope,
        u: check.u_slope,
        verdict: 'noted' as const,
        notes: scaleNotes(passage, context, run, pair, check),
        gauges: [input, output],
        captures,
      },
      judged(
        unit,
        {
          value: check.offset_Pa,
          limits: { low: -offset.value, high: offset.value },
          limitSource: offset.source,
          terms: [],
          otherU: check.u_offset_Pa,
          notes: thresholdNotes(check),
          captures,
        },
        context,
      ),
    ];
  });
  return [...checks, ...exchanges(passage, context, run).map((exchange) => exchange.result)];
}

type Through = Extract<ReturnType<typeof gaugePairs>[number]['check'], { kind: 'through' }>;

function scaleNotes(
  passage: Passage,
  context: Context,
  run: RunState,
  pair: GaugePair,
  check: Through,
): Sentence[] {
  const { input, output, points } = pair;
  const notes: Sentence[] = [];
  if (check.scaleDiffers) {
    notes.push(
      sentence(
        `${output} reads {slope} times what ${input} reads. Ratios are divided by it; absolute outputs keep ${output}’s own error.`,
        {
          slope: { value: check.slope, quantity: 'ratio', u: check.u_slope, withU: true },
        },
      ),
    );
    if (Math.abs(check.slope - 1) > classAllowance(points)) {
      notes.push(
        sentence(
          'That is more than the two classes allow together: one of the gauges is out of its class. Have both checked.',
        ),
        ...settledBy(passage, context, run, pair),
      );
    }
  } else {
    notes.push(sentence('The two gauges agree in scale within what this test can tell.'));
  }
  if (Math.abs(check.zeroDifference_Pa) > 0) {
    notes.push(
      sentence(`Vented, ${output} stood {zero} from ${input}: a gauge zero, taken off every reading.`, {
        zero: { value: check.zeroDifference_Pa, quantity: 'pressure' },
      }),
    );
  }
  return notes;
}

function thresholdNotes(check: Through): Sentence[] {
  if (!check.threshold) return [];
  return [
    sentence(
      'An offset of {offset} remains after the vented zeros are taken off: a threshold in the unit (residual or check valve, friction), not a gauge zero.',
      { offset: { value: check.offset_Pa, quantity: 'pressure', u: check.u_offset_Pa, withU: true } },
    ),
  ];
}
