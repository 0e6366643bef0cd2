import type { z } from 'zod';
import { installation } from '../model/installation';
import type { Role } from '../model/installation';
import type { Member, Model } from '../model/member';
import type { Keeps } from './keeps';
import type { ResultRule } from './result-rules';
import type { Rig, RunContext } from './run-context';
import { calibrationState } from '../metrology/calibration';
import type { CautionId } from './cautions';
import type { ComplaintId } from './complaints';
import type { Sources } from './sources';
import type { Procedure, ReadingItem, Step } from './steps';
import type { RunState } from './run-state';
import type { LoggedUnit } from './logged-unit';
import type { FluidKind } from '../fluid/kinds';
import type { Quantity } from '../quantities/units';
import type { Vector } from '../model/descriptor';
import type { InputDescriptor } from '../model/vectors';
import { overTime, type OverTime } from '../model/over-time';
import type { Assessment, Expectation, Result } from './result';
import type { ThroughInterface } from './vehicle-interface';
import type { WithoutPower } from './without-power';

/**
 * How far something looked at, listened to or felt for can be trusted: P(seen) = falseAlarm + (1 − falseAlarm − miss)·sign,
 * where the sign of a fault is 1 once it is past the first third of its range. Handbook-models 8.
 */
export interface Look {
  /** Observation item of the procedure. */
  readonly item: string;
  /** Chance of seeing it on a unit that does not have it, and of not seeing it on one that does. */
  readonly falseAlarm: number;
  readonly miss: number;
}

/** A fault shows at a look from this part of its range. Handbook-models 8. */
export const SHOWS_FROM = 1 / 3;

/** A fault as a change of parameters and of what a technician sees. */
export interface Fault {
  readonly id: string;
  /** How often it is met, as a weight beside the other faults of the family. A judgement, to be edited. */
  readonly prior: number;
  readonly name: string;
  /** What a technician would tell a customer. */
  readonly plain: string;
  /** What it is complained of. */
  readonly brings?: readonly ComplaintId[];
  /** Faults that it brings about in time: the two are met together more often than chance would have it. */
  readonly causes?: readonly string[];
  /** Whether a unit of these healthy parameters is so made that it can have it. Where left out, every one is. */
  readonly fits?: (healthy: Vector) => boolean;
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

/** Colours that stand for what is read. */
export type Ink = 'supply' | 'activation' | 'input' | 'output';

/** A place where a reading is taken or a leak looked for, on the schematic. */
export interface Port {
  readonly id: string;
  readonly name: string;
  /** A word for narrow places: the tape, a ladder's head. */
  readonly short: string;
  readonly quantity: Quantity | null;
  /** Colour of what is read here, where it is not the one of its name. */
  readonly ink?: Ink;
  /** A test goes without a gauge here: what needs one is left out then. */
  readonly optional?: true;
  /** What stands here is not used up by applying: it is let out by itself, and only where a gauge goes. */
  readonly bledOnly?: true;
  /** Time to fit a gauge here and to take it off again, bled where there is fluid, s; none where one stands here always. */
  readonly fit_s?: number;
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
  /** Ports of which a line is opened when it is worked on: none of them may hold pressure or vacuum then. */
  readonly opens: readonly string[];
  /** Of a part that a profile can say is never rebuilt: why not, in a sentence; null where it may be. */
  readonly neverRebuilt?: (profile: unknown) => string | null;
}

/** The curve that a technician knows a kind of unit by. Names of the family's inputs and readings. */
export interface FamilyCurve {
  readonly input: string;
  readonly output: string;
  /** Items at which the source was read, the one under load first. */
  readonly sources: readonly string[];
  /** Input that this is; `supply_Pa` where it is not named. */
  readonly source?: string;
  /** The same output coming down, where the family tells it apart. */
  readonly releasing: string | null;
  /** Reading that names the input at which the curve bends, and the word for that. */
  readonly knee: { readonly reading: string; readonly word: string };
}

/** The input that says what the source makes. */
export const sourceOf = ({ source = 'supply_Pa' }: Pick<FamilyCurve, 'source'>): string => source;

/** A number that a trace yields, by its id, and the item at which the same is read by hand. */
export interface Traced {
  readonly result: string;
  readonly item: string;
}

/** A step that can be added to a run, and the step behind which it stands. */
export interface Settling {
  readonly after: string;
  readonly step: Step;
}

/** A bench: a source and a load of its own, and what each needs to know of the unit. */
export interface OnBench<Profile> {
  readonly source: Member<never>;
  readonly load: Member<never>;
  readonly profiles: (profile: Profile) => { readonly source: unknown; readonly load: unknown };
  /** Inputs of a full application, besides the source and the room, SI: what a unit of this profile is known by. */
  readonly full: (profile: Profile) => Readonly<Record<string, number>>;
}

/** What is known of a kind of thing that is tested: a unit on its bench, or a vehicle with all that its brake is made of. */
interface Kind<Profile> {
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
  /** Steps in which a vehicle's interface helps, by their ids; each is told the profile of the part that it belongs to. */
  readonly throughInterface?: Readonly<Record<string, ThroughInterface>>;
  /** What is drawn of a unit: one of its readings against the input that is set. */
  readonly curve: FamilyCurve;
  /** Stored pressure goes into the brakes itself: no foot pushes a master cylinder. */
  readonly fullPower?: true;
  /** Fluid that works a unit; null where none does. */
  readonly fluid: (profile: Profile) => FluidKind | null;
  /** What its traces are worked out with besides the room. */
  readonly logged: (profile: Profile) => LoggedUnit;
  /** Results of a trace that are readings of the model as well: what they are called there. */
  readonly traced?: readonly Traced[];
  readonly faults: readonly Fault[];
  readonly looks: readonly Look[];
  /**
   * Chance of the unknown cause from which nothing known explains what was seen, where the search for the cause is over: three in a
   * hundred of the installations with a known fault end above it. By the benchmark of the diagnosis; none where it was not run.
   */
  readonly unexplainedFrom?: number;
  readonly procedure: (profile: Profile, rig: Rig) => Procedure;
  /** What can be changed or opened, and what that makes stale. */
  readonly parts: readonly Part[];
  /** Results that are the flick-up of an accumulator, each with the part whose gas that is: it is watched over the years. */
  readonly gas?: Readonly<Record<string, string>>;
  readonly ports: readonly Port[];
  readonly leakPoints: readonly Port[];
  /** What a healthy unit should show at an item, at the conditions actually read, and what it must keep to. */
  readonly expect: (context: RunContext<Profile>, run: RunState, item: ReadingItem) => Expectation | null;
  /** What would settle which of two gauges is wrong, where readings with both show that one is; null where nothing does. */
  readonly settling?: (context: RunContext<Profile>, run: RunState) => Settling | null;
  /** Results of a run, in the order of the tests; those with no readings yet are 'not taken'. */
  readonly results: (context: RunContext<Profile>, run: RunState) => Result[];
  /** What braking is like once nothing assists it; left out where no vehicle is tested, null where the profile does not tell. */
  readonly withoutPower?: (profile: Profile) => WithoutPower | null;
  /** The run in a sentence or two: what falls short, and what does not. */
  readonly assess: (context: RunContext<Profile>, run: RunState, results: readonly Result[]) => Assessment;
}

/** What the folder of a family says that is tested on a bench. */
export interface FamilyFolder<Profile> extends Kind<Profile> {
  /** The unit itself, to be joined to a source and a load. */
  readonly member: Member<Profile>;
  /** What it is joined to on a bench. */
  readonly onBench: OnBench<Profile>;
}

/** A model as it can be asked where some of its readings are known as inputs. A reading that it does not tell is not a number. */
export type View = Pick<Model<unknown>, 'inputs' | 'steady'>;

/** A family as all the rest knows it: what its folder says, and what is tested as one whole model. */
export interface Family extends Kind<unknown>, Model<unknown> {
  /** Where it is tested. */
  readonly setting: 'bench' | 'vehicle';
  /** Every way to ask the model, the one that takes the most from what was read first, and the one that takes the least last. */
  readonly views: readonly [View, ...View[]];
  /** All of it over time; null where one part is known at rest only. */
  readonly motion: OverTime | null;
  /** Inputs of a full application, besides the source and the room, SI. */
  readonly full: (profile: unknown) => Readonly<Record<string, number>>;
  /** The unit by itself, to be joined to others; null where a source and a load are tested with it. */
  readonly member: Member<unknown> | null;
}

/** A load as a gauge on it tells what drives it. */
export interface LoadBehind {
  /** What the gauge shows. */
  readonly input: InputDescriptor & { readonly from: { readonly port: string; readonly as: 'set' } };
  /** The other inputs of its readings. */
  readonly inputs: readonly InputDescriptor[];
  /** Every reading of the load, at what the gauge shows. */
  readonly read: (parameters: Vector, shown: number, inputs: Vector) => number[];
}

/** An answer that a reading of the same test contradicts: both are kept, and one is to be made again. */
export interface Contradiction {
  /** Observation item, and the answer given. */
  readonly item: string;
  readonly answer: string;
  /** Reading items, and what they must show for the answer to be contradicted, SI. */
  readonly from: readonly string[];
  readonly when: (...values: number[]) => boolean;
  /** What contradicts what, in a sentence, and which of the two is repeated. */
  readonly say: string;
}

/** What the parts of a whole may ask of all of it, healthy. */
export interface HealthyWhole {
  /** One reading of the whole, everything by name. Inputs that are not given: sea level, 20 °C, at once, no source. */
  readonly shows: (reading: string, inputs: Readonly<Record<string, number>>) => number;
}

/** A step of a whole's test, and the part of the test in which it stands. */
export interface PhasedStep {
  readonly phase: (typeof PHASES)[number];
  readonly step: Step;
}

/** Steps that a part of a source or a load disturbs without knowing the unit: names that stand for those which the unit says. */
export const SHOWN_BY_UNIT = {
  travel: 'unit:travel',
  pressure: 'unit:pressure',
  flow: 'unit:flow',
} as const;
/** The same of what a unit drives: steps of the load in which the pressure that the unit makes shows, where it has any. */
export const SHOWN_BY_LOAD = { pressure: 'load:pressure' } as const;

/** Parts of a whole's test, in their usual order. */
export const PHASES = ['look', 'supply', 'unit', 'load', 'after'] as const;

/** Where a source, a unit and a load are tested together, as far as their steps hang on it. */
export interface TestedAt {
  readonly setting: 'bench' | 'vehicle';
  readonly ports: readonly Port[];
  /** Port at which the pressure is read that the unit makes. */
  readonly output: string;
  /** Sources while the unit is supplied, while none is, and while lamps can be read with as little more as may be. */
  readonly on: Sources;
  readonly off: Sources;
  readonly lit: Sources;
  /** Ports behind a check valve: what stands there stays when the source is off, so no line is opened before they read zero. */
  readonly stored: readonly string[];
  /** The first two, as an instruction begins with them. */
  readonly says: { readonly on: string; readonly off: string };
}

/**
 * What the folder of a family says of it as a part of a whole, on a vehicle or a bench. Readings are named as in the whole: the unit's own by their
 * ids, those of the others as `source.…` and `load.…`.
 */
export interface MemberFolder<Profile> {
  readonly kind: string;
  readonly name: string;
  readonly role: Role;
  readonly profile: z.ZodType<Profile>;
  readonly typical: Profile;
  readonly faults: readonly Fault[];
  readonly looks: readonly Look[];
  readonly steps: (profile: Profile, rig: Rig, at: TestedAt) => readonly PhasedStep[];
  readonly keeps: Keeps<Profile>['readings'];
  readonly results: (profile: Profile, whole: HealthyWhole) => readonly ResultRule[];
  readonly contradictions?: (profile: Profile) => readonly Contradiction[];
  readonly parts: readonly Part[];
  readonly gas?: Kind<Profile>['gas'];
  readonly throughInterface?: Kind<Profile>['throughInterface'];
  /** Its steps in which the way of what a unit drives shows, those in which the pressure does that it makes there, and the flow that feeds it. */
  readonly shows?: Readonly<Partial<Record<keyof typeof SHOWN_BY_UNIT, readonly string[]>>>;
  /** Where it is looked for what no gauge shows. */
  readonly leakPoints: readonly Port[];
}

/**
 * Closes a family over its own profile type, so that the registry, screens and store need none: a profile reaches a
 * family only through that family's schema. Whatever a family finds, a result that leans on a gauge past its
 * calibration date says so.
 */
export function defineFamily<Profile>(folder: FamilyFolder<Profile>): Family {
  const { member, onBench } = folder;
  const { source, load } = onBench as unknown as { source: Member<unknown>; load: Member<unknown> };
  const members = { source, unit: member, load };
  const bench = installation(members);
  const own = member.parameters.length;
  return {
    ...folder,
    ...bench,
    setting: 'bench',
    views: [bench],
    full: onBench.full,
    healthy: (profile: Profile) => bench.healthy({ unit: profile, ...onBench.profiles(profile) }),
    motion: overTime(members),
    faults: folder.faults.map((fault) => ({
      ...fault,
      apply: (vector: Vector, severity: number) => [
        ...fault.apply(vector.slice(0, own), severity),
        ...vector.slice(own),
      ],
    })),
    results: sayingOverdue(folder.results),
  } as unknown as Family;
}

/** The faults that what a profile describes can have. */
export function faultsOf(family: Pick<Family, 'faults' | 'healthy'>, profile: unknown): readonly Fault[] {
  const { values } = family.healthy(profile);
  return family.faults.filter(({ fits }) => fits?.(values) ?? true);
}

/**
 * Numbers of a unit with a fault at a severity, from 0, just begun, to 1, severe; those of a healthy one where there is none.
 *
 * @throws RangeError where the family has no such fault
 */
export function withFault(
  { faults }: Pick<Family, 'faults'>,
  healthy: Vector,
  fault: readonly [id: string, severity: number] | null | undefined,
): Vector {
  if (!fault) return healthy;
  const found = faults.find(({ id }) => id === fault[0]);
  if (!found) throw new RangeError(`fault: no “${fault[0]}”`);
  return found.apply(healthy, fault[1]);
}

/** Results that say which of their gauges were past their calibration date. */
export const sayingOverdue =
  <Profile>(results: Kind<Profile>['results']): Kind<Profile>['results'] =>
  (context, run) => {
    const late = overdueTags(context);
    return results(context, run).map((result) => ({
      ...result,
      overdue: result.gauges.filter((tag) => late.has(tag)),
    }));
  };

/** Tags of the gauges that were past their calibration date on the day of the run. */
function overdueTags({ rig, shelf, conditions }: RunContext<unknown>): Set<string> {
  const gauges = [...shelf, ...Object.values(rig).flat()];
  return new Set(
    gauges.filter((gauge) => calibrationState(gauge, conditions.day) === 'overdue').map(({ tag }) => tag),
  );
}
