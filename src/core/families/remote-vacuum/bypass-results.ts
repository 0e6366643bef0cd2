import { permissibleError_SI } from '../../metrology/instrument';
import { combinedUncertainty } from '../../metrology/uncertainty';
import { judged } from '../../procedure/judged';
import { captureIds, type ItemReading } from '../../procedure/measured-item';
import type { RunState } from '../../procedure/run';
import { sentence, type Sentence } from '../../quantities/sentence';
import type { RunContext } from '../../twin/family';
import { notTaken, type Result, type ResultHead } from '../../twin/result';
import { gaugePairs } from './bypass';
import type { RemoteVacuumProfile } from './profile';

type Context = RunContext<RemoteVacuumProfile>;

/** What the bypass test says of the gauges, and what it says of the unit. */
export function bypassResults(context: Context, run: RunState): Result[] {
  const gaugesHead: ResultHead = {
    id: 'cross-check',
    name: 'Output gauge against input gauge',
    step: 'bypass',
    item: null,
    about: 'gauges',
    quantity: 'ratio',
  };
  const { bypass_Pa, bypass_fraction } = context.profile.limits;
  const lastRow = `bypass.${context.profile.bypassInputs_Pa.length}.output`;
  const unitHead: ResultHead = {
    id: 'bypass',
    name: 'Bypass',
    step: 'bypass',
    item: lastRow,
    about: 'unit',
    quantity: 'pressure',
  };
  const pairs = gaugePairs(context, run);
  if (pairs.length === 0) return [notTaken(gaugesHead), notTaken(unitHead, bypass_Pa.source)];
  return pairs.flatMap(({ input, output, points, check }, i) => {
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
        { ...notTaken(unit, bypass_Pa.source), notes: [sentence(why)], captures },
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
      const allowed_Pa = Math.max(bypass_Pa.value, bypass_fraction.value * worst.input.value_SI);
      const finding = {
        value: worst.output.value_SI - worst.input.value_SI,
        limits: { low: -allowed_Pa, high: allowed_Pa },
        limitSource: bypass_fraction.source,
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
        notes: scaleNotes(context, check, input, output, points),
        gauges: [input, output],
        captures,
      },
      judged(
        unit,
        {
          value: check.offset_Pa,
          limits: { low: -bypass_Pa.value, high: bypass_Pa.value },
          limitSource: bypass_Pa.source,
          terms: [],
          otherU: check.u_offset_Pa,
          notes: thresholdNotes(check),
          captures,
        },
        context,
      ),
    ];
  });
}

type Through = Extract<ReturnType<typeof gaugePairs>[number]['check'], { kind: 'through' }>;

/** Largest scale difference that the classes of both gauges allow at the highest point read. */
function classAllowance(points: readonly { input: ItemReading; output: ItemReading }[]): number {
  const top = points.reduce((most, p) => (p.input.value_SI > most.input.value_SI ? p : most));
  const share = (reading: ItemReading) =>
    (Math.sqrt(3) * combinedUncertainty([{ sensitivity: 1, measured: { ...reading, scatter_SI: 0 } }])) /
    reading.value_SI;
  return share(top.input) + share(top.output);
}

function scaleNotes(
  context: Context,
  check: Through,
  input: string,
  output: string,
  points: Parameters<typeof classAllowance>[0],
): Sentence[] {
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
        ...settledBy(context, points, input, output),
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

/** The gauge on the shelf that would tell which of two gauges is wrong: none of theirs, and fine enough to tell. */
function settledBy(
  { shelf }: Context,
  points: Parameters<typeof classAllowance>[0],
  input: string,
  output: string,
): Sentence[] {
  const top_Pa = Math.max(...points.map((point) => point.output.value_SI));
  const error = (gauge: Context['shelf'][number]) => permissibleError_SI(gauge, top_Pa);
  const inUse = shelf.find(({ tag }) => tag === output);
  const [best] = shelf
    .filter(({ tag, quantity, fullScale_Pa }) => {
      const other = tag !== input && tag !== output;
      return other && quantity === 'pressure' && fullScale_Pa >= top_Pa;
    })
    .sort((a, b) => error(a) - error(b));
  if (!best || (inUse && error(best) > error(inUse))) return [];
  return [
    sentence(
      `${best.tag} in ${output}’s place settles it: input released and both gauges at zero, change the gauge, and repeat two of these points.`,
    ),
  ];
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

/**
 * How far an absolute output may be out because the two gauges disagree by more than their classes allow: one of
 * them is wrong, and nothing here says which. 0 while they agree within class.
 */
export function gaugeDoubt_Pa(
  context: Context,
  run: RunState,
  { input, output }: { input: ItemReading; output: ItemReading },
): number {
  const pair = gaugePairs(context, run).find(
    (p) => p.input === input.instrument.tag && p.output === output.instrument.tag,
  );
  if (pair?.check.kind !== 'through') return 0;
  const disagreement = Math.abs(pair.check.slope - 1);
  return disagreement > classAllowance(pair.points) ? disagreement * output.value_SI : 0;
}
