import type { Fault } from '../contract/family';
import type { RunEvent } from '../contract/events';
import type { RunState } from '../contract/run-state';
import type { Procedure } from '../contract/steps';
import { HEALTHY, repairOf, type RepairClass } from '../diagnosis/causes';
import { isDone } from '../procedure/run';

/** What a case of practice comes to, 0 to 100, and its parts. The weights are judgements. */
export interface Score {
  readonly points: number;
  /** Of 50: the finding. */
  readonly finding: number;
  /** Of 40: time and needless parts, beside the adviser's own way. */
  readonly economy: number;
  /** Of 10: care. */
  readonly care: number;
}

const FINDING = 50;
const ECONOMY = 40;
const CARE = 10;
const LAPSE = 5;
/** What a part that was changed for nothing costs: its price and the work, as time on the bench, min. */
export const NEEDLESS_PART_MIN = 60;

/** What somebody did in a case. */
export interface Performance {
  /** Repair that is named, in the words of the library: parts joined, healthy, or unknown. */
  readonly finding: RepairClass;
  readonly minutes: number;
  /** Parts that were changed or mended. */
  readonly changed: readonly string[];
  readonly lapses: number;
}

const partsOf = (repair: RepairClass): string[] => (repair === HEALTHY ? [] : repair.split(' + '));

/** How far a finding is right: 1 where it is, half where it names one of two, or the right one and one beside it. */
export function isRight(finding: RepairClass, faults: readonly Fault[]): 0 | 0.5 | 1 {
  const truth = repairOf(faults);
  if (finding === (faults.length === 0 ? HEALTHY : truth)) return 1;
  const named = partsOf(finding);
  return faults.some(({ parts }) => parts.length > 0 && parts.every((part) => named.includes(part)))
    ? 0.5
    : 0;
}

/**
 * Finding 50 · economy 40 · care 10. Economy is the adviser's minutes over those that were taken, needless parts at an hour each,
 * at the most 1, and counts as far as the finding is right: a quick guess that is wrong saves nobody time.
 */
export function scoreOf(
  { finding, minutes, changed, lapses }: Performance,
  faults: readonly Fault[],
  adviser_min: number,
): Score {
  const right = isRight(finding, faults);
  const spent = minutes + NEEDLESS_PART_MIN * needless(changed, faults).length;
  const parts = {
    finding: Math.round(FINDING * right),
    economy: Math.round(ECONOMY * right * Math.min(1, spent > 0 ? adviser_min / spent : 0)),
    care: Math.max(0, CARE - LAPSE * lapses),
  };
  return { ...parts, points: parts.finding + parts.economy + parts.care };
}

/** Parts that were changed although nothing was wrong with them. */
export const needless = (changed: readonly string[], faults: readonly Fault[]): string[] =>
  [...new Set(changed)].filter((part) => !faults.some(({ parts }) => parts.includes(part)));

/** A want of care, in a sentence. */
export function lapsesIn(procedure: Procedure, state: RunState, events: readonly RunEvent[]): string[] {
  const undone = new Set(events.flatMap((event) => (event.type === 'taken-back' ? event.event : [])));
  const done = events.filter(({ id }) => !undone.has(id));
  const early = done.filter((event) => event.type === 'wait-ended' && event.early).length;
  const goneOn = done.filter(({ type }) => type === 'gone-on').length;
  // Pressure that the test let in is let out again before a unit is handed back.
  const open = procedure.steps.filter(
    (step) => step.closing && step.items.some((item) => !isDone(state, item)),
  );
  return [
    ...(early > 0 ? [early === 1 ? 'A wait was ended early.' : `${early} waits were ended early.`] : []),
    ...(goneOn > 0 ? ['It was gone on with in spite of what stopped the test.'] : []),
    ...(open.length > 0 && state.captures.length > 0
      ? [`Left undone: ${open.map(({ title }) => `“${title}”`).join(', ')}.`]
      : []),
  ];
}
