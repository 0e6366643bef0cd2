import { crossCheck, type BypassPoint, type CrossCheck, type VentedZeros } from '../metrology/cross-check';
import { combinedUncertainty, randomUncertainty_SI } from '../metrology/uncertainty';
import {
  instrumentsOf,
  measuredByGauge,
  measuredItem,
  ventedZero_SI,
  type ItemReading,
} from '../procedure/measured-item';
import type { RunState } from '../contract/run-state';
import type { RunContext } from '../contract/run-context';
import { passageAllows_Pa, type Passage } from '../contract/passage';

type Context = RunContext<unknown>;

/** An input and the output read with it. */
export interface PointRead {
  readonly row: string;
  readonly input: ItemReading;
  readonly output: ItemReading;
}

/** The cross-check of one input gauge with one output gauge: it belongs to those two and no others. */
export interface GaugePair {
  readonly input: string;
  readonly output: string;
  readonly points: readonly PointRead[];
  readonly check: CrossCheck;
}

/** Rows of a step that have both readings. */
export function pointsRead(context: Context, run: RunState, rows: readonly string[]): PointRead[] {
  const instruments = instrumentsOf(context.rig, context.shelf);
  return rows.flatMap((row) => {
    const input = measuredItem(instruments, run, `${row}.input`);
    const output = measuredItem(instruments, run, `${row}.output`);
    return input && output ? [{ row, input, output }] : [];
  });
}

/**
 * Rows of a passage, sorted by the two gauges that read them. A row read by both gauges of a tied pair counts for each:
 * that is how a cross-check passes from the low gauge to the high one. Handbook 5.
 */
export function gaugePairs(passage: Passage, context: Context, run: RunState): GaugePair[] {
  const instruments = instrumentsOf(context.rig, context.shelf);
  const points = passage.rows.flatMap((row): PointRead[] =>
    measuredByGauge(instruments, run, `${row}.input`).flatMap((input) =>
      measuredByGauge(instruments, run, `${row}.output`).map((output) => ({ row, input, output })),
    ),
  );
  const keys = new Set(points.map((p) => JSON.stringify([p.input.instrument.tag, p.output.instrument.tag])));
  const pairs = [...keys].map((key): GaugePair => {
    const [input, output] = JSON.parse(key) as [string, string];
    const mine = points.filter((p) => p.input.instrument.tag === input && p.output.instrument.tag === output);
    const check = crossCheck(mine.map(asBypassPoint), zerosOf(run, mine), (input_Pa) =>
      passageAllows_Pa(passage, input_Pa),
    );
    return { input, output, points: mine, check };
  });
  const told = new Set(
    pairs.flatMap(({ check, points: own }) =>
      check.kind === 'undetermined' ? [] : own.map(({ row }) => row),
    ),
  );
  // Too few readings with one gauge more are no gap where another pair has told of the same rows.
  return pairs.filter(
    ({ check, points: own }) => check.kind !== 'undetermined' || own.some(({ row }) => !told.has(row)),
  );
}

const asBypassPoint = ({ input, output }: PointRead): BypassPoint => ({
  input_Pa: input.value_SI,
  output_Pa: output.value_SI,
  u_input_Pa: randomUncertainty_SI({ ...input, zeroed: false }),
  u_output_Pa: randomUncertainty_SI({ ...output, zeroed: false }),
});

function zerosOf(run: RunState, points: readonly PointRead[]): VentedZeros | null {
  const [first] = points;
  if (!first) return null;
  const session = first.input.captures[0]!.session;
  const input_Pa = ventedZero_SI(run, first.input.instrument.tag, session);
  const output_Pa = ventedZero_SI(run, first.output.instrument.tag, session);
  if (input_Pa === null || output_Pa === null) return null;
  const { u_input_Pa, u_output_Pa } = asBypassPoint(first);
  return { input_Pa, output_Pa, u_input_Pa, u_output_Pa };
}

/** Whether a cross-check holds at these readings: it reaches from the vented zero to the highest point read, no further. */
export const covers = (check: CrossCheck, input_Pa: number, output_Pa: number): boolean =>
  check.kind === 'through' && input_Pa <= check.covered.input_Pa && output_Pa <= check.covered.output_Pa;

/** Largest scale difference that the classes of both gauges allow at the highest point read. */
export function classAllowance(points: readonly Pick<PointRead, 'input' | 'output'>[]): number {
  const top = points.reduce((most, p) => (p.input.value_SI > most.input.value_SI ? p : most));
  return shareOf(top.input) + shareOf(top.output);
}

/** What a gauge may be out at a reading by its class, as a part of that. */
export const shareOf = (reading: ItemReading): number =>
  (Math.sqrt(3) * combinedUncertainty([{ sensitivity: 1, measured: { ...reading, scatter_SI: 0 } }])) /
  reading.value_SI;
