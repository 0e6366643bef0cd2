import type { z } from 'zod';
import type { HealthyUnit, InputDescriptor } from '../model/vectors';
import type { Rig, RunContext } from './run-context';
import { calibrationState } from '../metrology/instrument';
import type { CautionId } from './cautions';
import type { Procedure, ReadingItem, Step } from './steps';
import type { RunState } from './run-state';
import type { LoggedUnit } from './logged-unit';
import type { Quantity } from '../quantities/units';
import type { Descriptor, Vector } from '../model/descriptor';
import type { MotionModel } from '../model/motion';
import type { Assessment, Expectation, Result } from './result';

/** A fault as a change of parameters and of what a technician sees. */
export interface Fault {
  readonly id: string;
  readonly name: string;
  /** What a technician would tell a customer. */
  readonly plain: string;
  /** Parameters of a unit with this fault; severity 0 (just begun) to 1 (severe). */
  readonly apply: (healthy: Vector, severity: number) => Vector;
  /** Observation items that find it, with the answer given, once it is past the first third of its range. */
  readonly signs: Readonly<Record<string, string>>;
  /** What tells it from its likenesses: a test of this bench, or a look with the unit open. */
  readonly confirm: string;
  readonly repair: string;
  /** Parts that the repair changes. */
  readonly parts: readonly string[];
  readonly cautions: readonly CautionId[];
}

/** A place where a reading is taken or a leak looked for, on the schematic. */
export interface Port {
  readonly id: string;
  readonly name: string;
  /** A word for narrow places: the tape, a ladder's head. */
  readonly short: string;
  readonly quantity: Quantity | null;
}

/**
 * A part that can be changed, a line that can be opened or a gauge that can be moved, with the steps whose readings
 * it can have affected: those become stale. Handbook 8.
 */
export interface Part {
  readonly id: string;
  readonly name: string;
  readonly kind: 'part' | 'line' | 'gauge';
  /** Steps of the procedure. */
  readonly disturbs: readonly string[];
}

/** The curve that a technician knows a kind of unit by. Names of the family's inputs and readings. */
export interface FamilyCurve {
  readonly input: string;
  readonly output: string;
  /** The same output coming down, where the family tells it apart. */
  readonly releasing: string | null;
  /** Reading that names the input at which the curve bends, and the word for that. */
  readonly knee: { readonly reading: string; readonly word: string };
}

/** A step that can be added to a run, and the step behind which it stands. */
export interface Settling {
  readonly after: string;
  readonly step: Step;
}

/** Contract that every family of units, sources and loads meets. */
export interface Family<Profile = unknown> {
  readonly kind: string;
  readonly name: string;
  readonly role: 'source' | 'unit' | 'load';
  /** Raised when the form of its profiles changes. */
  readonly revision: number;
  /** A stored profile of an earlier revision in the present form. What it did not say is left out, never made up. */
  readonly upcast: (stored: unknown, from: number) => unknown;
  readonly profile: z.ZodType<Profile>;
  /** A made-up profile with the handbook's typical figures, to copy and change. */
  readonly typical: Profile;
  readonly parameters: readonly Descriptor[];
  readonly inputs: readonly InputDescriptor[];
  readonly readings: readonly Descriptor[];
  readonly healthy: (profile: Profile) => HealthyUnit;
  /** Every steady reading in closed form. Called often: allocates one array. */
  readonly steady: (parameters: Vector, inputs: Vector) => number[];
  /** The same unit over time; where there is none, the family is known at rest only. */
  readonly motion: MotionModel | null;
  /** What is drawn of a unit: one of its readings against the input that is set. */
  readonly curve: FamilyCurve;
  /** What its traces are worked out with besides the room. */
  readonly logged: (profile: Profile) => LoggedUnit;
  readonly faults: readonly Fault[];
  readonly procedure: (profile: Profile, rig: Rig) => Procedure;
  /** What can be changed or opened, and what that makes stale. */
  readonly parts: readonly Part[];
  readonly ports: readonly Port[];
  readonly leakPoints: readonly Port[];
  /** What a healthy unit should show at an item, at the conditions actually read, and what it must keep to. */
  readonly expect: (context: RunContext<Profile>, run: RunState, item: ReadingItem) => Expectation | null;
  /** What would settle which of two gauges is wrong, where readings with both show that one is; null where nothing does. */
  readonly settling?: (context: RunContext<Profile>, run: RunState) => Settling | null;
  /** Results of a run, in the order of the tests; those with no readings yet are 'not taken'. */
  readonly results: (context: RunContext<Profile>, run: RunState) => Result[];
  /** The run in a sentence or two: what falls short, and what does not. */
  readonly assess: (context: RunContext<Profile>, run: RunState, results: readonly Result[]) => Assessment;
}

/**
 * Closes a family over its own profile type, so that the registry, screens and store need none: a profile reaches a
 * family only through that family's schema. Whatever a family finds, a result that leans on a gauge past its
 * calibration date says so.
 */
export function defineFamily<Profile>(family: Family<Profile>): Family {
  const results: Family<Profile>['results'] = (context, run) => {
    const late = overdueTags(context);
    return family
      .results(context, run)
      .map((result) => ({ ...result, overdue: result.gauges.filter((tag) => late.has(tag)) }));
  };
  return { ...family, results } as unknown as Family;
}

/** Tags of the gauges that were past their calibration date on the day of the run. */
function overdueTags({ rig, shelf, conditions }: RunContext<unknown>): Set<string> {
  const gauges = [...shelf, ...Object.values(rig).flat()];
  return new Set(
    gauges.filter((gauge) => calibrationState(gauge, conditions.day) === 'overdue').map(({ tag }) => tag),
  );
}
