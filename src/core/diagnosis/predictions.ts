import type { Family, View } from '../contract/family';
import type { InputDoubt } from '../twin/fit';
import type { Vector } from '../model/descriptor';
import type { State } from './evidence';
import type { Particle, ParticleSet } from './particles';

const keyOf = ({ view, inputs }: State) => `${view}:${inputs.join(',')}`;

/** A reading by each particle, and which of them are there already. */
interface Kept {
  column: Float64Array;
  there: Uint8Array;
}

/**
 * What particles show in a state, worked out once for each and kept: an update by one more reading only weighs anew. Columns are
 * one number for each particle, in their order; those that were not asked for are zero.
 */
export class Predictions {
  private readonly kept = new Map<string, Kept>();

  constructor(
    private readonly twin: Pick<Family, 'views' | 'readings'>,
    readonly set: ParticleSet,
  ) {}

  /** One reading in a state, by some particles. */
  column(state: State, place: number, of: readonly number[]): Float64Array {
    const { particles } = this.set;
    const { steady } = this.view(state);
    return this.filled(keyOf(state), place, of, (k) => steady(particles[k]!.parameters, state.inputs));
  }

  /**
   * How much a reading changes with an input, taken over one standard uncertainty of it, which is what the doubt really spans.
   * It is worked out for the leading particles only; the others have that of theirs. So with the ways in which units differ.
   */
  slope(
    state: State,
    place: number,
    { input, random, shared }: InputDoubt,
    of: readonly number[],
  ): Float64Array {
    const step = Math.hypot(random, shared.u);
    const moved = state.inputs.with(input, state.inputs[input]! + step);
    const { steady } = this.view(state);
    return this.led(`${keyOf(state)}/${input}/${step}`, place, of, ({ parameters }) => {
      const at = steady(parameters, state.inputs);
      return steady(parameters, moved).map((value, i) => (value - at[i]!) / step);
    });
  }

  /** How much a reading changes with one way in which units differ, by one standard deviation of it. */
  spread(state: State, place: number, way: number, of: readonly number[]): Float64Array {
    const { steady } = this.view(state);
    return this.led(`${keyOf(state)}~${way}`, place, of, (particle) => {
      const lower = steady(this.set.moved(particle, way, -1), state.inputs);
      return steady(this.set.moved(particle, way, 1), state.inputs).map(
        (value, i) => (value - lower[i]!) / 2,
      );
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
    const name = `${key}#${place}`;
    const count = this.set.particles.length;
    const kept = this.kept.get(name) ?? { column: new Float64Array(count), there: new Uint8Array(count) };
    this.kept.set(name, kept);
    if (kept.column.length < count) {
      // Pairs were laid out since.
      const [column, there] = [new Float64Array(count), new Uint8Array(count)];
      column.set(kept.column);
      there.set(kept.there);
      Object.assign(kept, { column, there });
    }
    for (const k of of) {
      if (kept.there[k] === 1) continue;
      kept.there[k] = 1;
      kept.column[k] = make(k)[place]!;
    }
    return kept.column;
  }

  private view({ view }: State): View {
    const found = this.twin.views[view];
    if (!found) throw new RangeError(`state: there is no view ${view}`);
    return found;
  }
}
