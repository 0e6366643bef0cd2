import type { Family, View } from '../contract/family';
import type { InputDoubt } from '../twin/fit';
import type { Vector } from '../model/descriptor';
import type { State } from './evidence';
import type { ParticleSet } from './particles';

const keyOf = ({ view, inputs }: State) => `${view}:${inputs.join(',')}`;

/**
 * What every particle shows in a state, worked out once for each state and kept: an update by one more reading only weighs
 * anew. Columns are one number for each particle, in their order.
 */
export class Predictions {
  private readonly kept = new Map<string, readonly Float64Array[]>();

  constructor(
    private readonly twin: Pick<Family, 'views' | 'readings'>,
    readonly set: ParticleSet,
  ) {}

  /** One reading in a state. */
  column(state: State, place: number): Float64Array {
    const { particles } = this.set;
    return this.keep(keyOf(state), () => {
      const { steady } = this.view(state);
      return this.columns((k) => steady(particles[k]!.parameters, state.inputs));
    })[place]!;
  }

  /** Whether a state has been worked out already. */
  has(state: State): boolean {
    return this.kept.has(keyOf(state));
  }

  /**
   * How much a reading changes with an input, taken over one standard uncertainty of it, which is what the doubt really spans.
   * It is worked out for the leading particles only; the others have that of theirs. So with the ways in which units differ.
   */
  slope(state: State, place: number, { input, random, shared }: InputDoubt): Float64Array {
    const step = Math.hypot(random, shared.u);
    const moved = { ...state, inputs: state.inputs.with(input, state.inputs[input]! + step) };
    return this.keep(`${keyOf(state)}/${input}/${step}`, () => {
      const { steady } = this.view(state);
      return this.changes(state, step, (k) => steady(this.set.particles[k]!.parameters, moved.inputs));
    })[place]!;
  }

  /** How much a reading changes with one way in which units differ, by one standard deviation of it. */
  spread(state: State, place: number, way: number): Float64Array {
    return this.keep(`${keyOf(state)}~${way}`, () => {
      const { steady } = this.view(state);
      const { particles, moved } = this.set;
      const shown = (k: number, by: number) => steady(moved(particles[k]!, way, by), state.inputs);
      return this.leading((k) => {
        const [lower, upper] = [shown(k, -1), shown(k, 1)];
        return upper.map((value, i) => (value - lower[i]!) / 2);
      });
    })[place]!;
  }

  private changes(state: State, step: number, moved: (k: number) => Vector): Float64Array[] {
    const at = this.twin.readings.map((_, place) => this.column(state, place));
    return this.leading((k) => moved(k).map((value, i) => (value - at[i]![k]!) / step));
  }

  private leading(of: (k: number) => Vector): Float64Array[] {
    const { particles } = this.set;
    let last: Vector = [];
    return this.columns((k) => (particles[k]!.lead === k ? (last = of(k)) : last));
  }

  private columns(of: (k: number) => Vector): Float64Array[] {
    const { particles } = this.set;
    const columns = this.twin.readings.map(() => new Float64Array(particles.length));
    for (let k = 0; k < particles.length; k += 1) {
      const readings = of(k);
      for (let i = 0; i < columns.length; i += 1) columns[i]![k] = readings[i]!;
    }
    return columns;
  }

  private keep(key: string, make: () => readonly Float64Array[]): readonly Float64Array[] {
    const made = this.kept.get(key) ?? make();
    this.kept.set(key, made);
    return made;
  }

  private view({ view }: State): View {
    const found = this.twin.views[view];
    if (!found) throw new RangeError(`state: there is no view ${view}`);
    return found;
  }
}
