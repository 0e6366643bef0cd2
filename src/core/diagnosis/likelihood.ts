import { invertCovariance } from '../numeric/covariance';
import { normalCdf } from '../numeric/normal';
import { spanOf, type Evidence, type LookEvidence, type ReadingEvidence } from './evidence';
import type { Particle } from './particles';
import type { Predictions } from './predictions';
import { SharedErrors } from './shared-errors';

/** How often a number is written down that has nothing to do with what stood there. Handbook-models 12. */
export const GROSS = 0.01;
const LOG_2PI = Math.log(2 * Math.PI);
/** A fault is seen, heard or felt once it is past this part of its range. Handbook-models 8. */
const SHOWS_FROM = 1 / 3;

/** How likely all of the evidence is by some particles, and all but one piece of it. Natural logarithms, one for each. */
export interface Likelihood {
  readonly all: Float64Array;
  /** Without each piece in turn, in the order of the evidence. */
  readonly without: readonly Float64Array[];
  /** Chance that each reading was a gross error, by each particle; nothing for looks. */
  readonly gross: readonly (Float64Array | null)[];
  /** Where each reading lies in what the others leave to be expected of it, in standard deviations; nothing for looks. */
  readonly standing: readonly (Float64Array | null)[];
}

/**
 * Numbers by (1−γ)·N(y; r(θ), Σ) + γ/span with γ 0.01, at most two of them gross; Σ has each gauge's error once, with its sign
 * in every reading that leans on it. A pointer at the end of its scale counts by the tail beyond. Looks by their error rates.
 * Handbook-models 12.
 */
export function likelihoodOf(
  evidence: readonly Evidence[],
  predictions: Predictions,
  of: readonly number[],
): Likelihood {
  const particles = of.map((k) => predictions.set.particles[k]!);
  const count = of.length;
  const column = () => new Float64Array(count);
  const all = column();
  const without = evidence.map(column);
  const gross = evidence.map(({ kind }) => (kind === 'reading' ? column() : null));
  const standing = evidence.map(({ kind }) => (kind === 'reading' ? column() : null));
  /** Adds to every column but that of the piece itself. */
  const addTo = (piece: number, k: number, log: number) => {
    all[k]! += log;
    for (let i = 0; i < without.length; i += 1) if (i !== piece) without[i]![k]! += log;
  };
  const numbers: { readonly piece: number; readonly reading: ReadingEvidence }[] = [];
  evidence.forEach((one, piece) => {
    if (one.kind === 'look') {
      for (let k = 0; k < count; k += 1) addTo(piece, k, Math.log(chanceOfAnswer(one, particles[k]!)));
    } else if (one.off) {
      const shown = predictions.column(one.state, one.place, of);
      const u = spread(one);
      for (let k = 0; k < count; k += 1) {
        const z = (shown[of[k]!]! - one.value) / u;
        addTo(piece, k, Math.log((1 - GROSS) * normalCdf(one.off === 'above' ? z : -z) + GROSS));
      }
    } else numbers.push({ piece, reading: one });
  });
  if (numbers.length > 0) new Numbers(numbers, predictions, of).addTo({ all, without, gross, standing });
  return { all, without, gross, standing };
}

/** The likelihood of some of the particles: those at these places. */
export function picked({ all, without, gross, standing }: Likelihood, at: readonly number[]): Likelihood {
  const some = (column: Float64Array) => Float64Array.from(at, (place) => column[place]!);
  return {
    all: some(all),
    without: without.map(some),
    gross: gross.map((column) => column && some(column)),
    standing: standing.map((column) => column && some(column)),
  };
}

/** Columns one behind the other. */
export function behind(columns: readonly Float64Array[]): Float64Array {
  const out = new Float64Array(columns.reduce((sum, { length }) => sum + length, 0));
  let from = 0;
  for (const column of columns) {
    out.set(column, from);
    from += column.length;
  }
  return out;
}

/** Likelihoods of some particles and of others, one behind the other. */
export function joined(parts: readonly Likelihood[]): Likelihood {
  const [first] = parts;
  const each = (of: (part: Likelihood) => readonly (Float64Array | null)[]) =>
    of(first!).map((column, i) => column && behind(parts.map((part) => of(part)[i]!)));
  return {
    all: behind(parts.map(({ all }) => all)),
    without: first!.without.map((_, i) => behind(parts.map(({ without }) => without[i]!))),
    gross: each(({ gross }) => gross),
    standing: each(({ standing }) => standing),
  };
}

const spread = ({ random, shared }: ReadingEvidence) => Math.hypot(random, shared?.u ?? 0);

/** Log-likelihood of everything where no known fault is the cause: every value as likely as any other. */
export const unknownLog = (evidence: readonly Evidence[]): number =>
  evidence.reduce(
    (sum, one) => sum + (one.kind === 'look' || one.off ? Math.log(0.5) : -Math.log(spanOf(one))),
    0,
  );

/** Chance of an answer by a unit. P(seen) = falseAlarm + (1 − falseAlarm − miss)·sign. Handbook-models 8. */
export function chanceOfAnswer(
  { item, answer, good, bad, miss, falseAlarm }: Omit<LookEvidence, 'kind' | 'id'>,
  { cause, severities }: Pick<Particle, 'cause' | 'severities'>,
): number {
  const signs = cause.faults.flatMap(({ signs: of }, i) =>
    of[item] !== undefined && severities[i]! > SHOWS_FROM ? [of[item]] : [],
  );
  const alarm = (others: number) => (others > 0 ? falseAlarm / bad.length : 0);
  if (signs.length === 0) return good ? 1 - falseAlarm : alarm(bad.length);
  // What shows is seen, as one or the other where two show; else it is missed, and something else may be taken for it.
  if (signs.includes(answer)) return (1 - miss) / signs.length;
  const others = bad.length - new Set(signs).size;
  return miss * (good ? 1 - alarm(others) * others : alarm(others));
}

interface Number_ {
  readonly piece: number;
  readonly reading: ReadingEvidence;
}

/** All numbers together: they share the errors of the gauges. */
class Numbers {
  private readonly size: number;
  /** Covariance by the particle worked at, and its inverse. */
  private readonly inverse: Float64Array;
  private readonly covariance: Float64Array;

  constructor(
    private readonly numbers: readonly Number_[],
    private readonly predictions: Predictions,
    private readonly of: readonly number[],
  ) {
    this.size = numbers.length;
    this.inverse = new Float64Array(this.size ** 2);
    this.covariance = new Float64Array(this.size ** 2);
  }

  addTo({ all, without, gross, standing }: Likelihood): void {
    const { size, numbers, inverse, of } = this;
    const shown = numbers.map(({ reading }) => this.predictions.column(reading.state, reading.place, of));
    const errors = new SharedErrors(
      numbers.map(({ reading }) => reading),
      this.predictions,
      of,
    );
    const residual = new Float64Array(size);
    const scaled = new Float64Array(size);
    // Log of how much likelier one gross reading, or two, make all of it.
    const one = new Float64Array(size);
    const logGross = numbers.map(({ reading }) => Math.log(GROSS / (1 - GROSS) / spanOf(reading)));
    const sums = new Float64Array(size);
    for (let k = 0; k < of.length; k += 1) {
      errors.covariance(of[k]!, this.covariance);
      const logDeterminant = invertCovariance(this.covariance, size, inverse);
      for (let i = 0; i < size; i += 1) {
        const off = numbers[i]!.reading.value - shown[i]![of[k]!]!;
        residual[i] = Number.isFinite(off) ? off : spanOf(numbers[i]!.reading);
      }
      let square = 0;
      for (let i = 0; i < size; i += 1) {
        let sum = 0;
        for (let j = 0; j < size; j += 1) sum += inverse[i * size + j]! * residual[j]!;
        scaled[i] = sum;
        square += sum * residual[i]!;
      }
      const log = size * Math.log(1 - GROSS) - (square + logDeterminant + size * LOG_2PI) / 2;
      let most = 0;
      for (let i = 0; i < size; i += 1) {
        const own = inverse[i * size + i]!;
        standing[numbers[i]!.piece]![k] = scaled[i]! / Math.sqrt(own);
        one[i] = logGross[i]! + (LOG_2PI - Math.log(own)) / 2 + scaled[i]! ** 2 / (2 * own);
        if (one[i]! > most) most = one[i]!;
      }
      most = Math.max(most, this.mostOfTwo(scaled, logGross));
      // Sums of e^(… − most): none gross, one, two; and by which reading they are.
      let total = Math.exp(-most);
      sums.fill(0);
      for (let i = 0; i < size; i += 1) {
        const part = Math.exp(one[i]! - most);
        total += part;
        sums[i]! += part;
      }
      for (let i = 0; i < size; i += 1)
        for (let j = i + 1; j < size; j += 1) {
          const part = Math.exp(this.two(scaled, logGross, i, j) - most);
          total += part;
          sums[i]! += part;
          sums[j]! += part;
        }
      const logAll = log + most + Math.log(total);
      all[k]! += logAll;
      for (const column of without) column[k]! += logAll;
      for (let i = 0; i < size; i += 1) {
        const { piece, reading } = numbers[i]!;
        const share = sums[i]! / total;
        gross[piece]![k] = share;
        // Where it was gross it told nothing: γ/span is all that it brought. So the others alone are what is left of that.
        without[piece]![k]! += Math.log(share) - Math.log(GROSS / spanOf(reading));
      }
    }
  }

  /** Log of how much likelier two gross readings make all of it. */
  private two(scaled: Float64Array, logGross: readonly number[], i: number, j: number): number {
    const { size, inverse } = this;
    const [a, b, c] = [inverse[i * size + i]!, inverse[j * size + j]!, inverse[i * size + j]!];
    const determinant = a * b - c * c;
    const [x, y] = [scaled[i]!, scaled[j]!];
    const square = (b * x * x - 2 * c * x * y + a * y * y) / determinant;
    return logGross[i]! + logGross[j]! + LOG_2PI - Math.log(determinant) / 2 + square / 2;
  }

  private mostOfTwo(scaled: Float64Array, logGross: readonly number[]): number {
    let most = 0;
    for (let i = 0; i < this.size; i += 1)
      for (let j = i + 1; j < this.size; j += 1) most = Math.max(most, this.two(scaled, logGross, i, j));
    return most;
  }
}
