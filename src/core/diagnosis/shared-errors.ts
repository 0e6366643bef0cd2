import type { ReadingEvidence } from './evidence';
import type { Vector } from '../model/descriptor';
import { addToInverse, invertCovariance } from '../numeric/covariance';
import { stepOf } from './particles';
import type { Predictions } from './predictions';

/** How one unknown number reaches a reading: by itself, and by columns of those that particles hang on. */
interface Reach {
  own: number;
  readonly through: { readonly column: Float64Array; readonly by: number }[];
}

/** One unknown number: the readings that it reaches, by their places. */
interface Row {
  readonly places: readonly number[];
  readonly reaches: readonly Reach[];
}

/** Standard deviation of what lies evenly within a stratum, as a part of its width. */
const WITHIN = 1 / Math.sqrt(12);

/**
 * What a bend comes to, as a part of it. For f = f₀ + s·z + ½b·z² the line leaves out ½b·z², the same z in every reading: of root
 * mean square ½b·√3 for z standard normal, and ½b/√80 for z even within a stratum, b over one stratum up and down.
 */
const BENT = Math.sqrt(3) / 2;
const BENT_WITHIN = 1 / (2 * Math.sqrt(80));

/** One side of a kink is flat where it changes less than this part of the other. */
const FLAT = 0.1;

const finite = (value: number) => (Number.isFinite(value) ? value : 0);

type Read = Omit<ReadingEvidence, 'value' | 'off'>;

/**
 * What readings have in common: the error of each gauge, the chance error of an input that several lean on, the tolerances of the
 * unit, and how severe its faults are within their strata. Each is one number of standard deviation 1, which reaches the readings
 * with its own sign and size.
 */
export class SharedErrors {
  private readonly rows: readonly Row[];
  private readonly shown: readonly Float64Array[];
  private readonly chance: readonly number[];
  /** For each particle the place of the one that it hangs on. */
  private readonly lead: readonly number[];
  /** How much each reading changes along each way in which units differ. */
  private readonly ways: readonly (readonly Float64Array[])[];
  /** How far that is from a straight line. */
  private readonly bends: readonly (readonly Float64Array[])[];
  /** What one unknown number does to the readings that it reaches, and their places: used again for every one. */
  private readonly effect: Float64Array;
  private readonly reached: Int32Array;
  /** Covariance but for the severities, which all particles have in common that hang on the same one; −1 while there is none. */
  private readonly common: Float64Array;
  private commonOf = -1;
  /** The inverse of that, and the natural logarithm of its determinant. */
  private readonly inverseOfCommon: Float64Array;
  private logOfCommon = 0;
  private inverseOf = -1;
  private readonly triangle: Float64Array;
  private readonly row: Float64Array;
  /** What the unit about which particles are linear does to each reading, and the one that they hang on. */
  private readonly about: Float64Array;
  private ofAbout = -1;

  constructor(
    readings: readonly Read[],
    private readonly predictions: Predictions,
    of: readonly number[],
  ) {
    const { particles, spread, leadPlaces } = predictions.set;
    this.lead = leadPlaces;
    const around = new Set(of);
    for (const k of of) for (const { lower, upper } of particles[k]!.beside) around.add(lower).add(upper);
    const rows = new Map<string, Map<number, Reach>>();
    const reach = (name: string, i: number): Reach => {
      const row = rows.get(name) ?? new Map<number, Reach>();
      rows.set(name, row);
      const found = row.get(i) ?? { own: 0, through: [] };
      row.set(i, found);
      return found;
    };
    predictions.announce(readings);
    readings.forEach(({ state, place, shared, doubts }, i) => {
      if (shared && shared.u > 0) reach(`gauge ${shared.gauge}`, i).own += shared.u;
      for (const doubt of doubts) {
        const column = predictions.slope(state, place, doubt, of);
        if (doubt.random > 0) reach(`read ${doubt.of}`, i).through.push({ column, by: -doubt.random });
        if (doubt.shared.u > 0)
          reach(`gauge ${doubt.shared.gauge}`, i).through.push({ column, by: -doubt.shared.u });
      }
    });
    const along = readings.map(({ state, place }) => predictions.along(state, place, of));
    this.ways = along.map(({ slopes }) => slopes);
    this.bends = along.map(({ bends }) => bends);
    spread.forEach((_, way) =>
      readings.forEach((_one, i) => {
        reach(`way ${way}`, i).through.push({ column: this.ways[i]![way]!, by: 1 });
        reach(`bend ${way}`, i).through.push({ column: this.bends[i]![way]!, by: BENT });
      }),
    );
    this.rows = [...rows.values()].map((row) => ({ places: [...row.keys()], reaches: [...row.values()] }));
    this.shown = readings.map(({ state, place }) => predictions.column(state, place, [...around]));
    this.chance = readings.map(({ random }) => random ** 2);
    this.effect = new Float64Array(readings.length);
    this.reached = new Int32Array(readings.length);
    [this.row, this.about] = [new Float64Array(readings.length), new Float64Array(readings.length)];
    const square = () => new Float64Array(readings.length ** 2);
    [this.common, this.inverseOfCommon, this.triangle] = [square(), square(), square()];
  }

  /** What each reading is by a particle, for a unit in the middle of all that there may be. */
  expected(i: number, k: number): number {
    const { about } = this.predictions.set.particles[k]!;
    const shown = this.shown[i]![k]!;
    return about ? shown - this.byAbout(k, about)[i]! : shown;
  }

  /** By how much each reading differs for the unit about which a particle is linear: alike for all that hang on the same one. */
  private byAbout(k: number, about: Vector): Float64Array {
    const lead = this.lead[k]!;
    if (this.ofAbout !== lead) {
      for (let i = 0; i < this.about.length; i += 1) this.about[i] = this.byUnit(i, k, about);
      this.ofAbout = lead;
    }
    return this.about;
  }

  /** How far a value lies from that; not at all where the particle tells none. */
  off(i: number, k: number, value: number): number {
    return finite(value - this.expected(i, k));
  }

  /** By how much a reading differs for a unit that differs so far along each way, as far as it is linear about the particle. */
  byUnit(i: number, k: number, unit: Vector): number {
    const lead = this.lead[k]!;
    return unit.reduce((sum, z, way) => sum + z * finite(this.ways[i]![way]![lead]!), 0);
  }

  /** How far from a straight line a reading is about a particle, along the way that bends it most. */
  bent(i: number, k: number): number {
    const lead = this.lead[k]!;
    return this.bends[i]!.reduce((most, bend) => Math.max(most, BENT * Math.abs(finite(bend[lead]!))), 0);
  }

  /**
   * Where a reading kinks at a particle, because something is just used up or just reached: how far the straight line goes on, within
   * what is looked at, to the side on which the reading stays as it is. Zero where it does not, or not alike along every way.
   *
   * @param more what it changes by at least on the other side
   */
  kink(i: number, k: number, more: number): number {
    const lead = this.lead[k]!;
    const step = stepOf(this.predictions.set.particles[k]!);
    let [square, rises, falls] = [0, false, false];
    this.ways[i]!.forEach((column, way) => {
      const straight = step * finite(column[lead]!);
      const half = finite(this.bends[i]![way]![lead]!) / 2;
      const [up, down] = [Math.abs(straight + half), Math.abs(straight - half)];
      if (Math.max(up, down) < more || Math.min(up, down) > FLAT * Math.max(up, down)) return;
      square += straight ** 2;
      if (up < down === straight > 0) rises = true;
      else falls = true;
    });
    return rises === falls ? 0 : rises ? Math.sqrt(square) : -Math.sqrt(square);
  }

  /** Covariance of the readings by a particle, row by row; the lower triangle is filled. */
  covariance(k: number, out: Float64Array): void {
    const size = this.chance.length;
    out.set(this.commonBy(this.lead[k]!));
    this.bySeverities(k, (count) => this.add(count, size, out));
  }

  /**
   * The inverse of the covariance of the readings by a particle, the whole of it, row by row. Worked out once for all that hang on the same
   * one, and brought on by the severities.
   *
   * @returns the natural logarithm of the determinant of the covariance
   * @throws RangeError where it is not positive definite
   */
  inverse(k: number, out: Float64Array): number {
    const { effect, reached, row } = this;
    const size = this.chance.length;
    const lead = this.lead[k]!;
    if (this.inverseOf !== lead) {
      this.triangle.set(this.commonBy(lead));
      this.logOfCommon = invertCovariance(this.triangle, size, this.inverseOfCommon);
      this.inverseOf = lead;
    }
    out.set(this.inverseOfCommon);
    let logDeterminant = this.logOfCommon;
    this.bySeverities(k, (count) => {
      logDeterminant += addToInverse(out, size, { effect, reached, count }, row);
    });
    return logDeterminant;
  }

  /**
   * What the severities of a particle do within their strata, one unknown number after the other, each left in `effect` and `reached`.
   *
   * @param onto told how many readings it reaches
   */
  private bySeverities(k: number, onto: (count: number) => void): void {
    const { shown } = this;
    const size = this.chance.length;
    for (const { lower, upper, strata } of this.predictions.set.particles[k]!.beside) {
      if (strata === 0) continue;
      let count = 0;
      for (let i = 0; i < size; i += 1)
        count = this.touch(count, i, (WITHIN * (shown[i]![upper]! - shown[i]![lower]!)) / strata);
      onto(count);
      // At either end of the range there is none beyond.
      if (strata < 2) continue;
      count = 0;
      for (let i = 0; i < size; i += 1)
        count = this.touch(
          count,
          i,
          BENT_WITHIN * (shown[i]![upper]! + shown[i]![lower]! - 2 * shown[i]![k]!),
        );
      onto(count);
    }
  }

  /** What the covariance is by all particles that hang on one, row by row: kept until another is asked for. */
  private commonBy(lead: number): Float64Array {
    const { chance, rows, common } = this;
    if (this.commonOf === lead) return common;
    this.commonOf = lead;
    const size = chance.length;
    common.fill(0);
    for (let i = 0; i < size; i += 1) common[i * size + i] = chance[i]!;
    for (const { places, reaches } of rows) {
      let count = 0;
      for (let n = 0; n < places.length; n += 1) {
        const { own, through } = reaches[n]!;
        let sum = own;
        for (let m = 0; m < through.length; m += 1) sum += through[m]!.by * through[m]!.column[lead]!;
        count = this.touch(count, places[n]!, sum);
      }
      this.add(count, size, common);
    }
    return common;
  }

  /** Notes what a number does to a reading, if anything. */
  private touch(count: number, place: number, effect: number): number {
    if (effect === 0 || !Number.isFinite(effect)) return count;
    this.effect[count] = effect;
    this.reached[count] = place;
    return count + 1;
  }

  private add(count: number, size: number, out: Float64Array): void {
    const { effect, reached } = this;
    // Places come in rising order, so that the second is never beyond the first.
    for (let n = 0; n < count; n += 1) {
      const [by, row] = [effect[n]!, reached[n]! * size];
      for (let m = 0; m <= n; m += 1) out[row + reached[m]!]! += by * effect[m]!;
    }
  }
}
