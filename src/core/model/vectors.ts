import type { Descriptor, Vector } from './descriptor';

/** An input of a model, and the bench port whose gauge tells it. */
export interface InputDescriptor extends Descriptor {
  /**
   * 'set': the port's reading that goes with the one predicted. 'source': the last reading before it; until there is one,
   * what the reading of the model named `until` is when all is healthy, where one is named. One that `stays` does not go with
   * the source: oil is as warm with the pump off.
   */
  readonly from?:
    | { readonly port: string; readonly as: 'set' }
    | {
        readonly port: string;
        readonly as: 'source';
        readonly until?: string;
        readonly stays?: true;
      };
  /**
   * Where it counts what is done by hand: above so many, a reading lies this part of it from what the model says, besides its gauge.
   */
  readonly unsteady?: { readonly above: number; readonly part: number };
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

/** Numbers by name, for use inside a family. */
export type Named<D extends readonly Descriptor[]> = Record<D[number]['id'], number>;

/** Readings before any of them is worked out. Filled outright: units are asked for them many thousand times. */
export const unread = (readings: readonly Descriptor[]): number[] =>
  new Array<number>(readings.length).fill(NaN);

/** Puts named numbers in declared order. */
export function toVector<D extends readonly Descriptor[]>(descriptors: D, named: Named<D>): number[] {
  return descriptors.map(({ id }) => named[id as D[number]['id']]);
}

/**
 * Gives names to numbers in declared order, made ready once: it is asked for every state of a model. What it returns looks the
 * numbers up in the vector, so that none is copied; it is not to be spread.
 *
 * @returns a function of a vector that begins with these numbers; what stands behind them is left alone
 */
export function reader<D extends readonly Descriptor[]>(descriptors: D): (vector: Vector) => Named<D> {
  class View {
    constructor(readonly vector: Vector) {}
  }
  descriptors.forEach(({ id }, place) =>
    Object.defineProperty(View.prototype, id, {
      get(this: View) {
        return this.vector[place];
      },
    }),
  );
  return (vector) => new View(vector) as unknown as Named<D>;
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

/** A fault as the change it makes to named parameters: `s` is the severity, 0 to 1. The parameters are looked up as by `reader`. */
export const moving = <D extends readonly Descriptor[]>(descriptors: D) => {
  const named = reader(descriptors);
  const places = new Map(descriptors.map(({ id }, place) => [id, place]));
  return (change: (p: Named<D>, s: number) => Partial<Named<D>>) =>
    (healthy: Vector, severity: number): number[] => {
      const moved = healthy.slice(0, descriptors.length);
      for (const [id, value] of Object.entries(change(named(healthy), severity) as Record<string, number>))
        moved[places.get(id)!] = value;
      return moved;
    };
};

/** Place of a name in declared order. @throws RangeError where there is none of that name */
export function placeOf(descriptors: readonly Descriptor[], id: string): number {
  const place = descriptors.findIndex((descriptor) => descriptor.id === id);
  if (place < 0) throw new RangeError(`id: no “${id}” among ${descriptors.map((d) => d.id).join(', ')}`);
  return place;
}

/** More tolerances than this are no family's: every corner of their box is looked at. */
const MOST_TOLERANCES = 8;

/**
 * The outermost healthy units: those that were named, or else every corner of the tolerances. One tolerance at a time
 * would not do: near a knee a steeper line shows only where the ceiling is higher too.
 *
 * @throws RangeError where there are more than 8 tolerances
 */
export function extremesOf({ values, tolerances, extremes }: HealthyUnit): readonly Vector[] {
  if (extremes) return extremes;
  const moved = tolerances.flatMap((half, i) => (half === 0 ? [] : [i]));
  if (moved.length > MOST_TOLERANCES) throw new RangeError(`tolerances: ${moved.length} are too many`);
  return Array.from({ length: 1 << moved.length }, (_, corner) => {
    const at = [...values];
    moved.forEach((i, bit) => {
      at[i]! += (corner >> bit) & 1 ? tolerances[i]! : -tolerances[i]!;
    });
    return at;
  });
}

/** The moment that a test begins: no time has gone by, and nothing was applied yet. */
export const AT_ONCE = { elapsed_s: 0, applications: 0 } as const;

/**
 * Inputs of a model in declared order, from their names.
 *
 * @throws RangeError where one is left out: nothing is taken as zero
 */
export const inputVector = (
  inputs: readonly Descriptor[],
  known: Readonly<Record<string, number>>,
): number[] =>
  inputs.map(({ id }) => {
    const value = known[id];
    if (value === undefined) throw new RangeError(`inputs: “${id}” is left out`);
    return value;
  });

/**
 * One steady reading of a model with nothing set and nothing done, in a room: what its source makes while all is at rest. Oil is as
 * warm and a battery as full as they are then too.
 */
export function restingReading(
  model: Resting,
  parameters: Vector,
  room: Readonly<Record<'barometer_Pa' | 'temperature_K', number>>,
  reading: string,
): number {
  const nothing = { ...Object.fromEntries(model.inputs.map(({ id }) => [id, 0])), ...room };
  const standing = model.inputs.flatMap(({ id, from }) =>
    from?.as === 'source' && from.stays && from.until && from.until !== reading
      ? [[id, readingOf(model, parameters, nothing, from.until)] as const]
      : [],
  );
  return readingOf(model, parameters, { ...nothing, ...Object.fromEntries(standing) }, reading);
}

type Resting = Omit<Parameters<typeof readingOf>[0], 'inputs'> & {
  readonly inputs: readonly InputDescriptor[];
};

/**
 * One steady reading of a model, everything by name.
 *
 * @throws RangeError where an input is left out, or there is no such reading
 */
export const readingOf = (
  model: {
    readonly inputs: readonly Descriptor[];
    readonly readings: readonly Descriptor[];
    readonly steady: (parameters: Vector, inputs: Vector, wanted?: ReadonlySet<number>) => number[];
  },
  parameters: Vector,
  known: Readonly<Record<string, number>>,
  reading: string,
): number => {
  const place = placeOf(model.readings, reading);
  return model.steady(parameters, inputVector(model.inputs, known), new Set([place]))[place]!;
};
