import type { Family, View } from '../contract/family';
import type { InputDoubt } from '../twin/fit';
import type { Vector } from '../model/descriptor';
import type { Wanted } from '../model/member';
import type { ReadingEvidence, State } from './evidence';
import { stepOf as wayStep, type ParticleSet } from './particles';

const NAMES = new WeakMap<State, string>();
/** A state by name. It is asked for often: once made it is kept as long as the state is. */
export function keyOf(state: State): string {
  const known = NAMES.get(state);
  if (known !== undefined) return known;
  const name = `${state.view}:${state.inputs.join(',')}`;
  NAMES.set(state, name);
  return name;
}
const spreadKey = (state: State, way: number) => `${keyOf(state)}~${way}`;
/** One standard uncertainty of an input. */
const stepOf = ({ random, shared }: InputDoubt) => Math.hypot(random, shared.u);
const slopeKey = (state: State, doubt: InputDoubt) => `${keyOf(state)}/${doubt.input}/${stepOf(doubt)}`;

/** Updates for which a state is remembered that none of them asks for: a reading taken back and made again is the same once more. */
const REMEMBERED = 4;

/** So many times as long as is needed a column is made that was too short. */
const GROWS_BY = 2;

/** A reading by each particle, or by each of those that others hang on, and which of them are there already. */
interface Kept {
  column: Float64Array;
  there: Uint8Array;
}

/** By what a column goes: every particle, or those by which others hang on tolerances and inputs. */
type By = 'particles' | 'leads';

/** Every reading of one state that was asked for, and the update that last asked. */
interface Asked {
  readonly columns: Map<number, Kept>;
  readonly by: By;
  at: number;
}

type Read = Pick<ReadingEvidence, 'state' | 'place' | 'doubts'>;

/**
 * What particles show in a state, worked out once for each and kept: an update by one more reading only weighs anew. Columns of
 * readings are one number for each particle, in their order, and columns of changes one for each that others hang on, by its place among
 * those; what was not asked for is zero.
 */
export class Predictions {
  /** By what the particles are asked, and which reading. */
  private readonly kept = new Map<string, Asked>();
  /** Places of those that some particles hang on, each once. */
  private readonly leadsOf = new WeakMap<readonly number[], readonly number[]>();
  /** Updates so far. */
  private update = 0;

  constructor(
    private readonly twin: Pick<Family, 'views' | 'readings'>,
    readonly set: ParticleSet,
  ) {}

  /** Says which readings will be asked for, so that those of one state are worked out together. */
  announce(readings: readonly Read[]): void {
    for (const { state, place, doubts } of readings) {
      this.keep(keyOf(state), place, 'particles');
      for (const doubt of doubts) this.keep(slopeKey(state, doubt), place, 'leads');
      this.set.spread.forEach((_, way) => {
        this.keep(spreadKey(state, way), place, 'leads');
        this.keep(spreadKey(state, way), this.twin.readings.length + place, 'leads');
      });
    }
  }

  /**
   * Begins an update: forgets what particles showed that are about a unit, whose places are given to others, and the states that
   * nobody asked for of late. Each holds a column as long as there are particles, and every reading brings states of its own.
   */
  begin(): void {
    this.set.forget();
    this.update += 1;
    const lasting = this.set.lastingCounts;
    for (const [key, { columns, at, by }] of this.kept) {
      if (at < this.update - REMEMBERED) this.kept.delete(key);
      else for (const { there } of columns.values()) there.fill(0, lasting[by]);
    }
  }

  /** States that are remembered. */
  get statesHeld(): number {
    return this.kept.size;
  }

  /** Readings in a state, by parameters of a unit: those that are wanted. */
  shown({ view, inputs }: State, parameters: Vector, wanted: Wanted): Vector {
    return this.view({ view, inputs }).steady(parameters, inputs, wanted);
  }

  /** One reading in a state, by some particles. */
  column(state: State, place: number, of: readonly number[]): Float64Array {
    const { particles } = this.set;
    const { steady } = this.view(state);
    return this.filled(keyOf(state), place, 'particles', of, (k, wanted) =>
      steady(particles[k]!.parameters, state.inputs, wanted),
    );
  }

  /**
   * How much a reading changes with an input, taken over one standard uncertainty of it, which is what the doubt really spans.
   * It is worked out for the leading particles only; the others have that of theirs. So with the ways in which units differ.
   */
  slope(state: State, place: number, doubt: InputDoubt, of: readonly number[]): Float64Array {
    const step = stepOf(doubt);
    const moved = state.inputs.with(doubt.input, state.inputs[doubt.input]! + step);
    const { steady } = this.view(state);
    return this.led(slopeKey(state, doubt), place, of, (lead, wanted) => {
      const { parameters } = this.set.particles[lead]!;
      const at = steady(parameters, state.inputs, wanted);
      return steady(parameters, moved, wanted).map((value, i) => (value - at[i]!) / step);
    });
  }

  /** How much a reading changes with one way in which units differ, by one standard deviation of it. */
  spread(state: State, place: number, way: number, of: readonly number[]): Float64Array {
    return this.ways(state, place, way, of);
  }

  /** How far that is from a straight line: what lies between one standard deviation up and down, beside the middle of the two. */
  bend(state: State, place: number, way: number, of: readonly number[]): Float64Array {
    return this.ways(state, this.twin.readings.length + place, way, of);
  }

  /** Of every reading how much it changes, and behind them how far each is from a straight line. */
  private ways(state: State, place: number, way: number, of: readonly number[]): Float64Array {
    const { steady } = this.view(state);
    const count = this.twin.readings.length;
    return this.led(spreadKey(state, way), place, of, (lead, both) => {
      const wanted = { has: (reading: number) => both.has(reading) || both.has(count + reading) };
      const particle = this.set.particles[lead]!;
      const [down, up] = this.set.moved(particle, way);
      const [lower, upper] = [steady(down, state.inputs, wanted), steady(up, state.inputs, wanted)];
      const across = 2 * wayStep(particle);
      return [
        ...upper.map((value, i) => (value - lower[i]!) / across),
        ...upper.map((value, i) =>
          wanted.has(i) ? value + lower[i]! - 2 * this.column(state, i, [lead])[lead]! : NaN,
        ),
      ];
    });
  }

  /** Columns that hang on the leading particle alone, by the places of those. */
  private led(
    key: string,
    place: number,
    of: readonly number[],
    make: (lead: number, wanted: Wanted) => Vector,
  ): Float64Array {
    const { leads, leadPlaces } = this.set;
    const places = this.leadsOf.get(of) ?? [...new Set(of.map((k) => leadPlaces[k]!))];
    this.leadsOf.set(of, places);
    return this.filled(key, place, 'leads', places, (at, wanted) => make(leads[at]!, wanted));
  }

  private filled(
    key: string,
    place: number,
    by: By,
    of: readonly number[],
    make: (k: number, wanted: Wanted) => Vector,
  ): Float64Array {
    const { column, there } = this.keep(key, place, by);
    const all = this.kept.get(key)!.columns;
    const together = [...all];
    for (const k of of) {
      if (there[k] === 1) continue;
      const readings = make(k, all);
      for (const [other, kept] of together) {
        if (k >= kept.there.length) this.keep(key, other, by);
        kept.there[k] = 1;
        kept.column[k] = readings[other]!;
      }
    }
    return column;
  }

  /** The column of a reading, long enough for everything that was laid out. */
  private keep(key: string, place: number, by: By): Kept {
    const asked = this.kept.get(key) ?? { columns: new Map<number, Kept>(), by, at: this.update };
    asked.at = this.update;
    this.kept.set(key, asked);
    const all = asked.columns;
    const count = this.set[by].length;
    const found = all.get(place) ?? { column: new Float64Array(count), there: new Uint8Array(count) };
    all.set(place, found);
    if (found.column.length < count) {
      // Others were laid out since, and more will be.
      const [column, there] = [new Float64Array(GROWS_BY * count), new Uint8Array(GROWS_BY * count)];
      column.set(found.column);
      there.set(found.there);
      Object.assign(found, { column, there });
    }
    return found;
  }

  private view({ view }: State): View {
    const found = this.twin.views[view];
    if (!found) throw new RangeError(`state: there is no view ${view}`);
    return found;
  }
}
