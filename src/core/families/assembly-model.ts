import { SEA_LEVEL_PA } from '../air/atmosphere';
import { REFERENCE_TEMPERATURE_K } from '../air/leak';
import type { Family, HealthyWhole, LoadBehind, View } from '../contract/family';
import { installation, ROLES, type Role } from '../model/installation';
import type { Member, Model, Wanted } from '../model/member';
import { AT_ONCE, placeOf, readingOf, unread, type HealthyUnit } from '../model/vectors';

/** Whose a parameter or reading of the whole is: the unit's own carry no name. */
export const roleOf = (id: string): Role => ROLES.find((role) => id.startsWith(`${role}.`)) ?? 'unit';

/**
 * The three joined, as they are and as a gauge at the unit tells the source: the readings of both together.
 *
 * @param asRead the source as that gauge tells it; where nothing tells it, there is only one way to ask
 */
export function wholeModel<S, U>({
  source,
  asRead: sourceAsRead = source,
  unit,
  load,
}: {
  readonly source: Member<S>;
  readonly asRead?: Member<S>;
  readonly unit: Member<U>;
  readonly load: Member<never>;
}) {
  const whole = installation({ source, unit, load });
  const known = sourceAsRead === source ? whole : installation({ source: sourceAsRead, unit, load });
  const places = whole.inputs.map(({ id }) => placeOf(known.inputs, id));
  const ofSource = known.readings.flatMap(({ id }, place) => (roleOf(id) === 'source' ? [place] : []));
  const counts = {
    unit: unit.parameters.length,
    source: source.parameters.length,
    load: load.parameters.length,
  };
  const slices = {
    unit: [0, counts.unit],
    source: [counts.unit, counts.unit + counts.source],
    load: [counts.unit + counts.source, counts.unit + counts.source + counts.load],
  } as const satisfies Record<Role, readonly [number, number]>;
  /** What the source shows is not told by a gauge that takes its place. */
  const asRead: View = {
    inputs: known.inputs,
    steady: (parameters, inputs, wanted) => {
      const readings = known.steady(parameters, inputs, wanted);
      for (const place of ofSource) readings[place] = NaN;
      return readings;
    },
  };
  if (known === whole) return { ...whole, slices, by: { gauge: whole as View, itself: whole as View } };
  return {
    ...known,
    slices,
    /** By what a gauge at the unit shows, and by nothing but the parts themselves. */
    by: { gauge: asRead, itself: whole as View },
    steady: (parameters: readonly number[], inputs: readonly number[], wanted?: Wanted): number[] => {
      const readings = known.steady(parameters, inputs, wanted);
      const joined = whole.steady(
        parameters,
        places.map((place) => inputs[place]!),
        wanted,
      );
      for (const place of ofSource) readings[place] = joined[place]!;
      return readings;
    },
  };
}

/** The whole where a gauge on the load was read: what drives it has no part in what it shows. The other readings are not known. */
export function behindLoad(
  model: Pick<ReturnType<typeof wholeModel>, 'readings' | 'slices'>,
  { input, inputs, read }: LoadBehind,
): Pick<Model<unknown>, 'inputs' | 'steady'> {
  const ofLoad = model.readings.flatMap(({ id }, place) => (roleOf(id) === 'load' ? [place] : []));
  return {
    inputs: [input, ...inputs],
    steady: (vector, [shown = 0, ...others]) => {
      const found = read(vector.slice(...model.slices.load), shown, others);
      const readings = unread(model.readings);
      ofLoad.forEach((place, i) => (readings[place] = found[i]!));
      return readings;
    },
  };
}

/** How many times as far a healthy part may lie from typical figures that only stand in for its own. */
const STAND_IN = 3;

/** Healthy parts, those not known as wide again as typical figures deserve. */
export function widened(
  { values, tolerances }: HealthyUnit,
  standsIn: (parameter: { readonly id: string }) => boolean,
  parameters: readonly { readonly id: string }[],
): HealthyUnit {
  return {
    values,
    tolerances: tolerances.map((half, i) => (standsIn(parameters[i]!) ? STAND_IN * half : half)),
  };
}

/** A whole of which every part is healthy. */
export function healthyWhole(family: Family, profile: unknown): HealthyWhole {
  const { values } = family.healthy(profile);
  return {
    shows: (reading, inputs) => {
      const known = {
        barometer_Pa: SEA_LEVEL_PA,
        temperature_K: REFERENCE_TEMPERATURE_K,
        ...AT_ONCE,
        supply_Pa: 0,
        ...inputs,
      };
      return readingOf(family, values, known, reading);
    },
  };
}
