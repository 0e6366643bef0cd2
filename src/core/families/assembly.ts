import { z } from 'zod';
import {
  sayingOverdue,
  PHASES,
  SHOWN_BY_LOAD,
  SHOWN_BY_UNIT,
  sourceOf,
  type Family,
  type Fault,
  type FamilyCurve,
  type LoadBehind,
  type Port,
  type MemberFolder,
  type TestedAt,
  type Traced,
  type View,
} from '../contract/family';
import type { Keeps } from '../contract/keeps';
import type { Result } from '../contract/result';
import type { ResultRule } from '../contract/result-rules';
import type { Rig, RunContext } from '../contract/run-context';
import { findItem, type Procedure, type Step } from '../contract/steps';
import type { FluidKind } from '../fluid/kinds';
import { ROLES, type Role } from '../model/installation';
import type { Member } from '../model/member';
import { overTime } from '../model/over-time';
import type { HealthyUnit } from '../model/vectors';
import type { LoggedUnit } from '../contract/logged-unit';
import type { HealthyWhole } from '../contract/family';
import type { ThroughInterface } from '../contract/vehicle-interface';
import type { WithoutPower } from '../contract/without-power';
import type { RunState } from '../contract/run-state';
import { sentence } from '../quantities/sentence';
import { assessAssembly, type Excused, type SpokenOf } from './assess-assembly';
import { contradicted } from './contradicted';
import { expectBy } from './expectation';
import { keptOf } from './kept-of';
import { identityFields } from './profile-fields';
import { resultsBy } from './results-by';
import { behindLoad, healthyWhole, roleOf, wholeModel, widened } from './assembly-model';

/** What is tested together, each part by its own profile; of those not known typical figures stand in. */
export interface AssemblyProfile<S, U, L> {
  readonly kind: string;
  readonly name: string;
  readonly maker: string;
  readonly source: S;
  readonly unit: U;
  readonly load: L;
  /** Whether the figures of each part are this vehicle's own. */
  readonly known: Readonly<Record<Role, boolean>>;
}

/** Where a whole is tested: what comes before anything is measured and after all was, and how its parts are spoken of. */
export interface Setting<F extends FluidKind | null = FluidKind, S = unknown> extends TestedAt {
  readonly opening: (rig: Rig, fluid: F, source: S) => readonly Step[];
  readonly closing: (rig: Rig, fluid: F, source: S) => readonly Step[];
  readonly names: SpokenOf;
}

/** A stored profile of a whole in whatever form it was written. */
export interface RawWhole {
  readonly load: object;
}

/** What a kind of whole is made of. */
interface Parts<S, U, L, F extends FluidKind | null> {
  readonly kind: string;
  readonly name: string;
  readonly at: Setting<F, S>;
  readonly source: MemberFolder<S>;
  readonly unit: MemberFolder<U>;
  readonly load: MemberFolder<L>;
  readonly members: {
    readonly source: Member<S>;
    /** The source as a gauge at the unit tells it. */
    readonly asRead?: Member<S>;
    readonly unit: Member<U>;
    readonly load: Member<never>;
  };
  /** The load where a gauge on it was read. */
  readonly behind?: LoadBehind;
  /** What the load's member needs to know of the unit besides its own profile. */
  readonly loadOf: (profile: AssemblyProfile<S, U, L>) => unknown;
  readonly curve: FamilyCurve;
  /** Results of a trace that are readings of the model as well. */
  readonly traced?: readonly Traced[];
  readonly fullPower?: true;
  readonly unexplainedFrom?: Family['unexplainedFrom'];
  readonly fluid: (profile: AssemblyProfile<S, U, L>) => F;
  readonly full: (profile: AssemblyProfile<S, U, L>) => Readonly<Record<string, number>>;
  /** What its traces are worked out with. */
  readonly logged: (profile: AssemblyProfile<S, U, L>) => Partial<LoggedUnit>;
  readonly excused: Excused;
  /** What two parts contradict each other in, in a sentence, and the field that it stands beside; null where they go together. */
  readonly contradict?: (
    profile: AssemblyProfile<S, U, L>,
  ) => { readonly path: readonly string[]; readonly say: string } | null;
  /** From each earlier form of its profiles to the next. */
  readonly upcasts?: readonly ((stored: RawWhole) => RawWhole)[];
  /** Of a vehicle: what braking is like once nothing assists it. */
  readonly withoutPower?: (
    profile: AssemblyProfile<S, U, L>,
    whole: HealthyWhole,
    full: Readonly<Record<string, number>>,
    /** The same with nothing from the source, and nothing stored. */
    alone: Readonly<Record<string, number>>,
  ) => WithoutPower | null;
}

/**
 * A whole as a family: a source, a unit and a load, each with its own steps, rules, faults and parts, merged into one test.
 * Readings of the source are those of all three joined. Readings of the unit and its load lean on the source as a gauge at the
 * unit tells it, so that a weak supply is not taken for a weak unit; until it is read they lean on what a healthy one makes.
 */
export function assemblyOf<S, U, L, F extends FluidKind | null = FluidKind>(
  parts: Parts<S, U, L, F>,
): Family {
  type Profile = AssemblyProfile<S, U, L>;
  const { kind, name, at, members, curve, fluid, behind, upcasts = [] } = parts;
  const folders: Readonly<Record<Role, MemberFolder<unknown>>> = {
    source: parts.source as MemberFolder<unknown>,
    unit: parts.unit as MemberFolder<unknown>,
    load: parts.load as MemberFolder<unknown>,
  };
  const of = (role: Role) => (profile: Profile) => profile[role] as unknown;
  const model = wholeModel(members);
  const every = <T>(what: (folder: MemberFolder<unknown>) => readonly T[]): T[] =>
    ROLES.flatMap((role) => what(folders[role]));

  const shownBy = new Map<string, readonly string[]>([
    [SHOWN_BY_UNIT.travel, folders.unit.shows?.travel ?? []],
    [SHOWN_BY_UNIT.pressure, folders.unit.shows?.pressure ?? []],
    [SHOWN_BY_UNIT.flow, folders.unit.shows?.flow ?? []],
    [SHOWN_BY_LOAD.pressure, folders.load.shows?.pressure ?? []],
  ]);

  const healthy = (profile: Profile): HealthyUnit => {
    const { source, unit } = profile;
    const own = model.healthy({ source, unit, load: parts.loadOf(profile) as never });
    if (Object.values(profile.known).every(Boolean)) return own;
    return widened(own, ({ id }) => !profile.known[roleOf(id)], model.parameters);
  };

  const procedure = (profile: Profile, rig: Rig): Procedure => {
    const own = ROLES.flatMap((role) => folders[role].steps(profile[role], rig, at));
    const inOrder = PHASES.flatMap((phase) => own.flatMap((one) => (one.phase === phase ? [one.step] : [])));
    const doable = inOrder.filter(({ items }) =>
      items.every((item) => item.kind !== 'reading' || (rig[item.port] ?? []).length > 0),
    );
    const [opening, closing] = [at.opening, at.closing].map((steps) =>
      steps(rig, fluid(profile), profile.source),
    );
    const steps = [...opening!, ...doable, ...closing!];
    const there = new Set(steps.map(({ id }) => id));
    return {
      id: `${kind}-test`,
      version: 2,
      setting: at.setting,
      steps: steps.map((step) => ({ ...step, needs: step.needs.filter((need) => there.has(need)) })),
    };
  };

  const roleOfStep = (profile: Profile, rig: Rig): Readonly<Record<string, Role>> =>
    Object.fromEntries(
      ROLES.flatMap((role) => folders[role].steps(profile[role], rig, at).map(({ step }) => [step.id, role])),
    );

  const keeps: Keeps<Profile> = {
    supply: () => null,
    readings: Object.assign(
      {},
      ...ROLES.map((role) =>
        Object.fromEntries(
          Object.entries(folders[role].keeps).map(([id, keep]) => [id, keptOf(of(role), keep)]),
        ),
      ),
    ) as Keeps<Profile>['readings'],
    otherwise: { to: 'band', says: () => [] },
  };

  const results = (context: RunContext<Profile>, run: RunState): Result[] => {
    const { profile, rig } = context;
    const asked = healthyWhole(family, profile);
    const there = new Set(context.procedure.steps.map(({ id }) => id));
    const all: ResultRule[] = [
      { of: 'looked' },
      ...ROLES.flatMap((role) => folders[role].results(profile[role], asked)),
    ];
    const rules = all.filter((rule) => !('step' in rule) || there.has(rule.step));
    const role = roleOfStep(profile, rig);
    const against = contradicted(
      ROLES.flatMap((one) => folders[one].contradictions?.(profile[one]) ?? []),
      context,
      run,
    );
    return resultsBy(family, rules, context, run).map((found) => {
      const say = against.get(found.id);
      const result: Result = say
        ? { ...found, verdict: 'close', notes: [...found.notes, sentence(say)] }
        : found;
      const about = ABOUT[role[result.step] ?? 'unit'];
      const whose: Result = result.about === 'unit' ? { ...result, about } : result;
      return profile.known[ROLE_OF_ABOUT[whose.about]] ? whose : onTypicalFigures(whose);
    });
  };

  const behindView = behind && behindLoad(model, behind);
  const family: Family = {
    kind,
    name,
    role: 'unit',
    revision: 1 + upcasts.length,
    upcast: (stored, from) =>
      upcasts.slice(from - 1).reduce((raw, upcast) => upcast(raw), stored as RawWhole),
    profile: z
      .strictObject({
        kind: z.literal(kind),
        ...identityFields,
        known: z
          .strictObject({
            source: z.boolean().meta({ title: parts.source.name }),
            unit: z.boolean().meta({ title: parts.unit.name }),
            load: z.boolean().meta({ title: parts.load.name }),
          })
          .meta({ title: 'Parts whose own figures these are; by typical ones nothing fails' }),
        source: parts.source.profile.meta({ title: parts.source.name }),
        unit: parts.unit.profile.meta({ title: parts.unit.name }),
        load: parts.load.profile.meta({ title: parts.load.name }),
      })
      .superRefine((profile, ctx) => {
        const found = parts.contradict?.(profile as Profile);
        if (found) ctx.addIssue({ code: 'custom', path: [...found.path], message: found.say });
      }),
    typical: {
      kind,
      name: `${name}, typical figures`,
      maker: '',
      known: { source: true, unit: true, load: true },
      source: parts.source.typical,
      unit: parts.unit.typical,
      load: parts.load.typical,
    },
    ...model,
    setting: at.setting,
    views: viewsOf(behindView, model.by),
    healthy: (profile) => healthy(profile as Profile),
    motion: overTime(members as never),
    member: null,
    full: (profile) => parts.full(profile as Profile),
    curve,
    ...(parts.traced && { traced: parts.traced }),
    ...(parts.fullPower && { fullPower: parts.fullPower }),
    ...(parts.unexplainedFrom && { unexplainedFrom: parts.unexplainedFrom }),
    fluid: (profile) => fluid(profile as Profile),
    logged: (profile) => ({
      slave: null,
      rod: null,
      vacuumVolume_m3: 0,
      ...parts.logged(profile as Profile),
    }),
    faults: ROLES.flatMap((role) =>
      folders[role].faults.map((fault): Fault => ({
        ...fault,
        ...(fault.fits && { fits: (healthy) => fault.fits!(healthy.slice(...model.slices[role])) }),
        apply: (vector: readonly number[], severity: number) => {
          const [from, to] = model.slices[role];
          return [
            ...vector.slice(0, from),
            ...fault.apply(vector.slice(from, to), severity),
            ...vector.slice(to),
          ];
        },
      })),
    ),
    looks: every(({ looks }) => looks),
    procedure: (profile, rig) => procedure(profile as Profile, rig),
    parts: ROLES.flatMap((role) =>
      folders[role].parts.map(({ neverRebuilt, ...part }) => ({
        ...part,
        disturbs: part.disturbs.flatMap((step) => shownBy.get(step) ?? [step]),
        ...(neverRebuilt && { neverRebuilt: (profile: unknown) => neverRebuilt((profile as Profile)[role]) }),
      })),
    ),
    gas: Object.assign({}, ...ROLES.map((role) => folders[role].gas)) as NonNullable<Family['gas']>,
    throughInterface: Object.assign(
      {},
      ...ROLES.map((role) =>
        Object.fromEntries(
          Object.entries(folders[role].throughInterface ?? {}).map(([step, through]) => [
            step,
            {
              ...through,
              tells: (log, profile) => through.tells(log, (profile as Profile)[role]),
            } satisfies ThroughInterface,
          ]),
        ),
      ),
    ) as NonNullable<Family['throughInterface']>,
    ports: at.ports,
    leakPoints: every<Port>(({ leakPoints }) => leakPoints),
    expect: (context, run, item) => {
      const set = item.inputFrom ? findItem(context.procedure, item.inputFrom)?.item : null;
      const cut = behind && set?.kind === 'reading' && set.port === behind.input.from.port;
      return expectBy(cut ? behindGauge : family, keeps as Keeps<unknown>, context, run, item);
    },
    results: sayingOverdue((context, run) => results(context as RunContext<Profile>, run)),
    ...(parts.withoutPower && {
      withoutPower: (given) => {
        const profile = given as Profile;
        // Of figures that stand in for a vehicle's own no stop is told.
        if (!profile.known.unit || !profile.known.load) return null;
        const full = parts.full(profile);
        const alone = { ...full, [sourceOf(curve)]: 0, applications: 0 };
        return parts.withoutPower!(profile, healthyWhole(family, profile), full, alone);
      },
    }),
    assess: (context, run, found) => assessAssembly(found, parts.excused, at.names),
  };
  const behindGauge: Family = { ...family, ...behindView };
  return family;
}

/** Every way to ask a whole, the one that takes the most from what was read first; one that is another under a second name once. */
function viewsOf(
  behind: View | undefined,
  { gauge, itself }: { readonly gauge: View; readonly itself: View },
): readonly [View, ...View[]] {
  const own: readonly [View, ...View[]] = gauge === itself ? [itself] : [gauge, itself];
  return behind ? [behind, ...own] : own;
}

/** What a result of a part's own steps is about. */
const ABOUT: Readonly<Record<Role, Result['about']>> = { source: 'supply', unit: 'unit', load: 'load' };

const ROLE_OF_ABOUT: Readonly<Record<Result['about'], Role>> = {
  unit: 'unit',
  supply: 'source',
  load: 'load',
  gauges: 'unit',
};

/** A result that would fail by figures which only stand in for the vehicle's own. */
const onTypicalFigures = (result: Result): Result =>
  result.verdict === 'fails'
    ? {
        ...result,
        verdict: 'close',
        advice: null,
        notes: [
          ...result.notes,
          sentence('Outside typical figures. This part’s own are not known, so nothing fails by them.'),
        ],
      }
    : result;
