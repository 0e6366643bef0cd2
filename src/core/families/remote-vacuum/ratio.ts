import { randomUncertainty_SI, type Term } from '../../metrology/uncertainty';
import { slopeSensitivities, yorkFit, type YorkPoint } from '../../metrology/york';
import { findItem, type ReadingItem } from '../../contract/steps';
import { predict } from '../../procedure/predict';
import type { RunState } from '../../contract/run-state';
import { instrumentsOf, measuredItem } from '../../procedure/measured-item';
import { sentence, type Sentence } from '../../quantities/sentence';
import type { Family } from '../../contract/family';
import type { RunContext } from '../../contract/run-context';
import { covers, gaugePairs, pointsRead, type PointRead } from './bypass';
import type { RemoteVacuumProfile } from './profile';

type Context = RunContext<RemoteVacuumProfile>;

/** Boost ratio from the points below the knee, corrected by the cross-check where that holds. */
export interface RatioFound {
  /** B as a slope, with the terms of its uncertainty; null with fewer than two points below the knee. */
  readonly slope: { value: number; intercept_Pa: number; terms: readonly Term[]; otherU: number } | null;
  /** Output over input at the highest point used. */
  readonly atInput: { value: number; input_Pa: number; terms: readonly Term[]; otherU: number } | null;
  readonly used: readonly PointRead[];
  /** Scale by which the ratios were divided; null where nothing was corrected. */
  readonly correction: number | null;
  readonly notes: readonly Sentence[];
}

/**
 * Finds B. A point above the runout predicted at the supply read, or above the input at which this unit's own
 * activation gauge reached zero, is never used: there the output no longer follows B. Handbook 5.
 */
export function findRatio(model: Family, context: Context, run: RunState): RatioFound {
  const rows = context.profile.ratioInputs_Pa.map((_, i) => `ratio.${i + 1}`);
  const points = pointsRead(context, run, rows);
  const ownKnee = ownKnee_Pa(context, run);
  const notes: Sentence[] = [];
  const used = points.filter((point) => {
    const reason = whyAboveKnee(model, context, run, point, ownKnee);
    if (reason) notes.push(reason);
    return !reason;
  });
  const check = correctionOf(context, run, used, notes);
  const relative = (value: number) => (check ? (value * check.u_slope) / check.slope : 0);
  const b = check?.slope ?? 1;
  return {
    slope: slopeOf(used, b, check !== null, relative),
    atInput: atHighest(used, b, check !== null, relative),
    used,
    correction: check?.slope ?? null,
    notes,
  };
}

/** Input at which the activation gauge reached zero; null where it was not read or never did. */
function ownKnee_Pa(context: Context, run: RunState): number | null {
  const instruments = instrumentsOf(context.rig, context.shelf);
  const activation = measuredItem(instruments, run, 'runout.activation');
  const input = measuredItem(instruments, run, 'runout.input');
  if (!activation || !input) return null;
  return activation.value_SI <= context.profile.limits.fullActivation_Pa.value ? input.value_SI : null;
}

function whyAboveKnee(
  model: Family,
  context: Context,
  run: RunState,
  point: PointRead,
  ownKnee: number | null,
): Sentence | null {
  const input = { value: point.input.value_SI, quantity: 'pressure' } as const;
  const item = findItem(context.procedure, `${point.row}.output`)!.item as ReadingItem;
  const runout = predict(model, context, run, { ...item, measures: 'runoutInput' });
  if (runout && input.value > runout.expected) {
    return sentence(
      'The point at {input} in is above the runout of {runout} that the supply of {supply} gives: not used for B, since output no longer follows B there.',
      {
        input,
        runout: { value: runout.expected, quantity: 'pressure' },
        supply: { value: runout.inputs.supply_Pa!, quantity: 'depression' },
      },
    );
  }
  if (ownKnee !== null && input.value > ownKnee) {
    return sentence(
      'The point at {input} in is above {knee}, where this unit’s activation gauge reached zero: not used for B, since the assist was used up.',
      { input, knee: { value: ownKnee, quantity: 'pressure' } },
    );
  }
  return null;
}

function correctionOf(context: Context, run: RunState, used: readonly PointRead[], notes: Sentence[]) {
  const pairs = gaugePairs(context, run);
  const tags = new Set(used.map((p) => `${p.input.instrument.tag} ${p.output.instrument.tag}`));
  const [first] = used;
  if (!first) return null;
  const pair = pairs.find(
    (p) => p.input === first.input.instrument.tag && p.output === first.output.instrument.tag,
  );
  if (pairs.some((p) => p.check.kind === 'passage-fault')) {
    notes.push(
      sentence(
        'The bypass test found a passage fault, so it corrects nothing: both gauges’ own errors stay in B.',
      ),
    );
    return null;
  }
  if (tags.size > 1 || pair?.check.kind !== 'through') {
    notes.push(
      sentence(
        'No bypass test with these two gauges, so B is not corrected and both gauges’ own errors stay in it.',
      ),
    );
    return null;
  }
  const { check } = pair;
  const { covered } = check;
  if (!used.every((p) => covers(check, p.input.value_SI, p.output.value_SI))) {
    notes.push(
      sentence(
        'The bypass test compared the gauges up to {output} only, so B is not corrected and both gauges’ own errors stay in it.',
        { output: { value: covered.output_Pa, quantity: 'pressure' } },
      ),
    );
    return null;
  }
  notes.push(
    sentence(
      'Divided by {slope}, the scale of {out} over {in} in the bypass test.'
        .replace('{out}', pair.output)
        .replace('{in}', pair.input),
      {
        slope: { value: check.slope, quantity: 'ratio', u: check.u_slope, withU: true },
      },
    ),
  );
  return check;
}

function slopeOf(
  used: readonly PointRead[],
  b: number,
  corrected: boolean,
  relative: (value: number) => number,
): RatioFound['slope'] {
  const points = used.map(({ input, output }): YorkPoint => ({
    x: input.value_SI,
    y: output.value_SI / b,
    u_x: randomUncertainty_SI(input),
    u_y: randomUncertainty_SI(output) / b,
  }));
  const fit = yorkFit(points);
  if (!fit) return null;
  const weights = slopeSensitivities(points, fit.slope);
  const top = used.reduce(
    (most, point, i) => (point.input.value_SI > used[most]!.input.value_SI ? i : most),
    0,
  );
  // An equal error at every reading leaves a slope alone; what remains of a gauge's error is one of scale.
  const terms = used.flatMap(({ input, output }, i): Term[] => [
    {
      sensitivity: weights[i]! / b,
      sharedSensitivity: corrected || i !== top ? 0 : fit.slope / output.value_SI,
      measured: output,
    },
    {
      sensitivity: -fit.slope * weights[i]!,
      sharedSensitivity: corrected || i !== top ? 0 : -fit.slope / input.value_SI,
      measured: input,
    },
  ]);
  return { value: fit.slope, intercept_Pa: fit.intercept, terms, otherU: relative(fit.slope) };
}

function atHighest(
  used: readonly PointRead[],
  b: number,
  corrected: boolean,
  relative: (value: number) => number,
): RatioFound['atInput'] {
  const top = [...used].sort((p, q) => q.input.value_SI - p.input.value_SI)[0];
  if (!top) return null;
  const { input, output } = top;
  const value = output.value_SI / b / input.value_SI;
  const shared = corrected ? { sharedSensitivity: 0 } : {};
  const terms: Term[] = [
    { sensitivity: 1 / b / input.value_SI, measured: output, ...shared },
    { sensitivity: -value / input.value_SI, measured: input, ...shared },
  ];
  return { value, input_Pa: input.value_SI, terms, otherU: relative(value) };
}
