import type { AssemblyProfile } from '../families/assembly';
import { ROLES, type Role } from '../model/installation';

/** A part as a profile on the Shelf describes it. */
export interface FittedPart {
  /** The vehicle or bench whose profile it stands in; null for a part that has a profile of its own. */
  readonly vehicle: string | null;
  readonly name: string;
  readonly body: Named;
}

/** A part names what kind it is, by which profiles of its own are known. */
interface Named {
  readonly kind: string;
  readonly name: string;
}
/** A source, a unit and a load as far as they are parts. */
export type Fitted = AssemblyProfile<Named, Named, Named>;

/**
 * Parts of one kind that the Shelf describes by figures of their own: each once, by its name.
 *
 * @param wholes profiles that are put together from parts, whatever they are
 * @param alone profiles of such parts by themselves
 */
export function partsOnShelf(
  wholes: readonly Fitted[],
  role: Role,
  kind: string,
  alone: readonly Named[] = [],
): FittedPart[] {
  const found = new Map(
    alone.map((body): [string, FittedPart] => [body.name, { vehicle: null, name: body.name, body }]),
  );
  for (const whole of wholes) {
    const body = whole[role];
    if (body.kind === kind && whole.known[role] && !found.has(body.name))
      found.set(body.name, { vehicle: whole.name, name: body.name, body });
  }
  return [...found.values()];
}

/** Whether a profile is put together from parts. */
export const isWhole = (body: object): body is Fitted => 'known' in body;

/**
 * The profile of a vehicle put together from parts. For one that is not known the typical figures stand in, and nothing
 * fails by them.
 *
 * @param chosen by role; null for a part that is not known
 */
export function fittedFrom(
  typical: Fitted,
  identity: { readonly name: string; readonly maker: string },
  chosen: Readonly<Record<Role, FittedPart | null>>,
): Fitted {
  const of = <T>(made: (role: Role) => T) =>
    Object.fromEntries(ROLES.map((role) => [role, made(role)])) as Record<Role, T>;
  return {
    ...typical,
    ...identity,
    ...of((role) => chosen[role]?.body ?? typical[role]),
    known: of((role) => chosen[role] !== null),
  };
}
