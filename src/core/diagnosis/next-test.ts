import { gaussian } from '../numeric/chance';
import type { RepairClass } from './causes';
import { spanOf, type Evidence, type LookEvidence } from './evidence';
import { solveForward, triangleOf } from '../numeric/covariance';
import { AnswerChances, GROSS, unknownAnswer } from './likelihood';
import type { PlannedReading } from './of-run';
import type { Particle } from './particles';
import type { Posterior } from './posterior';
import type { Predictions } from './predictions';
import { SharedErrors } from './shared-errors';

/** A look that could be taken, before it is answered. */
export type PlannedLook = Omit<LookEvidence, 'answer' | 'good'>;

/** What a test would show, and what it takes to do it from the present state. */
export interface PossibleTest {
  readonly step: string;
  readonly planned: readonly (PlannedReading | PlannedLook)[];
  readonly attended_s: number;
  readonly waiting_s: number;
  /** To bring sources and gauges to where it begins, and to bring back what it uses up. */
  readonly setUp_s: number;
  readonly restoring_s: number;
}

/** A test with what it is expected to tell. */
export interface Valued {
  readonly test: PossibleTest;
  /** Bits over repair classes that it is expected to take from the doubt. */
  readonly gain_bits: number;
  /** What it costs, minutes: waits count as much as the time that they take from other work. */
  readonly cost_min: number;
  readonly bitsPerMinute: number;
}

/** At most so many particles stand for what is believed. */
const MOST_STANDING = 300;
/** Outcomes that are tried for each test. */
const OUTCOMES = 64;
/** Part of the work that is done once for all tests. */
const LOOKED_OUT = 0.4;
/** A test that tells less than this is never advised, bits. Handbook-models 12. */
export const LEAST_BITS = 0.02;

/** Part of a wait that counts: all of it, or less where other work fills it. Handbook-models 12. */
export const waitCounts = (otherWork: boolean): number => (otherWork ? 0.2 : 1);

/** Doubt about what to mend, bits. */
export function entropy_bits(chances: Iterable<number>): number {
  let sum = 0;
  for (const chance of chances) if (chance > 0) sum -= chance * Math.log2(chance);
  return sum;
}

/**
 * Tests by what they tell for their minutes, the best first. Value = [H − E(H after)]/(attended + λ·wait + set-up + restoring),
 * bits over repair classes. Handbook-models 12. Outcomes are drawn from what is believed now, given all that was read: what a
 * gauge has shown of its error, and the unit of its tolerances, is known by then.
 *
 * @param waits part of a wait that counts
 * @param random even chance from 0 to 1
 */
export function valueTests(
  predictions: Predictions,
  posterior: Posterior,
  evidence: readonly Evidence[],
  tests: readonly PossibleTest[],
  waits: number,
  random: () => number,
  progress: (part: number) => void = () => {},
): Valued[] {
  const numbers = new Map<string, PlannedReading>();
  for (const one of tests.flatMap(({ planned }) => planned))
    if (one.kind === 'reading') numbers.set(nameOf(one), one);
  const outlook = new Outlook(predictions, posterior, evidence, [...numbers.values()]);
  progress(LOOKED_OUT);
  const places = new Map([...numbers.keys()].map((id, i) => [id, i]));
  const valued = tests.map((test, i): Valued => {
    progress(LOOKED_OUT + ((1 - LOOKED_OUT) * i) / tests.length);
    const { attended_s, waiting_s, setUp_s, restoring_s, planned } = test;
    const cost_min = (attended_s + waits * waiting_s + setUp_s + restoring_s) / 60;
    const read = planned.flatMap((one) => (one.kind === 'reading' ? [places.get(nameOf(one))!] : []));
    const looks = planned.filter((one) => one.kind === 'look');
    const gain_bits = planned.length > 0 ? outlook.gain_bits([...new Set(read)], looks, random) : 0;
    return { test, gain_bits, cost_min, bitsPerMinute: gain_bits / cost_min };
  });
  return valued.sort((a, b) => b.bitsPerMinute - a.bitsPerMinute);
}

/** The same reading in two tests is one. */
const nameOf = (planned: PlannedReading): string => JSON.stringify(planned);

/** One particle that stands for what is believed: its place in the set, and among those that were weighed. */
interface Standing {
  readonly k: number;
  readonly at: number;
  readonly chance: number;
}

/**
 * Particles that stand for what is believed, with their chances; with the unknown cause they make 1. Drawn evenly along the chance,
 * so that each cause has its part: a particle that is drawn often has as much more of it.
 */
function standingFor({ of, weights, unknown }: Posterior): Standing[] {
  const known = 1 - unknown;
  const found = new Map<number, number>();
  let upTo = 0;
  let drawn = 0;
  of.forEach((_, at) => {
    upTo += (weights[at]! / known) * MOST_STANDING;
    for (; drawn + 0.5 < upTo && drawn < MOST_STANDING; drawn += 1) found.set(at, (found.get(at) ?? 0) + 1);
  });
  return [...found].map(([at, times]) => ({ k: of[at]!, at, chance: (times / drawn) * known }));
}

/** What a look would be answered, by each of the particles that stand for what is believed, and by an unknown cause. */
interface Answers {
  /** For each answer, the chance of it and its logarithm, particle by particle. */
  readonly chances: readonly Float64Array[];
  readonly logs: readonly Float64Array[];
  /** The chance of each by an unknown cause. */
  readonly unknown: readonly number[];
}

/** What could be read by each of the particles that stand for what is believed, given all that was read. */
class Outlook {
  private readonly standing: readonly Standing[];
  /** Place of each particle's repair among the repairs; the unknown cause is a repair of its own, the last. */
  private readonly repair: readonly number[];
  private readonly repairs: number;
  /** Doubt before the test, bits. */
  private readonly before_bits: number;
  private readonly expected: readonly Float64Array[];
  /** Triangle of the covariance of the numbers that could be read. */
  private readonly triangle: readonly Float64Array[];

  constructor(
    private readonly predictions: Predictions,
    private readonly posterior: Posterior,
    evidence: readonly Evidence[],
    private readonly numbers: readonly PlannedReading[],
  ) {
    this.standing = standingFor(posterior);
    const repairs: RepairClass[] = [...new Set(this.standing.map((_, s) => this.particle(s).cause.repair))];
    this.repair = this.standing.map((_, s) => repairs.indexOf(this.particle(s).cause.repair));
    this.repairs = repairs.length + 1;
    this.before_bits = this.doubt_bits(
      this.standing.map(({ chance }) => chance),
      posterior.unknown,
    );
    const pieces = evidence.flatMap((one, piece) =>
      one.kind === 'reading' && one.off === null ? [{ one, piece }] : [],
    );
    const errors = new SharedErrors(
      [...pieces.map(({ one }) => one), ...numbers],
      predictions,
      this.standing.map(({ k }) => k),
    );
    const [old, size] = [pieces.length, numbers.length];
    const whole = old + size;
    const l = new Float64Array(whole ** 2);
    const told = new Float64Array(old);
    const made = this.standing.map(({ k, at }) => {
      errors.covariance(k, l);
      pieces.forEach(({ one, piece }, i) => {
        // A reading that is taken for a gross error by this particle tells it nothing.
        if (posterior.grossBy[piece]![at]! > 0.5) l[i * whole + i]! += spanOf(one) ** 2;
      });
      triangleOf(l, whole);
      pieces.forEach(({ one }, i) => (told[i] = errors.off(i, k, one.value)));
      solveForward(l, whole, old, told);
      const expected = new Float64Array(size);
      const triangle = new Float64Array(size ** 2);
      for (let i = 0; i < size; i += 1) {
        const row = (old + i) * whole;
        let sum = errors.expected(old + i, k);
        for (let j = 0; j < old; j += 1) sum += l[row + j]! * told[j]!;
        expected[i] = Number.isFinite(sum) ? sum : numbers[i]!.scale.high;
        for (let j = 0; j <= i; j += 1) triangle[i * size + j] = l[row + old + j]!;
      }
      return { expected, triangle };
    });
    this.expected = made.map(({ expected }) => expected);
    this.triangle = made.map(({ triangle }) => triangle);
  }

  /**
   * Doubt that a test is expected to take away.
   *
   * @param read places of what it reads among the numbers that could be
   */
  gain_bits(read: readonly number[], looks: readonly PlannedLook[], random: () => number): number {
    const numbers = read.map((place) => this.numbers[place]!);
    const outcomes = this.standing.map((_, s) => this.marginal(s, read));
    const answers = looks.map((look) => this.answersTo(look));
    const anywhere = numbers.reduce((sum, one) => sum - Math.log(spanOf(one)), 0);
    const size = read.length;
    const values = new Float64Array(size);
    const scaled = new Float64Array(size);
    const logs = new Float64Array(this.standing.length);
    let after = 0;
    for (let n = 0; n < OUTCOMES; n += 1) {
      const truth = this.chosen((n + random()) / OUTCOMES);
      const chance = values.map(() => gaussian(random));
      for (let i = 0; i < size; i += 1) {
        const { low, high } = numbers[i]!.scale;
        if (truth < 0) values[i] = low + random() * (high - low);
        else {
          const { expected, triangle } = outcomes[truth]!;
          values[i] = expected[i]!;
          for (let j = 0; j <= i; j += 1) values[i]! += triangle[i * size + j]! * chance[j]!;
        }
      }
      const given = answers.map((one) => chosenOf(one, truth, random));
      const logUnknown = given.reduce(
        (sum, answer, i) => sum + Math.log(answers[i]!.unknown[answer]!),
        anywhere,
      );
      let most = logUnknown;
      for (let s = 0; s < logs.length; s += 1) {
        const { expected, triangle, logDeterminant } = outcomes[s]!;
        let square = 0;
        for (let i = 0; i < size; i += 1) scaled[i] = values[i]! - expected[i]!;
        solveForward(triangle, size, size, scaled);
        for (let i = 0; i < size; i += 1) square += scaled[i]! ** 2;
        const log = -(square + logDeterminant + size * Math.log(2 * Math.PI)) / 2;
        // A gross error may stand in it too.
        let sum = size > 0 ? logSum(log, Math.log(GROSS) + anywhere) : 0;
        for (let i = 0; i < given.length; i += 1) sum += answers[i]!.logs[given[i]!]![s]!;
        logs[s] = sum;
        if (sum > most) most = sum;
      }
      after += this.doubt_bits(
        logs.map((log, s) => this.standing[s]!.chance * Math.exp(log - most)),
        this.posterior.unknown * Math.exp(logUnknown - most),
      );
    }
    return Math.max(0, this.before_bits - after / OUTCOMES);
  }

  /** Some of the numbers by one particle: what is expected, and the triangle of their covariance. */
  private marginal(s: number, read: readonly number[]) {
    const [whole, size] = [this.numbers.length, read.length];
    const l = this.triangle[s]!;
    const triangle = new Float64Array(size ** 2);
    for (let i = 0; i < size; i += 1)
      for (let j = 0; j <= i; j += 1) {
        const [row, other] = [read[i]! * whole, read[j]! * whole];
        const both = Math.min(read[i]!, read[j]!);
        let sum = 0;
        for (let m = 0; m <= both; m += 1) sum += l[row + m]! * l[other + m]!;
        triangle[i * size + j] = sum;
      }
    const logDeterminant = triangleOf(triangle, size);
    return { expected: read.map((place) => this.expected[s]![place]!), triangle, logDeterminant };
  }

  private answersTo(look: PlannedLook): Answers {
    const given = ['', ...look.bad].map((answer) => ({ ...look, answer, good: answer === '' }));
    const chances = given.map((one) => {
      const by = new AnswerChances(one);
      return Float64Array.from(this.standing, (_, s) => by.by(this.particle(s)));
    });
    return {
      chances,
      logs: chances.map((column) => column.map(Math.log)),
      unknown: given.map(unknownAnswer),
    };
  }

  /** The particle at a place of the chance; −1 for the unknown cause, which stands last. */
  private chosen(at: number): number {
    let upTo = 0;
    for (let s = 0; s < this.standing.length; s += 1) if ((upTo += this.standing[s]!.chance) > at) return s;
    return -1;
  }

  private particle(standing: number): Particle {
    return this.predictions.set.particles[this.standing[standing]!.k]!;
  }

  /** Doubt about the repair, from weights of the particles and of the unknown cause, bits. */
  private doubt_bits(weights: ArrayLike<number>, unknown: number): number {
    const chances = new Float64Array(this.repairs);
    chances[this.repairs - 1] = unknown;
    let total = unknown;
    for (let s = 0; s < weights.length; s += 1) {
      chances[this.repair[s]!]! += weights[s]!;
      total += weights[s]!;
    }
    return entropy_bits(chances.map((chance) => chance / total));
  }
}

/** One of the answers, by their chances. @param truth place of a particle; below zero for the unknown cause */
function chosenOf({ chances, unknown }: Answers, truth: number, random: () => number): number {
  let left = random();
  for (let answer = 0; answer < chances.length; answer += 1) {
    left -= truth < 0 ? unknown[answer]! : chances[answer]![truth]!;
    if (left <= 0) return answer;
  }
  return chances.length - 1;
}

/** ln(eᵃ + eᵇ). */
const logSum = (a: number, b: number) => Math.max(a, b) + Math.log1p(Math.exp(-Math.abs(a - b)));
