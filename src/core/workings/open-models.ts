import { z } from 'zod';
import { BENCH_LOADS, BENCH_SOURCES } from '../families/bench-members';
import { FAMILIES, FAMILY_KINDS, type FamilyKind } from '../families/registry';
import { SI_SYMBOL } from '../quantities/si-symbol';
import type { Fault } from '../contract/family';
import type { Descriptor, Vector } from '../model/descriptor';
import { installation, whyNotJoined } from '../model/installation';
import type { Member, Model } from '../model/member';
import { inputVector } from '../model/vectors';

/** One number of a model as another program is told of it. */
interface Told extends Descriptor {
  /** SI unit that its numbers are in. */
  readonly unit: string;
}

const told = (descriptors: readonly Descriptor[]): Told[] =>
  descriptors.map(({ id, name, quantity }) => ({ id, name, quantity, unit: SI_SYMBOL[quantity] }));

const numbersOf = ({
  parameters,
  inputs,
  readings,
}: Pick<Model<unknown>, 'parameters' | 'inputs' | 'readings'>) => ({
  parameters: told(parameters),
  inputs: told(inputs),
  readings: told(readings),
});

type Sources = typeof BENCH_SOURCES;
type Loads = typeof BENCH_LOADS;
const SOURCE_KINDS = Object.keys(BENCH_SOURCES) as [keyof Sources, ...(keyof Sources)[]];
const LOAD_KINDS = Object.keys(BENCH_LOADS) as [keyof Loads, ...(keyof Loads)[]];

/** A member that is chosen by name, its profile type closed over. */
interface Chosen {
  readonly name: string;
  readonly profile: z.ZodType;
  readonly typical: unknown;
  readonly member: Member<unknown>;
}
const sourceOf = (kind: keyof Sources) => BENCH_SOURCES[kind] as unknown as Chosen;
const loadOf = (kind: keyof Loads) => BENCH_LOADS[kind] as unknown as Chosen;

const joined = (role: 'source' | 'load', kind: string, { name, typical, member }: Chosen) => ({
  kind,
  name,
  role,
  ...numbersOf(member),
  feeds: member.feeds,
  fedBy: member.fedBy,
  typical,
});

/** Every model that can be asked, with the names and units of all that goes in and comes out, and what can be joined. */
export const modelList = () => ({
  models: FAMILY_KINDS.map((kind) => {
    const family = FAMILIES[kind];
    return {
      kind,
      name: family.name,
      role: family.role,
      ...numbersOf(family),
      faults: family.faults.map(({ id, name, plain, prior }) => ({ id, name, plain, prior })),
    };
  }),
  installation: {
    units: FAMILY_KINDS.flatMap((kind) => {
      const { name, member } = FAMILIES[kind];
      return member
        ? [{ kind, name, role: 'unit', ...numbersOf(member), feeds: member.feeds, fedBy: member.fedBy }]
        : [];
    }),
    sources: SOURCE_KINDS.map((kind) => joined('source', kind, sourceOf(kind))),
    loads: LOAD_KINDS.map((kind) => joined('load', kind, loadOf(kind))),
  },
});

const name = z.string().max(80);
const numbers = z.record(name, z.number('a number is needed'));

const differences = {
  /** Every input by its id. */
  inputs: numbers,
  /** Faults one after another, each with its severity: 0 just begun, 1 severe. */
  faults: z
    .array(
      z.strictObject({
        id: name,
        severity: z.number().min(0, 'Severity: 0 at the least.').max(1, 'Severity: 1 at the most.'),
      }),
    )
    .max(20)
    .optional(),
  /** Parameters that take the place of what profile and faults make them. */
  parameters: numbers.optional(),
};

/** What is asked of a model: a profile, its inputs in SI, and what is to differ from the healthy unit. */
export const steadySchema = z.strictObject({
  /** A profile of the kind; without one its typical figures. */
  profile: z.unknown().optional(),
  ...differences,
});

/** What is asked of an installation: which members, their profiles, and at which nodes a gauge was read. */
export const installationSchema = z.strictObject({
  source: z.enum(SOURCE_KINDS, `Source: one of ${SOURCE_KINDS.join(', ')}.`),
  unit: z.enum(FAMILY_KINDS, `Unit: one of ${FAMILY_KINDS.join(', ')}.`),
  load: z.enum(LOAD_KINDS, `Load: one of ${LOAD_KINDS.join(', ')}.`),
  /** Profiles by role; a role without one has its typical figures. */
  profiles: z
    .strictObject({ source: z.unknown(), unit: z.unknown(), load: z.unknown() })
    .partial()
    .optional(),
  /** Terminals of the unit at which a gauge was read: its reading is the input `cut.<terminal>`. */
  cut: z.array(name).max(20).optional(),
  ...differences,
});

/** What a model answers: every reading, and the parameters that it was worked out with. SI. */
export interface SteadyAnswer {
  readonly kind: string;
  readonly readings: readonly (Told & { readonly value: number })[];
  readonly parameters: Readonly<Record<string, number>>;
}

interface Issue {
  path: PropertyKey[];
  message: string;
}
export type SteadyOutcome =
  { readonly ok: true; readonly answer: SteadyAnswer } | { readonly ok: false; readonly issues: Issue[] };

/** A profile as asked for, or what is wrong with it by path. */
function profileOf(schema: z.ZodType, given: unknown, path: PropertyKey[]) {
  const parsed = schema.safeParse(given);
  return parsed.success
    ? { ok: true as const, profile: parsed.data as unknown, issues: [] }
    : {
        ok: false as const,
        issues: parsed.error.issues.map((issue): Issue => ({
          path: [...path, ...issue.path],
          message: issue.message,
        })),
      };
}

type Asked = z.infer<z.ZodObject<typeof differences>>;

/** What is wrong with the names of inputs, parameters and faults. */
const wrongNames = (
  model: Model<unknown>,
  faultsOf: readonly Fault[],
  { inputs, faults = [], parameters = {} }: Asked,
): Issue[] => [
  ...unknownNames('inputs', 'input', inputs, model.inputs),
  ...unknownNames('parameters', 'parameter', parameters, model.parameters),
  ...model.inputs
    .filter(({ id }) => !(id in inputs))
    .map(({ id, name }) => ({ path: ['inputs', id], message: `${name} (${id}) is left out.` })),
  ...faults.flatMap(({ id }, i) =>
    faultsOf.some((fault) => fault.id === id)
      ? []
      : [{ path: ['faults', i, 'id'], message: `There is no fault “${id}”.` }],
  ),
];

/** @param faultsOf faults of the whole model: they move its parameters in declared order */
function answerOf(
  kind: string,
  model: Model<unknown>,
  healthy: Vector,
  faultsOf: readonly Pick<Fault, 'id' | 'apply'>[],
  { inputs, faults = [], parameters = {} }: Asked,
): SteadyOutcome {
  const faulty = faults.reduce<Vector>(
    (vector, { id, severity }) => faultsOf.find((fault) => fault.id === id)!.apply(vector, severity),
    healthy,
  );
  const vector = faulty.map((value, i) => parameters[model.parameters[i]!.id] ?? value);
  const values = model.steady(vector, inputVector(model.inputs, inputs));
  return {
    ok: true,
    answer: {
      kind,
      readings: told(model.readings).map((reading, i) => ({ ...reading, value: values[i]! })),
      parameters: Object.fromEntries(model.parameters.map(({ id }, i) => [id, vector[i]!])),
    },
  };
}

/**
 * Every steady reading of a unit on its bench, healthy or not. Nothing is assumed: an input left out, or a name that the
 * model does not know, is refused by that name.
 *
 * @param asked as in `steadySchema`; anything else is refused with what is wrong by path
 */
export function steadyReadings(kind: FamilyKind, asked: unknown): SteadyOutcome {
  const parsed = steadySchema.safeParse(asked);
  if (!parsed.success) return { ok: false, issues: parsed.error.issues };
  const family = FAMILIES[kind];
  const profile = profileOf(family.profile, parsed.data.profile ?? family.typical, ['profile']);
  const issues = [...profile.issues, ...wrongNames(family, family.faults, parsed.data)];
  if (issues.length > 0 || !profile.ok) return { ok: false, issues };
  return answerOf(kind, family, family.healthy(profile.profile).values, family.faults, parsed.data);
}

/**
 * Every steady reading of a source, a unit and a load joined at their nodes, some of them cut where a gauge was read.
 * Members that cannot be joined are refused with the terminal that finds nothing.
 *
 * @param asked as in `installationSchema`; anything else is refused with what is wrong by path
 */
export function installationReadings(asked: unknown): SteadyOutcome {
  const parsed = installationSchema.safeParse(asked);
  if (!parsed.success) return { ok: false, issues: parsed.error.issues };
  const { source, unit, load, profiles = {}, cut = [] } = parsed.data;
  const family = FAMILIES[unit];
  const chosen = {
    source: sourceOf(source),
    unit: family as unknown as Chosen,
    load: loadOf(load),
  };
  const members = {
    source: chosen.source.member,
    unit: chosen.unit.member,
    load: chosen.load.member,
  };
  const read = (role: keyof typeof chosen) =>
    profileOf(chosen[role].profile, profiles[role] ?? chosen[role].typical, ['profiles', role]);
  const own = { source: read('source'), unit: read('unit'), load: read('load') };
  const unjoined = whyNotJoined(members, cut);
  const issues = [
    ...Object.values(own).flatMap((one) => one.issues),
    ...(unjoined ? [{ path: [cut.length > 0 ? 'cut' : 'unit'], message: unjoined }] : []),
  ];
  if (issues.length > 0 || !own.source.ok || !own.unit.ok || !own.load.ok) return { ok: false, issues };
  const model = installation(members, cut) as Model<unknown>;
  const wrong = wrongNames(model, family.faults, parsed.data);
  if (wrong.length > 0) return { ok: false, issues: wrong };
  const { values } = model.healthy({
    source: own.source.profile,
    unit: own.unit.profile,
    load: own.load.profile,
  });
  return answerOf('installation', model, values, family.faults, parsed.data);
}

const unknownNames = (
  field: string,
  what: string,
  given: Readonly<Record<string, number>>,
  known: readonly Descriptor[],
): Issue[] =>
  Object.keys(given)
    .filter((id) => !known.some((one) => one.id === id))
    .map((id) => ({
      path: [field, id],
      message: `“${id}” is no ${what} of this model: ${known.map((one) => one.id).join(', ')}.`,
    }));
