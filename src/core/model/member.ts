import type { Descriptor, Vector } from './descriptor';
import type { Motion } from './motion';
import type { HealthyUnit, InputDescriptor } from './vectors';

/**
 * How two members meet at a node: there the effort is one and the same for both, and what one of them gives is what the
 * other takes. `close` is how nearly the effort is found, SI: far below what any gauge shows.
 */
export const COUPLINGS = {
  vacuum: { effort: 'absolute pressure, Pa', passes: 'air as p·V per second, Pa·m³/s', close: 0.01 },
  fluid: { effort: 'pressure, Pa', passes: 'volume taken up, m³', close: 1 },
  pumped: { effort: 'pressure, Pa', passes: 'flow, m³/s', close: 1 },
  electric: { effort: 'voltage, V', passes: 'current, A', close: 1e-6 },
  rod: { effort: 'force, N', passes: 'length, m', close: 1e-4 },
} as const;
export type Coupling = keyof typeof COUPLINGS;

/** A place where a member can be joined to another of the same coupling and circuit. */
export interface Terminal {
  readonly id: string;
  readonly name: string;
  readonly coupling: Coupling;
  readonly circuit?: string;
}

/** What stays joined to a unit once its source has stopped. */
export interface Stopped {
  /** Volume that empties with the unit: a tank, the hose up to the check valve. */
  readonly volume_m3: number;
  /** Air that comes into that volume by itself, and what the check valve lets back, m³/(s·Pa). */
  readonly leak_m3PerSPa: number;
  readonly back_m3PerSPa: number;
  /** Difference at which the check valve lets out what a stroke presses together, Pa. */
  readonly crack_Pa: number;
}

/** Balances that a member can have struck at one of its terminals, whatever is joined to it there. */
export interface Nodes {
  /**
   * The effort at which what this member gives, by the function handed in, is what the other side takes.
   *
   * @param through falling in the effort
   * @param span where the member feeds the terminal: between what efforts it lies, if not between those of `Standing.span`
   */
  readonly settle: (
    terminal: number,
    through: (effort: number) => number,
    span?: readonly [idle: number, furthest: number],
  ) => number;
  /** What the other side takes at an effort. */
  readonly taken: (terminal: number, effort: number) => number;
  /** What the other side takes besides in each second, where the effort is held. */
  readonly goesOn: (terminal: number, effort: number) => number;
  /** What stays joined at a terminal once the source there has stopped. */
  readonly stopped: (terminal: number) => Stopped;
}

/** Places of the readings that are asked for. */
export type Wanted = Pick<ReadonlySet<number>, 'has'>;

/** A member with its parameters under its inputs. */
export interface Standing {
  /** For a terminal that it feeds: the effort while nothing passes, and the furthest that it can be brought to. */
  readonly span: (terminal: number, efforts: ArrayLike<number>) => readonly [idle: number, furthest: number];
  /**
   * What it passes at a terminal: what it gives, where the effort that it is given for falls as more is given, or what
   * it takes, which rises with the effort.
   */
  readonly through: (terminal: number, effort: number, efforts: ArrayLike<number>) => number;
  /** At rest, with a gauge on the member showing so much: the effort at the terminal, and what passes there. */
  readonly atRest: (terminal: number, gauge: number) => { readonly effort: number; readonly passes: number };
  /**
   * For a source that is known by a gauge while the unit stands at rest: the same source as it must be for so much to pass at that
   * effort. What the unit draws at rest is in the gauge's reading; a unit that draws less at work is served better than that.
   */
  readonly drawnAtRest?: (effort: number, passes: number) => Pick<Standing, 'span' | 'through'>;
  /** For a terminal that it feeds: the effort that it brings there, where that need not be balanced with what is taken. */
  readonly brings?: (terminal: number, efforts: ArrayLike<number>, nodes: Nodes) => number;
  /** For a unit with a switch of its own: whether it ever asks its source there for anything. Where it does not, the source is told NaN. */
  readonly asks?: (terminal: number) => boolean;
  /** For a load: what it takes besides in each second, with the effort held; nothing where it is left out. */
  readonly goesOn?: (terminal: number, effort: number) => number;
  /** For a source: what stays joined to the unit once it has stopped; nothing where it is left out. */
  readonly stopped?: Stopped;
  /** Every reading in declared order, once the efforts are known; of a unit, at least those that are wanted. */
  readonly read: (efforts: ArrayLike<number>, nodes: Nodes, wanted?: Wanted) => number[];
}

/** A source, a unit or a load: a model that is whole only where its terminals are joined or cut. */
export interface Member<Profile> {
  readonly parameters: readonly Descriptor[];
  readonly inputs: readonly InputDescriptor[];
  readonly readings: readonly Descriptor[];
  /** Terminals at which it is fed, then those that it feeds: their places, counted through, name them in `Standing`. */
  readonly fedBy: readonly Terminal[];
  readonly feeds: readonly Terminal[];
  readonly healthy: (profile: Profile) => HealthyUnit;
  readonly with: (parameters: Vector, inputs: Vector) => Standing;
  /** The same over time; where there is none, it is known at rest only. */
  readonly motion?: Motion;
}

/** A model that is whole: its readings follow from its parameters and inputs alone. */
export interface Model<Profile> {
  readonly parameters: readonly Descriptor[];
  readonly inputs: readonly InputDescriptor[];
  readonly readings: readonly Descriptor[];
  readonly healthy: (profile: Profile) => HealthyUnit;
  /**
   * Every steady reading. Called often: allocates little.
   *
   * @param wanted places of the readings that are asked for; others may be no number where they cost much
   */
  readonly steady: (parameters: Vector, inputs: Vector, wanted?: Wanted) => number[];
}
