import { randomUncertainty_SI, type Term } from '../metrology/uncertainty';
import { slopeSensitivities, yorkFit, type YorkPoint } from '../metrology/york';
import type { RunState } from '../contract/run-state';
import { sentence, type Sentence } from '../quantities/sentence';
import type { RunContext } from '../contract/run-context';
import type { Passage } from '../contract/passage';
import { covers, gaugePairs, pointsRead, type PointRead } from './gauge-pairs';

type Context = RunContext<unknown>;

/** The line of outputs against inputs below a knee, corrected by the cross-check where that holds. */
export interface LineFound {
  /** Its slope, with the terms of its uncertainty; null with fewer than two points below the knee. */
  readonly slope: { value: number; intercept_Pa: number; terms: readonly Term[]; otherU: number } | null;
  /** Output over input at the highest point used. */
  readonly atInput: { value: number; input_Pa: number; terms: readonly Term[]; otherU: number } | null;
  readonly used: readonly PointRead[];
  /** Scale by which the ratios were divided; null where nothing was corrected. */
  readonly correction: number | null;
  readonly notes: readonly Sentence[];
}

/**
 * Finds the line. A point that lies beyond its knee is never used: there the output no longer follows. Handbook 5.
 *
 * @param rows those of readings that lie on it, up to the knee
 * @param beyond why a point lies beyond the knee, in a sentence; null where it does not
 */
export function findLine(
  passage: Passage,
  rows: readonly string[],
  context: Context,
  run: RunState,
  beyond: (point: PointRead) => Sentence | null,
): LineFound {
  const points = pointsRead(context, run, rows);
  const notes: Sentence[] = [];
  const used = points.filter((point) => {
    const reason = beyond(point);
    if (reason) notes.push(reason);
    return !reason;
  });
  const check = correctionOf(passage, context, run, used, notes);
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

function correctionOf(
  passage: Passage,
  context: Context,
  run: RunState,
  used: readonly PointRead[],
  notes: Sentence[],
) {
  const pairs = gaugePairs(passage, context, run);
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
): LineFound['slope'] {
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
): LineFound['atInput'] {
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
