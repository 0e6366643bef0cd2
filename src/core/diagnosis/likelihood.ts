import { SHOWS_FROM } from '../contract/family';
import { normalCdf } from '../numeric/normal';
import { spanOf, type Evidence, type LookEvidence, type ReadingEvidence } from './evidence';
import type { Particle } from './particles';
import type { Predictions } from './predictions';
import { SharedErrors } from './shared-errors';

/** How often a number is written down that has nothing to do with what stood there. Handbook-models 12. */
export const GROSS = 0.01;
const LOG_2PI = Math.log(2 * Math.PI);

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
  const column = () => new Float64Array(of.length);
  const all = column();
  const without = evidence.map(column);
  const gross = evidence.map(({ kind }) => (kind === 'reading' ? column() : null));
  const standing = evidence.map(({ kind }) => (kind === 'reading' ? column() : null));
  const numbers = byThemselves(evidence, predictions, of, (piece, at, log) => {
    all[at]! += log;
    for (let i = 0; i < without.length; i += 1) if (i !== piece) without[i]![at]! += log;
  });
  numbers?.addTo({ all, without, gross, standing });
  return { all, without, gross, standing };
}

/** Pieces that have nothing in common with others, each to be added by itself; the numbers, which have, are returned together. */
function byThemselves(
  evidence: readonly Evidence[],
  predictions: Predictions,
  of: readonly number[],
  add: (piece: number, at: number, log: number) => void,
): Numbers | null {
  const { particles } = predictions.set;
  const numbers: Number_[] = [];
  evidence.forEach((one, piece) => {
    if (one.kind === 'look') {
      const chances = new AnswerChances(one);
      for (let at = 0; at < of.length; at += 1) add(piece, at, Math.log(chances.by(particles[of[at]!]!)));
    } else if (one.off) {
      const shown = predictions.column(one.state, one.place, of);
      const u = spread(one);
      for (let at = 0; at < of.length; at += 1) {
        const z = (shown[of[at]!]! - one.value) / u;
        add(piece, at, Math.log((1 - GROSS) * normalCdf(one.off === 'above' ? z : -z) + GROSS));
      }
    } else numbers.push({ piece, reading: one });
  });
  return numbers.length > 0 ? new Numbers(numbers, predictions, of) : null;
}

/** The likelihood of some of the particles: those at these places. */
export function picked({ all, without, gross, standing }: Likelihood, at: readonly number[]): Likelihood {
  const some = (column: Float64Array) => {
    const out = new Float64Array(at.length);
    for (let i = 0; i < at.length; i += 1) out[i] = column[at[i]!]!;
    return out;
  };
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

/** Chance of an answer where no known fault is the cause: it finds nothing or something as often, and one thing as often as another. */
export const unknownAnswer = ({ good, bad }: Pick<LookEvidence, 'good' | 'bad'>): number =>
  good ? 0.5 : 0.5 / bad.length;

/**
 * Log-likelihood of everything where no known fault is the cause: every value as likely as any other. Handbook-models 12.
 */
export const unknownLog = (evidence: readonly Evidence[]): number =>
  evidence.reduce((sum, one) => {
    if (one.kind === 'look') return sum + Math.log(unknownAnswer(one));
    return sum + (one.off ? Math.log(0.5) : -Math.log(spanOf(one)));
  }, 0);

/** Chance of an answer by a unit. P(seen) = falseAlarm + (1 − falseAlarm − miss)·sign. Handbook-models 8. */
export function chanceOfAnswer(
  { item, answer, good, bad, miss, falseAlarm, shownBy }: Answered,
  { cause, severities }: Pick<Particle, 'cause' | 'severities'>,
): number {
  const signOf = ({ id, signs }: Particle['cause']['faults'][number]) =>
    shownBy ? (shownBy.includes(id) ? bad[0] : undefined) : signs[item];
  const signs = cause.faults.flatMap((fault, i) => {
    const sign = signOf(fault);
    return sign !== undefined && severities[i]! > SHOWS_FROM ? [sign] : [];
  });
  const alarm = (others: number) => (others > 0 ? falseAlarm / bad.length : 0);
  if (signs.length === 0) return good ? 1 - falseAlarm : alarm(bad.length);
  // What shows is seen, as one or the other where two show; else it is missed, and something else may be taken for it.
  if (signs.includes(answer)) return (1 - miss) / signs.length;
  const others = bad.length - new Set(signs).size;
  return miss * (good ? 1 - alarm(others) * others : alarm(others));
}

type Answered = Omit<LookEvidence, 'kind' | 'id'>;

/** Chances of one answer by many units: worked out once for each cause and those of its faults that show. */
export class AnswerChances {
  private readonly known = new Map<Particle['cause'], number[]>();

  constructor(private readonly look: Answered) {}

  by(particle: Pick<Particle, 'cause' | 'severities'>): number {
    const { cause, severities } = particle;
    let showing = 0;
    for (let i = 0; i < severities.length; i += 1) if (severities[i]! > SHOWS_FROM) showing += 2 ** i;
    const known = this.known.get(cause) ?? [];
    this.known.set(cause, known);
    return (known[showing] ??= chanceOfAnswer(this.look, particle));
  }
}

interface Number_ {
  readonly piece: number;
  readonly reading: ReadingEvidence;
}

/** Two gross readings, or one, that make it likelier by less than this part are left out: a natural logarithm. */
const COUNTS_FROM = -25;
/** ½·ln(1 − ρ²) of readings that depend on each other as closely as they ever do: by so much it may be likelier yet. */
const CLOSEST = 6;

/** All numbers together: they share the errors of the gauges. */
class Numbers {
  private readonly size: number;
  private readonly errors: SharedErrors;
  private readonly logGross: readonly number[];
  /** Inverse of the covariance by the particle worked at. */
  private readonly inverse: Float64Array;
  private readonly residual: Float64Array;
  /** Where each number lies in what the others leave to be expected of it, in standard deviations of that. */
  private readonly z: Float64Array;
  /** Log of how much likelier it makes all of it that a number, lying in the middle, is gross; and its own standard deviation. */
  private readonly taken: Float64Array;
  private readonly sd: Float64Array;
  /** The same of two that are both gross, pair by pair. */
  private readonly two: Float64Array;
  /** By which numbers the gross ones are, as parts of the whole. */
  private readonly sums: Float64Array;

  constructor(
    private readonly numbers: readonly Number_[],
    predictions: Predictions,
    private readonly of: readonly number[],
  ) {
    const size = numbers.length;
    this.size = size;
    this.errors = new SharedErrors(
      numbers.map(({ reading }) => reading),
      predictions,
      of,
    );
    this.logGross = numbers.map(({ reading }) => Math.log(GROSS / (1 - GROSS) / spanOf(reading)));
    const column = () => new Float64Array(size);
    [this.residual, this.z, this.taken, this.sd] = [column(), column(), column(), column()];
    this.sums = column();
    this.two = new Float64Array((size * (size - 1)) / 2);
    this.inverse = new Float64Array(size ** 2);
  }

  addTo({ all, without, gross, standing }: Likelihood): void {
    const { size, numbers, sums, z, of } = this;
    for (let at = 0; at < of.length; at += 1) {
      const log = this.log(of[at]!);
      all[at]! += log;
      for (const column of without) column[at]! += log;
      for (let i = 0; i < size; i += 1) {
        const { piece, reading } = numbers[i]!;
        standing[piece]![at] = z[i]!;
        gross[piece]![at] = sums[i]!;
        // Where it was gross it told nothing: γ/span is all that it brought. So the others alone are what is left of that.
        without[piece]![at]! += Math.log(sums[i]!) - Math.log(GROSS / spanOf(reading));
      }
    }
  }

  /** Log of how likely the numbers are by a particle, none, one or two of them gross; leaves `z` and `sums` as it finds them. */
  private log(k: number): number {
    const { size, numbers, errors, inverse, residual, z, taken, sd, two, sums, logGross } = this;
    for (let i = 0; i < size; i += 1) {
      const off = numbers[i]!.reading.value - errors.expected(i, k);
      residual[i] = Number.isFinite(off) ? off : spanOf(numbers[i]!.reading);
    }
    const logDeterminant = errors.inverse(k, inverse);
    let square = 0;
    let most = 0;
    for (let i = 0; i < size; i += 1) {
      let sum = 0;
      for (let j = 0; j < size; j += 1) sum += inverse[i * size + j]! * residual[j]!;
      square += sum * residual[i]!;
      sd[i] = 1 / Math.sqrt(inverse[i * size + i]!);
      z[i] = sum * sd[i]!;
      taken[i] = logGross[i]! + LOG_2PI / 2 + Math.log(sd[i]!);
      most = Math.max(most, taken[i]! + z[i]! ** 2 / 2);
    }
    let pair = 0;
    for (let i = 0; i < size; i += 1)
      for (let j = 0; j < i; j += 1, pair += 1) {
        const rho = inverse[i * size + j]! * sd[i]! * sd[j]!;
        const apart = 1 - rho * rho;
        const both = (z[i]! ** 2 - 2 * rho * z[i]! * z[j]! + z[j]! ** 2) / apart;
        const log = taken[i]! + taken[j]! + both / 2;
        two[pair] = log + CLOSEST - most < COUNTS_FROM ? -Infinity : log - Math.log(apart) / 2;
        if (two[pair]! > most) most = two[pair]!;
      }
    // Sums of e^(… − most): none gross, one, two; and by which number they are.
    sums.fill(0);
    let total = Math.exp(-most);
    pair = 0;
    for (let i = 0; i < size; i += 1) {
      const one = Math.exp(taken[i]! + z[i]! ** 2 / 2 - most);
      total += one;
      sums[i]! += one;
      for (let j = 0; j < i; j += 1, pair += 1) {
        if (two[pair]! - most < COUNTS_FROM) continue;
        const both = Math.exp(two[pair]! - most);
        total += both;
        sums[i]! += both;
        sums[j]! += both;
      }
    }
    for (let i = 0; i < size; i += 1) sums[i]! /= total;
    return (
      size * Math.log(1 - GROSS) - (square + logDeterminant + size * LOG_2PI) / 2 + most + Math.log(total)
    );
  }
}
