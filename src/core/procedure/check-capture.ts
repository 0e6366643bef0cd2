import { FLUIDS, mixes, type FluidKind } from '../fluid/kinds';
import { isOwnSensor } from '../metrology/accuracy';
import { supplied } from '../contract/sources';
import { permissibleError_SI, span_SI } from '../metrology/accuracy';
import { type Instrument } from '../metrology/instrument';
import { measured } from '../metrology/uncertainty';
import { printQuantity } from '../quantities/print';
import { impossibility, type ReadingRefusal } from '../quantities/reading';
import { refusalSentence } from '../quantities/refusal';
import type { UnitSet } from '../quantities/units';
import type { Family } from '../contract/family';
import type { RunContext } from '../contract/run-context';
import type { RunEventOf } from '../contract/events';
import { ventedZero_SI } from './measured-item';
import { findItem, type ReadingItem } from '../contract/steps';
import { outsideReach } from './reach';
import { countedCaptures } from './run';
import { type RunState } from '../contract/run-state';

/** What stands in the way of capturing a value. */
export interface CaptureProblem {
  /** Only asked: the value is kept once it is confirmed. Otherwise it is refused. */
  readonly asks: boolean;
  readonly say: (set: UnitSet) => string;
}

/** A value to be captured, and how it came about. */
export interface Candidate {
  readonly item: ReadingItem;
  readonly gauge: Instrument;
  readonly value_SI: number;
  readonly by: RunEventOf<'captured'>['by'];
}

/** A vented gauge this far from zero, as a part of its span, is not vented or broken. */
const NOT_VENTED_PART = 0.1;
/** A vented gauge of an accuracy that says nothing at zero is asked about beyond this part of its span. */
const DOUBTFUL_PART = 0.02;

/** What stands in the way of capturing a value, the same on the screen and on the server: null if nothing does. */
export function checkCapture(
  family: Family,
  context: RunContext<unknown>,
  run: RunState,
  candidate: Candidate,
): CaptureProblem | null {
  const { item, gauge, value_SI } = candidate;
  const port = family.ports.find(({ id }) => id === item.port)?.name ?? item.port;
  const refused = (why: ReadingRefusal): CaptureProblem => ({
    asks: false,
    say: (set) => refusalSentence(why, port, set),
  });
  const { barometer_Pa } = context.conditions;
  const impossible = impossibility(value_SI, { quantity: item.quantity, barometer_Pa });
  if (impossible) return refused(impossible);
  // Below the zero of a plain gauge its pointer may stand a little; a compound gauge ends where its scale does.
  const below = gauge.lowEnd_Pa ? value_SI < gauge.lowEnd_Pa * (1 + 1e-9) : -value_SI > gauge.fullScale_Pa;
  if (value_SI > gauge.fullScale_Pa * (1 + 1e-9) || below) {
    const { fullScale_Pa: fullScale_SI, tag: instrument } = gauge;
    return refused({ code: 'above-full-scale', value_SI, fullScale_SI, instrument, quantity: item.quantity });
  }
  const wrong =
    wrongFluid(family, context, candidate) ??
    notAGate(candidate) ??
    shutCock(context, candidate) ??
    notVented(candidate) ??
    notAsSaid(context, run, candidate);
  if (wrong) return wrong;
  // A gate is opened or left shut by what was read: however far off, that is kept.
  if (item.gate && item.gate !== 'zero') return null;
  const outside = outsideReach(
    family,
    context,
    run,
    item,
    measured([value_SI], gauge, ventedZero_SI(run, gauge.tag)),
  );
  if (!outside) return null;
  return {
    asks: true,
    say: (set) => {
      const show = (value: number) => printQuantity(value, item.quantity, set);
      return `${port}: no known fault gives ${show(value_SI)} here (${show(Math.max(0, outside.low))} to ${show(outside.high)} would be within reach). Read the gauge again.`;
    },
  };
}

/** A gauge that another fluid has wetted carries that into the unit. Handbook 2. */
function wrongFluid(
  family: Family,
  { profile }: RunContext<unknown>,
  { item, gauge }: Candidate,
): CaptureProblem | null {
  const fluid = family.fluid(profile);
  if (item.quantity !== 'pressure' || !fluid || !gauge.fluid || mixes(gauge.fluid, fluid)) return null;
  return { asks: false, say: () => wettedSentence([gauge.tag], gauge.fluid!, fluid) };
}

/** A sensor of the vehicle may be the very thing that is wrong: it shows nothing to be empty. */
const notAGate = ({ item, gauge }: Candidate): CaptureProblem | null =>
  item.gate && isOwnSensor(gauge)
    ? { asks: false, say: () => `${gauge.tag} is the vehicle’s own: read a gauge that was seen to move.` }
    : null;

/** Why some gauges may not be connected, and what to do. @param tags gauges that one fluid has wetted */
export const wettedSentence = (tags: readonly string[], holds: FluidKind, needed: FluidKind): string => {
  const one = tags.length === 1;
  return `${tags.join(', ')} and ${one ? 'its hose hold' : 'their hoses hold'} ${FLUIDS[holds]}, and this unit takes ${FLUIDS[needed]}: they must not meet. Take ${one ? 'another gauge' : 'others'}, or flush ${one ? 'it' : 'them'} and say on the Shelf what stands in ${one ? 'it' : 'them'} now.`;
};

/** A gauge with a cock reads zero behind it, whatever is in the line: a gate is read on the one without. */
function shutCock({ rig }: RunContext<unknown>, { item, gauge }: Candidate): CaptureProblem | null {
  const open = item.gate && gauge.tiedTo !== null && gaugeOfGate(rig[item.port] ?? []);
  if (!open || open.tag === gauge.tag) return null;
  return {
    asks: false,
    say: () =>
      `Read ${open.tag}: the cock of ${gauge.tag} may be shut, and it then stands at zero whatever is in the line.`,
  };
}

/** The gauge on which a gate is read: one that no cock can part from the line; null where every one has a cock. */
export const gaugeOfGate = (gauges: readonly Instrument[]): Instrument | null =>
  gauges.find((gauge) => gauge.tiedTo === null && !isOwnSensor(gauge)) ?? null;

/** A vented gauge that does not stand at zero: beyond its class it is asked about, far off it is refused. */
function notVented({ item, gauge, value_SI }: Candidate): CaptureProblem | null {
  if (item.measures !== 'zero' || item.gate) return null;
  const off = Math.abs(value_SI);
  const allowed = permissibleError_SI(gauge, 0) || DOUBTFUL_PART * span_SI(gauge);
  const shows = (set: UnitSet) => `${gauge.tag} shows ${printQuantity(value_SI, item.quantity, set)} vented`;
  if (off > NOT_VENTED_PART * span_SI(gauge))
    return { asks: false, say: (set) => `${shows(set)}: it is not vented, or broken.` };
  return off > Math.max(allowed, gauge.step_Pa) * (1 + 1e-9)
    ? { asks: true, say: (set) => `${shows(set)}, beyond its class. Is it vented? Read it again.` }
    : null;
}

/** A value said by one key instead of typed must be the one that the key stands for, and never opens a gate. */
function notAsSaid(context: RunContext<unknown>, run: RunState, candidate: Candidate): CaptureProblem | null {
  const { item, by, value_SI } = candidate;
  const said = shortWay(context, run, item);
  if (by !== 'at-aim' && by !== 'at-zero' && by !== 'as-last-supply') return null;
  return said?.by === by && said.value_SI === value_SI
    ? null
    : { asks: false, say: () => 'That reading cannot be said by one key here. Read the gauge and type it.' };
}

/**
 * What one key may say of a reading in place of typing it: the input is at its aim, a vented gauge at zero, the supply
 * as it was last read in the same state with nothing applied. None exists where a reading opens a gate or makes safe.
 */
export function shortWay(
  context: RunContext<unknown>,
  run: RunState,
  item: ReadingItem,
): { by: 'at-aim' | 'at-zero' | 'as-last-supply'; value_SI: number } | null {
  const step = findItem(context.procedure, item.id)?.step;
  if (!step || step.mandatory || item.gate) return null;
  if (item.measures === 'zero') return { by: 'at-zero', value_SI: 0 };
  if (item.measures === 'input')
    return item.target_Pa === undefined ? null : { by: 'at-aim', value_SI: item.target_Pa };
  if (item.measures !== 'supply' || item.target_Pa || item.elapsed_s !== undefined) return null;
  const before = run.captures.findLast(({ item: id }) => {
    const other = findItem(context.procedure, id);
    return (
      other?.item.kind === 'reading' &&
      other.item.measures === 'supply' &&
      !other.item.target_Pa &&
      supplied(other.step.state) === supplied(step.state) &&
      countedCaptures(run, id).length > 0
    );
  });
  return before && before.item !== item.id ? { by: 'as-last-supply', value_SI: before.value_SI } : null;
}

/** How near an input has to be to its aim, as a part of it and in readable steps, to be taken without a question. */
const NEAR = { part: 0.1, steps: 10 } as const;

/** What a gauge that reads itself shows now. */
export interface LiveShown {
  readonly value_SI: number;
  readonly settled: boolean;
}

/**
 * What makes a value worth a second look before it is sent: a gauge that still moves, an input far from its aim, a
 * typed value far from what the same gauge shows. One that an eye caught as it passed is not held against what shows by now.
 *
 * @param live the same gauge, where it reads itself
 */
export function secondLook(candidate: Candidate, live: LiveShown | null): CaptureProblem | null {
  const { item, gauge, value_SI, by } = candidate;
  const near = (other: number, part: number) =>
    Math.abs(value_SI - other) <= Math.max(part, NEAR.steps * gauge.step_Pa);
  const asks = (words: (show: (value: number) => string) => string): CaptureProblem => ({
    asks: true,
    say: (set) => words((value) => printQuantity(value, item.quantity, set)),
  });
  if (by === 'gauge' && live && !live.settled)
    return asks((show) => `${gauge.tag} is still moving: ${show(value_SI)} now.`);
  const aim = item.measures === 'input' ? item.target_Pa : undefined;
  if (aim !== undefined && !near(aim, NEAR.part * aim))
    return asks((show) => `${show(value_SI)} is far from the aim of ${show(aim)}.`);
  if (
    by === 'typed' &&
    live &&
    item.moment !== 'by-hand' &&
    !near(live.value_SI, DOUBTFUL_PART * span_SI(gauge))
  )
    return asks((show) => `You typed ${show(value_SI)}; ${gauge.tag} shows ${show(live.value_SI)}.`);
  return null;
}
