import type { Family, View } from '../contract/family';
import type { InputDoubt } from '../twin/fit';
import type { Vector } from '../model/descriptor';
import type { Wanted } from '../model/member';
import type { ReadingEvidence, State } from './evidence';
import { AlongWays, GROWS_BY, type Along } from './along-ways';
import type { ParticleSet } from './particles';

const NAMES = new WeakMap<State, string>();
/** A state by name. It is asked for often: once made it is kept as long as the state is. */
export function keyOf(state: State): string {
  const known = NAMES.get(state);
  if (known !== undefined) return known;
  const name = `${state.view}:${state.inputs.join(',')}`;
  NAMES.set(state, name);
  return name;
}
/** What is asked of a state: what stands there, or how that changes with an input, by name. */
type What = string;
const STANDS = 'stands';
/** One standard uncertainty of an input. */
const stepOf = ({ random, shared }: InputDoubt) => Math.hypot(random, shared.u);
const withInput = (doubt: InputDoubt) => `${doubt.input}/${stepOf(doubt)}`;

/** Updates for which a state is remembered that none of them asks for: a reading taken back and made again is the same once more. */
const REMEMBERED = 4;

/** A reading by each particle, or by each of those that others hang on, and which of them are there already. */
interface Kept {
  column: Float64Array;
  there: Uint8Array;
}

/** By what a column goes: every particle, or those by which others hang on tolerances and inputs. */
type By = 'particles' | 'leads';

/** Every reading of one state of which the same was asked, and the update that last asked. */
interface Asked {
  readonly columns: Map<number, Kept>;
  readonly by: By;
  at: number;
}

/** What is known of a state. */
interface Known {
  readonly asked: Map<What, Asked>;
  readonly ways: AlongWays;
  /** The update that last asked how it changes along a way. */
  at: number;
}

type Read = Pick<ReadingEvidence, 'state' | 'place' | 'doubts'>;

/**
 * What particles show in a state, worked out once for each and kept: an update by one more reading only weighs anew. Columns of
 * readings are one number for each particle, in their order, and columns of changes one for each that others hang on, by its place among
 * those; what was not asked for is zero.
 */
export class Predictions {
  private readonly kept = new Map<string, Known>();
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
      this.keep(this.asked(state, STANDS, 'particles'), place);
      for (const doubt of doubts) this.keep(this.asked(state, withInput(doubt), 'leads'), place);
      this.ways(state).announce(place);
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
    for (const [state, known] of this.kept) {
      for (const [what, { columns, at, by }] of known.asked)
        if (at < this.update - REMEMBERED) known.asked.delete(what);
        else for (const { there } of columns.values()) there.fill(0, lasting[by]);
      known.ways.forgetFrom(lasting.leads);
      if (known.asked.size === 0 && known.at < this.update - REMEMBERED) this.kept.delete(state);
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
    return this.filled(this.asked(state, STANDS, 'particles'), place, of, (k, wanted) =>
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
    return this.led(this.asked(state, withInput(doubt), 'leads'), place, of, (lead, wanted) => {
      const { parameters } = this.set.particles[lead]!;
      const at = steady(parameters, state.inputs, wanted);
      return steady(parameters, moved, wanted).map((value, i) => (value - at[i]!) / step);
    });
  }

  /** How a reading changes with the ways in which units differ. */
  along(state: State, place: number, of: readonly number[]): Along {
    return this.ways(state).of(place, this.leadsAmong(of));
  }

  /** Columns that hang on the leading particle alone, by the places of those. */
  private led(
    asked: Asked,
    place: number,
    of: readonly number[],
    make: (lead: number, wanted: Asked['columns']) => Vector,
  ): Float64Array {
    const { leads } = this.set;
    return this.filled(asked, place, this.leadsAmong(of), (at, wanted) => make(leads[at]!, wanted));
  }

  /** Places of those that some particles hang on, each once. */
  private leadsAmong(of: readonly number[]): readonly number[] {
    const places = this.leadsOf.get(of) ?? [...new Set(of.map((k) => this.set.leadPlaces[k]!))];
    this.leadsOf.set(of, places);
    return places;
  }

  private filled(
    asked: Asked,
    place: number,
    of: readonly number[],
    make: (k: number, wanted: Asked['columns']) => Vector,
  ): Float64Array {
    const { column, there } = this.keep(asked, place);
    const { columns } = asked;
    let together: (readonly [place: number, kept: Kept])[] | null = null;
    for (const k of of) {
      if (there[k] === 1) continue;
      together ??= [...columns.keys()].map((other) => [other, this.keep(asked, other)] as const);
      const readings = make(k, columns);
      for (const [other, kept] of together) {
        kept.there[k] = 1;
        kept.column[k] = readings[other]!;
      }
    }
    return column;
  }

  private asked(state: State, what: What, by: By): Asked {
    const all = this.known(state).asked;
    const asked = all.get(what) ?? { columns: new Map<number, Kept>(), by, at: this.update };
    asked.at = this.update;
    all.set(what, asked);
    return asked;
  }

  private ways(state: State): AlongWays {
    const known = this.known(state);
    known.at = this.update;
    return known.ways;
  }

  private known(state: State): Known {
    const key = keyOf(state);
    const found = this.kept.get(key) ?? this.begun(state);
    this.kept.set(key, found);
    return found;
  }

  private begun(state: State): Known {
    const { steady } = this.view(state);
    const ways = new AlongWays(
      {
        show: (parameters, wanted) => steady(parameters, state.inputs, wanted),
        standing: (reading, k) => this.column(state, reading, [k])[k]!,
      },
      this.set,
    );
    return { asked: new Map(), ways, at: this.update };
  }

  /** The column of a reading, long enough for everything that was laid out. */
  private keep({ columns, by }: Asked, place: number): Kept {
    const count = this.set[by].length;
    const found = columns.get(place) ?? { column: new Float64Array(count), there: new Uint8Array(count) };
    columns.set(place, found);
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
