import type { Vector } from '../model/descriptor';
import type { Wanted } from '../model/member';
import { stepOf, type Particle, type ParticleSet } from './particles';

/** What a reading does along each way in which units differ: a column for each way, one number for each particle that others hang on. */
export interface Along {
  /** How much it changes, by one standard deviation of the way. */
  readonly slopes: readonly Float64Array[];
  /** How far that is from a straight line: what lies between one standard deviation up and down, beside the middle of the two. */
  readonly bends: readonly Float64Array[];
}

/** What is asked of a state. */
export interface AskedState {
  /** Readings there that are wanted, by parameters of a unit. */
  readonly show: (parameters: Vector, wanted: Wanted) => Vector;
  /** What a particle shows there of one reading. */
  readonly standing: (reading: number, k: number) => number;
}

/** A particle that others hang on, with its place among those, and what it shows of every reading that was asked for. */
interface Lead {
  readonly at: number;
  readonly particle: Particle;
  readonly stands: ReadonlyMap<number, number>;
}

/** So many ways are moved together at the least: fewer are as soon asked one by one. */
const LEAST_TOGETHER = 3;

/**
 * How the readings of one state change with the ways in which units differ. A unit differs in up to 27 ways, of which a reading feels a
 * few. Those that moved it by the healthy unit or by the faults of a particle are asked one by one; the others are moved together, up
 * and down, and where nothing moves then either none of them is asked by itself.
 */
export class AlongWays {
  private readonly along = new Map<number, Along>();
  /** Which particles that others hang on are worked out, by their places, for every reading that was asked for. */
  private there = new Uint8Array();
  /** Ways that moved something by the healthy one, which is null, by a fault, and by a cause of two of them. */
  private readonly movedBy = new Map<object | null, ReadonlySet<number>>();

  constructor(
    private readonly state: AskedState,
    private readonly set: ParticleSet,
  ) {}

  /** Says which reading will be asked for, so that those of the state are worked out together. */
  announce(reading: number): void {
    if (this.along.has(reading)) return;
    const columns = () => this.set.spread.map(() => new Float64Array(this.there.length));
    this.along.set(reading, { slopes: columns(), bends: columns() });
    this.there.fill(0);
  }

  /** @param places of particles that others hang on, among those */
  of(reading: number, places: readonly number[]): Along {
    this.announce(reading);
    this.grow();
    for (const at of places) if (this.there[at] === 0) this.workOut(at);
    return this.along.get(reading)!;
  }

  /** Forgets all but the first: the places of the others are given away. */
  forgetFrom(place: number): void {
    this.there.fill(0, place);
  }

  private workOut(at: number): void {
    const lead = this.set.leads[at]!;
    const particle = this.set.particles[lead]!;
    const { cause } = particle;
    const kin = [null, ...cause.faults, cause].flatMap((one) => [...(this.movedBy.get(one) ?? [])]);
    const expected = new Set(kin);
    const stands = new Map(
      [...this.along.keys()].map((reading) => [reading, this.state.standing(reading, lead)]),
    );
    const by = { at, particle, stands };
    const others = this.set.spread.flatMap((_, way) => (expected.has(way) ? [] : [way]));
    const moving = [...expected, ...this.apartFromStill(by, others)].filter((way) => this.moves(by, way));
    const own = cause.faults.length > 1 ? cause : (cause.faults[0] ?? null);
    this.movedBy.set(own, new Set([...(this.movedBy.get(own) ?? []), ...moving]));
    this.there[at] = 1;
  }

  /** Of some ways those that may move something: the others, moved together, move nothing. They are looked for by halves. */
  private apartFromStill(by: Lead, ways: readonly number[]): readonly number[] {
    if (ways.length < LEAST_TOGETHER) return ways;
    if (this.areStill(by, ways)) {
      for (const { slopes, bends } of this.along.values())
        for (const way of ways) slopes[way]![by.at] = bends[way]![by.at] = 0;
      return [];
    }
    const half = ways.length >> 1;
    return [ways.slice(0, half), ways.slice(half)].flatMap((some) => this.apartFromStill(by, some));
  }

  private areStill({ particle, stands }: Lead, ways: readonly number[]): boolean {
    return this.set.movedTogether(particle, ways).every((unit) => {
      const shown = this.state.show(unit, this.along);
      return [...stands].every(([reading, value]) => shown[reading] === value);
    });
  }

  /** Works out what a way does. @returns whether it moves anything */
  private moves({ at, particle, stands }: Lead, way: number): boolean {
    const [lower, upper] = this.set.moved(particle, way).map((unit) => this.state.show(unit, this.along));
    const across = 2 * stepOf(particle);
    let moves = false;
    for (const [reading, { slopes, bends }] of this.along) {
      const [low, high] = [lower![reading]!, upper![reading]!];
      const slope = (high - low) / across;
      const bend = high + low - 2 * stands.get(reading)!;
      slopes[way]![at] = slope;
      bends[way]![at] = bend;
      // A reading that is no number may be moved by anything.
      moves ||= slope !== 0 || bend !== 0;
    }
    return moves;
  }

  /** Makes the columns as long as there are particles that others hang on. */
  private grow(): void {
    const count = this.set.leads.length;
    if (this.there.length >= count) return;
    // Others were laid out since, and more will be.
    const longer = <Column extends Float64Array | Uint8Array>(column: Column, made: Column): Column => {
      made.set(column);
      return made;
    };
    const length = GROWS_BY * count;
    this.there = longer(this.there, new Uint8Array(length));
    for (const [reading, { slopes, bends }] of this.along) {
      const grown = (columns: readonly Float64Array[]) =>
        columns.map((column) => longer(column, new Float64Array(length)));
      this.along.set(reading, { slopes: grown(slopes), bends: grown(bends) });
    }
  }
}

/** So many times as long as is needed a column is made that was too short. */
export const GROWS_BY = 2;
