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
/** What is asked of a state: what stands there, how that changes along a way, by its place, or with an input, by name. */
type What = number | string;
const STANDS = 'stands';
/** One standard uncertainty of an input. */
const stepOf = ({ random, shared }: InputDoubt) => Math.hypot(random, shared.u);
const withInput = (doubt: InputDoubt) => `${doubt.input}/${stepOf(doubt)}`;

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

/** Every reading of one state of which the same was asked, and the update that last asked. */
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
  /** By the state, and by what was asked of it. */
  private readonly kept = new Map<string, Map<What, Asked>>();
  /** Places of those that some particles hang on, each once. */
  private readonly leadsOf = new WeakMap<readonly number[], readonly number[]>();
  /** Of every reading twice: that it does not change, and in a straight line. */
  private readonly nothing: Vector;
  /** Updates so far. */
  private update = 0;

  constructor(
    private readonly twin: Pick<Family, 'views' | 'readings'>,
    readonly set: ParticleSet,
  ) {
    this.nothing = twin.readings.flatMap(() => [0, 0]);
  }

  /** Says which readings will be asked for, so that those of one state are worked out together. */
  announce(readings: readonly Read[]): void {
    for (const { state, place, doubts } of readings) {
      this.keep(this.asked(state, STANDS, 'particles'), place);
      for (const doubt of doubts) this.keep(this.asked(state, withInput(doubt), 'leads'), place);
      this.set.spread.forEach((_, way) => {
        const asked = this.asked(state, way, 'leads');
        this.keep(asked, place);
        this.keep(asked, this.twin.readings.length + place);
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
    for (const [state, all] of this.kept) {
      for (const [what, { columns, at, by }] of all)
        if (at < this.update - REMEMBERED) all.delete(what);
        else for (const { there } of columns.values()) there.fill(0, lasting[by]);
      if (all.size === 0) this.kept.delete(state);
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
    return this.led(this.asked(state, way, 'leads'), place, of, (lead, both) => {
      if (this.isIdle(state, way, lead, both)) return this.nothing;
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

  /** Whether a way in which units differ does nothing to any of these readings by a particle: it does nothing to its guides. */
  private isIdle(state: State, way: number, lead: number, both: Asked['columns']): boolean {
    const guides = this.set.guidesOf(lead);
    if (!guides) return false;
    const { leadPlaces } = this.set;
    return [...both.keys()].every((place) => {
      const column = this.ways(state, place, way, guides);
      return guides.every((k) => column[leadPlaces[k]!] === 0);
    });
  }

  /** Columns that hang on the leading particle alone, by the places of those. */
  private led(
    asked: Asked,
    place: number,
    of: readonly number[],
    make: (lead: number, wanted: Asked['columns']) => Vector,
  ): Float64Array {
    const { leads, leadPlaces } = this.set;
    const places = this.leadsOf.get(of) ?? [...new Set(of.map((k) => leadPlaces[k]!))];
    this.leadsOf.set(of, places);
    return this.filled(asked, place, places, (at, wanted) => make(leads[at]!, wanted));
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
    const key = keyOf(state);
    const all = this.kept.get(key) ?? new Map<What, Asked>();
    this.kept.set(key, all);
    const asked = all.get(what) ?? { columns: new Map<number, Kept>(), by, at: this.update };
    asked.at = this.update;
    all.set(what, asked);
    return asked;
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
