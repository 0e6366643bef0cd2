import { z } from 'zod';
import { FAMILIES, FAMILY_KINDS, type FamilyKind } from '../families/registry';
import { SI_SYMBOL } from '../quantities/si-symbol';
import type { Descriptor } from '../model/descriptor';
import type { Family } from '../contract/family';

/** One number of a model as another program is told of it. */
interface Told extends Descriptor {
  /** SI unit that its numbers are in. */
  readonly unit: string;
}

const told = (descriptors: readonly Descriptor[]): Told[] =>
  descriptors.map(({ id, name, quantity }) => ({ id, name, quantity, unit: SI_SYMBOL[quantity] }));

/** Every model that can be asked, with the names and units of all that goes in and comes out. */
export const modelList = () =>
  FAMILY_KINDS.map((kind) => {
    const family = FAMILIES[kind];
    return {
      kind,
      name: family.name,
      role: family.role,
      parameters: told(family.parameters),
      inputs: told(family.inputs),
      readings: told(family.readings),
      faults: family.faults.map(({ id, name, plain }) => ({ id, name, plain })),
    };
  });

const numbers = z.record(z.string().max(80), z.number('a number is needed'));

/** What is asked of a model: a profile, its inputs in SI, and what is to differ from the healthy unit. */
export const steadySchema = z.strictObject({
  /** A profile of the kind; without one its typical figures. */
  profile: z.unknown().optional(),
  /** Every input by its id. */
  inputs: numbers,
  /** Faults one after another, each with its severity: 0 just begun, 1 severe. */
  faults: z
    .array(
      z.strictObject({
        id: z.string().max(80),
        severity: z.number().min(0, 'Severity: 0 at the least.').max(1, 'Severity: 1 at the most.'),
      }),
    )
    .max(20)
    .optional(),
  /** Parameters that take the place of what profile and faults make them. */
  parameters: numbers.optional(),
});
export type SteadyRequest = z.infer<typeof steadySchema>;

/** What a model answers: every reading, and the parameters that it was worked out with. SI. */
export interface SteadyAnswer {
  readonly kind: FamilyKind;
  readonly readings: readonly (Told & { readonly value: number })[];
  readonly parameters: Readonly<Record<string, number>>;
}

export type SteadyOutcome =
  | { readonly ok: true; readonly answer: SteadyAnswer }
  | { readonly ok: false; readonly issues: readonly { path: PropertyKey[]; message: string }[] };

/**
 * Every steady reading of a model, healthy or not. Nothing is assumed: an input left out, or a name that the model does
 * not know, is refused by that name.
 *
 * @param asked as in `steadySchema`; anything else is refused with what is wrong by path
 */
export function steadyReadings(kind: FamilyKind, asked: unknown): SteadyOutcome {
  const parsed = steadySchema.safeParse(asked);
  if (!parsed.success) return { ok: false, issues: parsed.error.issues };
  const family = FAMILIES[kind];
  const { inputs, faults = [], parameters = {} } = parsed.data;
  const profile = family.profile.safeParse(parsed.data.profile ?? family.typical);
  const issues = [
    ...(profile.success
      ? []
      : profile.error.issues.map(({ path, message }) => ({ path: ['profile', ...path], message }))),
    ...unknownNames('inputs', 'input', inputs, family.inputs),
    ...unknownNames('parameters', 'parameter', parameters, family.parameters),
    ...family.inputs
      .filter(({ id }) => !(id in inputs))
      .map(({ id, name }) => ({ path: ['inputs', id], message: `${name} (${id}) is left out.` })),
    ...faults.flatMap(({ id }, i) =>
      faultOf(family, id) ? [] : [{ path: ['faults', i, 'id'], message: `There is no fault “${id}”.` }],
    ),
  ];
  if (issues.length > 0 || !profile.success) return { ok: false, issues };
  const faulty = faults.reduce<readonly number[]>(
    (vector, { id, severity }) => faultOf(family, id)!.apply(vector, severity),
    family.healthy(profile.data).values,
  );
  const vector = faulty.map((value, i) => parameters[family.parameters[i]!.id] ?? value);
  const values = family.steady(
    vector,
    family.inputs.map(({ id }) => inputs[id]!),
  );
  const readings = told(family.readings).map((reading, i) => ({ ...reading, value: values[i]! }));
  return {
    ok: true,
    answer: {
      kind,
      readings,
      parameters: Object.fromEntries(family.parameters.map(({ id }, i) => [id, vector[i]!])),
    },
  };
}

const faultOf = (family: Family, id: string) => family.faults.find((fault) => fault.id === id);

const unknownNames = (
  field: string,
  what: string,
  given: Readonly<Record<string, number>>,
  known: readonly Descriptor[],
) =>
  Object.keys(given)
    .filter((id) => !known.some((one) => one.id === id))
    .map((id) => ({
      path: [field, id],
      message: `“${id}” is no ${what} of this model: ${known.map((one) => one.id).join(', ')}.`,
    }));
