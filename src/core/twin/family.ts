import { z } from 'zod';
import { SUPPLY_KINDS } from '../air/supply';
import { calibrationState, instrumentSchema } from '../metrology/instrument';
import type { CautionId } from '../procedure/cautions';
import { procedureSchema, type Procedure, type ReadingItem, type Step } from '../procedure/procedure';
import type { RunState } from '../procedure/run';
import type { About } from '../signals/analysis';
import type { Quantity } from '../quantities/units';
import type { Descriptor, Vector } from './descriptor';
import type { MotionModel } from './motion';
import type { Assessment, Expectation, Result } from './result';

export type { Descriptor, Vector };

/** An input of a model, and the bench port whose gauge tells it. */
export interface InputDescriptor extends Descriptor {
  /** 'set': the port's reading that goes with the one predicted. 'source': the last reading before it. */
  readonly from?: { readonly port: string; readonly as: 'set' | 'source' };
}

/** Parameter values of a healthy unit, and how far each may lie from them in a unit that is still healthy. */
export interface HealthyUnit {
  readonly values: Vector;
  /** Half-widths, same order; 0 where the profile allows no spread that moves an expected value. */
  readonly tolerances: Vector;
  /**
   * The outermost units that are still healthy, where those are not the corners of the tolerances: where a profile bounds
   * a combination of parameters.
   */
  readonly extremes?: readonly Vector[];
}

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

const gaugesSchema = z.array(instrumentSchema).max(500).readonly();

const rigSchema = z.record(z.string().max(40), gaugesSchema);
/** The gauges that stand on each port of the bench for one run. */
export type Rig = Readonly<z.infer<typeof rigSchema>>;

export const conditionsSchema = z.strictObject({
  /** Station pressure, Pa absolute. */
  barometer_Pa: z.number().positive(),
  temperature_K: z.number().positive(),
  supplyKind: z.enum(SUPPLY_KINDS),
  /** Sea-level depression that a healthy supply of this kind makes, Pa. */
  supplyHealth_Pa: z.number().positive(),
  technician: z.string().max(120),
  /** ISO date of the run, for calibration state. */
  day: z.iso.date(),
  thresholds: z.strictObject({ meets: z.number().gt(0.5).lt(1), fails: z.number().gt(0).lt(0.5) }),
});
/** What a run was made under, kept with it. */
export type Conditions = Readonly<z.infer<typeof conditionsSchema>>;

export const runContextSchema = z.strictObject({
  /** The steps, built once for this profile on this rig. */
  procedure: procedureSchema,
  /** Checked by the family's own schema. */
  profile: z.unknown(),
  rig: rigSchema,
  /** Every instrument that could be used instead, for advice. */
  shelf: gaugesSchema,
  conditions: conditionsSchema,
});
/** The room that readings were taken in. */
export type Room = Pick<Conditions, 'barometer_Pa' | 'temperature_K'>;

/** All that judging a run needs besides its events. */
export interface RunContext<Profile> extends Readonly<Omit<z.infer<typeof runContextSchema>, 'profile'>> {
  readonly profile: Profile;
  /**
   * Rooms of readings carried over from earlier tests, oldest first: the events before the count `until` were made in
   * that room. Worked out from the record, never stored.
   */
  readonly earlier?: readonly (Room & { readonly until: number })[];
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
  readonly logged: (profile: Profile) => About['unit'];
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

/** Numbers by name, for use inside a family. */
export type Named<D extends readonly Descriptor[]> = Record<D[number]['id'], number>;

/** Puts named numbers in declared order. */
export function toVector<D extends readonly Descriptor[]>(descriptors: D, named: Named<D>): number[] {
  return descriptors.map(({ id }) => named[id as D[number]['id']]);
}

/** Gives names to numbers in declared order. */
export function toNamed<D extends readonly Descriptor[]>(descriptors: D, vector: Vector): Named<D> {
  return Object.fromEntries(descriptors.map(({ id }, i) => [id, vector[i]])) as Named<D>;
}

/** A healthy unit from named values, and the half-widths of those that may differ from unit to unit. */
export const healthyUnit = <D extends readonly Descriptor[]>(
  descriptors: D,
  values: Named<D>,
  tolerances: Partial<Named<D>>,
): HealthyUnit => ({
  values: toVector(descriptors, values),
  tolerances: descriptors.map(({ id }) => tolerances[id as D[number]['id']] ?? 0),
});

/** A fault as the change it makes to named parameters: `s` is the severity, 0 to 1. */
export const moving =
  <D extends readonly Descriptor[]>(descriptors: D) =>
  (change: (p: Named<D>, s: number) => Partial<Named<D>>) =>
  (healthy: Vector, severity: number): number[] => {
    const named = toNamed(descriptors, healthy);
    return toVector(descriptors, { ...named, ...change(named, severity) });
  };

/** Place of a name in declared order. @throws RangeError where there is none of that name */
export function placeOf(descriptors: readonly Descriptor[], id: string): number {
  const place = descriptors.findIndex((descriptor) => descriptor.id === id);
  if (place < 0) throw new RangeError(`id: no “${id}” among ${descriptors.map((d) => d.id).join(', ')}`);
  return place;
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
