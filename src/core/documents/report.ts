import { calibrationState } from '../metrology/calibration';
import { type Instrument } from '../metrology/instrument';
import { CAUTIONS } from '../contract/cautions';
import type { RunState } from '../contract/run-state';
import { countedCaptures } from '../procedure/run';
import { printNames } from '../quantities/sentence';
import type { RunContext } from '../contract/run-context';
import type { Assessment, Result } from '../contract/result';

/** Something that was not tested, and why. */
export interface Untested {
  readonly what: string;
  readonly why: string;
}

/** What a report says beyond the results themselves. */
export interface ReportContent {
  /** A paragraph for the customer, in plain words. */
  readonly plain: readonly string[];
  readonly untested: readonly Untested[];
  /** Gauges that any reading was taken on, with their calibration state on the day. */
  readonly instruments: readonly {
    readonly gauge: Instrument;
    readonly calibration: ReturnType<typeof calibrationState>;
  }[];
  /** Verdicts that lean on a gauge past its calibration date. */
  readonly leansOnOverdue: readonly string[];
  readonly cautions: readonly (typeof CAUTIONS)[keyof typeof CAUTIONS][];
}

const ON_VEHICLE: Record<Assessment['call'], string> = {
  healthy: 'We tested the brake of your vehicle where it stood. Every limit that we tested was met.',
  'weak-supply':
    'We tested the brake of your vehicle where it stood. The booster did what its vacuum allows; that vacuum falls short of what it needs, or comes too slowly.',
  faulty: 'We tested the brake of your vehicle where it stood. It did not meet its limits.',
  open: 'We tested the brake of your vehicle where it stood. On at least one point our gauges cannot yet tell whether it meets its limit.',
  incomplete: 'The test of your vehicle’s brake is not complete.',
};

const PLAIN: Record<Assessment['call'], string> = {
  healthy: 'We tested your brake unit on the bench. Every limit that we tested was met.',
  'weak-supply':
    'We tested your brake unit on the bench. It did everything that the vacuum of our bench allows. What fell short is our bench’s vacuum, not your unit.',
  faulty: 'We tested your brake unit on the bench. It did not meet its limits.',
  open: 'We tested your brake unit on the bench. On at least one point our gauges cannot yet tell whether it meets its limit.',
  incomplete: 'The bench test of your brake unit is not complete.',
};

/** Where no vacuum works it: what falls short is what feeds it, a pump or what was stored. */
const FED = {
  vehicle:
    'We tested the brake of your vehicle where it stood. The booster did what is to be had from what feeds it; what feeds it does not meet its limits.',
  bench:
    'We tested your brake unit on the bench. It did what is to be had from what feeds it; what feeds it does not meet its limits.',
} as const;

/** Whether a test has anything to do with vacuum. */
export const onVacuum = ({ steps }: RunContext<unknown>['procedure']): boolean =>
  steps.some(({ items }) => items.some((item) => item.kind === 'reading' && item.quantity === 'depression'));

/** Works out what the report says, from the results alone: a missing reading is listed, never passed over. */
export function reportContent(
  context: RunContext<unknown>,
  run: RunState,
  results: readonly Result[],
  assessment: Assessment,
): ReportContent {
  const used = new Set(run.captures.filter(({ struck }) => !struck).map(({ instrument }) => instrument));
  const known = new Map(
    [...context.shelf, ...Object.values(context.rig).flat()].map((gauge) => [gauge.tag, gauge]),
  );
  const instruments = [...used].sort().flatMap((tag) => {
    const gauge = known.get(tag);
    return gauge ? [{ gauge, calibration: calibrationState(gauge, context.conditions.day) }] : [];
  });
  const leaning = results.filter(({ overdue, verdict }) => verdict !== 'not-taken' && overdue.length > 0);
  const blamed = (about: Result['about']) =>
    about === 'unit' || (context.procedure.setting === 'vehicle' && about !== 'gauges');
  const failing = results.filter(({ verdict, about }) => verdict === 'fails' && blamed(about));
  const steps = [...new Set(context.procedure.steps.flatMap(({ cautions }) => cautions))];
  return {
    plain: [
      assessment.call === 'weak-supply' && !onVacuum(context.procedure)
        ? FED[context.procedure.setting ?? 'bench']
        : (context.procedure.setting === 'vehicle' ? ON_VEHICLE : PLAIN)[assessment.call],
      ...(failing.length > 0 ? [`Outside its limits: ${printNames(failing.map(({ name }) => name))}.`] : []),
    ],
    untested: namedGaps(context, run, results),
    instruments,
    leansOnOverdue: leaning.map(({ name }) => name),
    cautions: steps.map((id) => CAUTIONS[id]),
  };
}

/** Results that were not taken, each with the reason. */
export const namedGaps = (
  context: RunContext<unknown>,
  run: RunState,
  results: readonly Result[],
): Untested[] =>
  results
    .filter(({ verdict }) => verdict === 'not-taken')
    .map((result) => ({ what: result.name, why: whyNot(context, run, result) }));

function whyNot(context: RunContext<unknown>, run: RunState, result: Result): string {
  const step = context.procedure.steps.find(({ id }) => id === result.step);
  const items = result.item ? [result.item] : (step?.items ?? []).map(({ id }) => id);
  const reasons = items.flatMap((id) => run.skipped[id] ?? []);
  if (reasons[0]) return `Skipped: ${reasons[0]}`;
  if (result.seen) return result.seen;
  const struck = items.some(
    (id) => run.captures.some(({ item }) => item === id) && countedCaptures(run, id).length === 0,
  );
  if (struck) return 'A reading that it needs was struck, and not read again';
  return run.finished ? 'Could not be worked out from what was read' : 'Not reached yet';
}
