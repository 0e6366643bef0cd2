import type { ReadingEvidence } from './evidence';
import type { Predictions } from './predictions';

/** How one unknown number reaches a reading: by itself, and by a column for each particle. */
interface Reach {
  own: number;
  readonly through: { readonly column: Float64Array; readonly by: number }[];
}

/** Standard deviation of what lies evenly within a stratum, as a part of its width. */
const WITHIN = 1 / Math.sqrt(12);

type Read = Omit<ReadingEvidence, 'value' | 'off'>;

/**
 * What readings have in common: the error of each gauge, the chance error of an input that several lean on, the tolerances of the
 * unit, and how severe its faults are within their strata. Each is one number of standard deviation 1, which reaches the readings
 * with its own sign and size.
 */
export class SharedErrors {
  private readonly rows: readonly (readonly (Reach | null)[])[];
  private readonly shown: readonly Float64Array[];
  private readonly chance: readonly number[];

  constructor(
    readings: readonly Read[],
    private readonly predictions: Predictions,
    of: readonly number[],
  ) {
    const { particles, spread } = predictions.set;
    const around = [
      ...new Set(
        of.flatMap((k) => [k, ...particles[k]!.beside.flatMap(({ lower, upper }) => [lower, upper])]),
      ),
    ];
    const rows = new Map<string, (Reach | null)[]>();
    const reach = (name: string, i: number): Reach => {
      const row = rows.get(name) ?? readings.map(() => null);
      rows.set(name, row);
      return (row[i] ??= { own: 0, through: [] });
    };
    readings.forEach(({ state, place, shared, doubts }, i) => {
      if (shared && shared.u > 0) reach(`gauge ${shared.gauge}`, i).own += shared.u;
      for (const doubt of doubts) {
        const column = predictions.slope(state, place, doubt, of);
        if (doubt.random > 0) reach(`read ${doubt.of}`, i).through.push({ column, by: -doubt.random });
        if (doubt.shared.u > 0)
          reach(`gauge ${doubt.shared.gauge}`, i).through.push({ column, by: -doubt.shared.u });
      }
      spread.forEach((_, way) =>
        reach(`way ${way}`, i).through.push({ column: predictions.spread(state, place, way, of), by: 1 }),
      );
    });
    this.rows = [...rows.values()];
    this.shown = readings.map(({ state, place }) => predictions.column(state, place, around));
    this.chance = readings.map(({ random }) => random ** 2);
  }

  /** What each reading is by a particle. */
  expected(i: number, k: number): number {
    return this.shown[i]![k]!;
  }

  /** Covariance of the readings by a particle, row by row; the lower triangle is filled. */
  covariance(k: number, out: Float64Array): void {
    const { chance, rows, shown, predictions } = this;
    const size = chance.length;
    out.fill(0);
    for (let i = 0; i < size; i += 1) out[i * size + i] = chance[i]!;
    const effect = new Float64Array(size);
    const add = () => {
      for (let i = 0; i < size; i += 1) {
        if (!Number.isFinite(effect[i]!)) effect[i] = 0;
        if (effect[i] !== 0) for (let j = 0; j <= i; j += 1) out[i * size + j]! += effect[i]! * effect[j]!;
      }
    };
    for (const row of rows) {
      for (let i = 0; i < size; i += 1) {
        const of = row[i];
        let sum = of?.own ?? 0;
        if (of) for (const { column, by } of of.through) sum += by * column[k]!;
        effect[i] = sum;
      }
      add();
    }
    for (const { lower, upper, strata } of predictions.set.particles[k]!.beside) {
      for (let i = 0; i < size; i += 1)
        effect[i] = strata > 0 ? (WITHIN * (shown[i]![upper]! - shown[i]![lower]!)) / strata : 0;
      add();
    }
  }
}
