import type { Family } from '../contract/family';
import type { RunContext } from '../contract/run-context';
import type { RunState } from '../contract/run-state';
import { holdStart, type ReadingItem } from '../contract/steps';
import { gaugeUncertainty_SI, type Instrument } from '../metrology/instrument';
import { randomUncertainty_SI, type Measured } from '../metrology/uncertainty';
import { placeOf } from '../model/vectors';
import type { InputDoubt, SharedError } from '../twin/fit';
import { inputsAt, type Known } from './inputs-at';
import { instrumentsOf, measuredItem, type ItemReading } from './measured-item';

/** How well the moments of a hold are known, start and end together, s. */
const HOLD_TIMING_U_S = Math.SQRT2;

/** The one error of a gauge at a value. It is the same gauge as long as it was not calibrated anew. */
export const sharedBy = (gauge: Instrument, value_SI: number): SharedError => ({
  gauge: `${gauge.tag} ${gauge.calibratedOn ?? ''}`,
  u: gaugeUncertainty_SI(gauge, value_SI),
});

/** The same of a reading. */
export const sharedOf = ({ instrument, value_SI }: Measured): SharedError => sharedBy(instrument, value_SI);

/** What the twin is asked with at an item, and how each of it may be out. */
export interface AsSeen {
  readonly inputs: readonly number[];
  readonly doubts: readonly InputDoubt[];
  readonly known: readonly Known[];
}

/**
 * The inputs of the twin at an item of a run: only readings of the source that the unit itself does not pull down count, and a
 * hold is as long as it was.
 *
 * @param reading what was read at the item; null beforehand, where a hold is as long as is planned
 * @returns null where the source was not read, or the moments of a hold are not known
 */
export function asSeen(
  family: Family,
  context: RunContext<unknown>,
  run: RunState,
  item: ReadingItem,
  reading: ItemReading | null,
): AsSeen | null {
  // Before it is taken a bench's source is supposed to be as good as it must be.
  const supposed = reading ? null : context.conditions.supplyHealth_Pa;
  const known = inputsAt(family, context, run, item, 'at-rest', supposed);
  if (!known) return null;
  const doubts = known.flatMap(({ measured, item: of = '' }, input): InputDoubt[] =>
    measured ? [{ input, of, random: randomUncertainty_SI(measured), shared: sharedOf(measured) }] : [],
  );
  const inputs = known.map(({ value }) => value);
  const start = holdStart(context.procedure, item);
  if (!start || !reading) return { inputs, doubts, known };
  const held_s = secondsBetween(measuredItem(instrumentsOf(context.rig, context.shelf), run, start), reading);
  if (held_s === null) return null;
  const elapsed = placeOf(family.inputs, 'elapsed_s');
  const timing = { input: elapsed, of: `${item.id} timed`, random: HOLD_TIMING_U_S, shared: CLOCK };
  return { inputs: inputs.with(elapsed, held_s), doubts: [...doubts, timing], known };
}

const CLOCK: SharedError = { gauge: 'clock', u: 0 };

function secondsBetween(start: ItemReading | null, end: ItemReading): number | null {
  const from = start?.captures.at(-1)?.at;
  const seconds = from ? (Date.parse(end.captures.at(-1)!.at) - Date.parse(from)) / 1000 : 0;
  return seconds > 0 ? seconds : null;
}
