import type { Descriptor, Vector } from './descriptor';

/** A state of a model that changes with time, and the size at which it begins to matter. */
export interface StateDescriptor extends Descriptor {
  readonly scale: number;
}

/** What a unit pushes on: the effort that answers what it has displaced (Pa for m³, N for m). */
export interface Load {
  readonly effort: (displaced: number) => number;
  /** Its slope's inverse at an effort: how much more is displaced for a little more effort. */
  readonly give: (effort: number) => number;
}

/** What acts on a unit at an instant. One object, written over as time goes on. */
export interface Around {
  /** What the hand asks for at the handle: input pressure, Pa. */
  handle: number;
  /** The input line is shut in: the handle no longer reaches the unit. */
  shutIn: boolean;
  /** Absolute pressure at the source's end of the hose, Pa. */
  source_Pa: number;
  /** 'open' to the source, 'shut', or 'vented' to the room. */
  valve: 'open' | 'shut' | 'vented';
  readonly barometer_Pa: number;
  readonly temperature_K: number;
  readonly load: Load;
}

/** A unit over time, its parameters taken in once. Its steady end is the family's closed form. */
export interface Motion {
  /** The unit at rest, vented and released. */
  readonly atRest: (around: Around) => number[];
  /**
   * Writes the rates of its states, which stand first in `y` and `dy`; what stands behind them is not its own.
   *
   * @returns air drawn from it by the source, as p·V per second, Pa·m³/s
   */
  readonly rates: (y: Float64Array, dy: Float64Array, around: Around) => number;
  /** Writes what a true gauge on each of the family's ports would show, in the order of the ports. */
  readonly ports: (y: Float64Array, around: Around, shown: Float64Array) => void;
}

/** A family's part of the contract that needs time. */
export interface UnitMotion {
  readonly states: readonly StateDescriptor[];
  readonly with: (parameters: Vector) => Motion;
}

/** A unit over time on a bench. */
export interface MotionModel extends UnitMotion {
  /** What stands on the bench in place of the vehicle's brakes: a plugged port, a load cell. */
  readonly benchLoad: (parameters: Vector, barometer_Pa: number) => Load;
}
