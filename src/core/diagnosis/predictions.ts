import type { Family, View } from '../contract/family';
import type { InputDoubt } from '../twin/fit';
import type { Vector } from '../model/descriptor';
import type { State } from './evidence';
import type { Particle, ParticleSet } from './particles';

const keyOf = ({ view, inputs }: State) => `${view}:${inputs.join(',')}`;

/** Columns of readings, and which of the particles are in them already. */
interface Kept {
  readonly columns: readonly Float64Array[];
  readonly there: Uint8Array;
}

/**
 * What particles show in a state, worked out once for each and kept: an update by one more reading only weighs anew. Columns are
 * one number for each particle, in their order; those that were not asked for are zero.
 */
export class Predictions {
  private readonly kept = new Map<string, Kept>();
  private readonly every: readonly number[];

  constructor(
    private readonly twin: Pick<Family, 'views' | 'readings'>,
    readonly set: ParticleSet,
  ) {
    this.every = set.particles.map((_, k) => k);
  }

  /** One reading in a state, by some particles or by all. */
  column(state: State, place: number, of = this.every): Float64Array {
    const { particles } = this.set;
    const { steady } = this.view(state);
    return this.filled(keyOf(state), place, of, (k) => steady(particles[k]!.parameters, state.inputs));
  }

  /**
   * How much a reading changes with an input, taken over one standard uncertainty of it, which is what the doubt really spans.
   * It is worked out for the leading particles only; the others have that of theirs. So with the ways in which units differ.
   */
  slope(state: State, place: number, { input, random, shared }: InputDoubt, of = this.every): Float64Array {
    const step = Math.hypot(random, shared.u);
    const moved = state.inputs.with(input, state.inputs[input]! + step);
    const { steady } = this.view(state);
    return this.led(`${keyOf(state)}/${input}/${step}`, place, of, ({ parameters }) => {
      const at = steady(parameters, state.inputs);
      return steady(parameters, moved).map((value, i) => (value - at[i]!) / step);
    });
  }

  /** How much a reading changes with one way in which units differ, by one standard deviation of it. */
  spread(state: State, place: number, way: number, of = this.every): Float64Array {
    const { steady } = this.view(state);
    const { moved } = this.set;
    return this.led(`${keyOf(state)}~${way}`, place, of, (particle) => {
      const lower = steady(moved(particle, way, -1), state.inputs);
      return steady(moved(particle, way, 1), state.inputs).map((value, i) => (value - lower[i]!) / 2);
    });
  }

  private led(key: string, place: number, of: readonly number[], make: (lead: Particle) => Vector) {
    const { particles } = this.set;
    let last: { readonly lead: number; readonly readings: Vector } | null = null;
    return this.filled(key, place, of, (k) => {
      const { lead } = particles[k]!;
      if (last?.lead !== lead) last = { lead, readings: make(particles[lead]!) };
      return last.readings;
    });
  }

  private filled(
    key: string,
    place: number,
    of: readonly number[],
    make: (k: number) => Vector,
  ): Float64Array {
    const count = this.every.length;
    const kept = this.kept.get(key) ?? {
      columns: this.twin.readings.map(() => new Float64Array(count)),
      there: new Uint8Array(count),
    };
    this.kept.set(key, kept);
    const { columns, there } = kept;
    for (const k of of) {
      if (there[k] === 1) continue;
      there[k] = 1;
      const readings = make(k);
      for (let i = 0; i < columns.length; i += 1) columns[i]![k] = readings[i]!;
    }
    return columns[place]!;
  }

  private view({ view }: State): View {
    const found = this.twin.views[view];
    if (!found) throw new RangeError(`state: there is no view ${view}`);
    return found;
  }
}
