import { gaussian } from '../numeric/chance';
import { UNKNOWN, type RepairClass } from './causes';
import { spanOf, type Evidence, type LookEvidence } from './evidence';
import { triangleOf } from '../numeric/covariance';
import { chanceOfAnswer, GROSS } from './likelihood';
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
  const standing = standingFor(posterior);
  const valued = tests.map((test, i): Valued => {
    progress(i / tests.length);
    const { attended_s, waiting_s, setUp_s, restoring_s } = test;
    const cost_min = (attended_s + waits * waiting_s + setUp_s + restoring_s) / 60;
    if (test.planned.length === 0) return { test, gain_bits: 0, cost_min, bitsPerMinute: 0 };
    const gain_bits = new Outlook(predictions, posterior, standing, evidence, test).gain_bits(random);
    return { test, gain_bits, cost_min, bitsPerMinute: gain_bits / cost_min };
  });
  return valued.sort((a, b) => b.bitsPerMinute - a.bitsPerMinute);
}

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

/** What a test would show by each of the particles that stand for what is believed. */
class Outlook {
  private readonly numbers: readonly PlannedReading[];
  private readonly looks: readonly PlannedLook[];
  /** Expected numbers, and the triangle of their covariance, given all that was read: for each particle. */
  private readonly expected: readonly Float64Array[];
  private readonly triangle: readonly Float64Array[];
  private readonly logDeterminant: readonly number[];

  constructor(
    private readonly predictions: Predictions,
    private readonly posterior: Posterior,
    private readonly standing: readonly Standing[],
    evidence: readonly Evidence[],
    { planned }: PossibleTest,
  ) {
    this.numbers = planned.filter((one) => one.kind === 'reading');
    this.looks = planned.filter((one) => one.kind === 'look');
    const pieces = evidence.flatMap((one, piece) =>
      one.kind === 'reading' && one.off === null ? [{ one, piece }] : [],
    );
    const errors = new SharedErrors(
      [...pieces.map(({ one }) => one), ...this.numbers],
      predictions,
      standing.map(({ k }) => k),
    );
    const [old, size] = [pieces.length, this.numbers.length];
    const whole = old + size;
    const covariance = new Float64Array(whole ** 2);
    const made = standing.map(({ k, at }) => {
      errors.covariance(k, covariance);
      pieces.forEach(({ one, piece }, i) => {
        // A reading that is taken for a gross error by this particle tells it nothing.
        if (posterior.grossBy[piece]![at]! > 0.5) covariance[i * whole + i]! += spanOf(one) ** 2;
      });
      triangleOf(covariance, whole);
      const told = new Float64Array(old);
      for (let i = 0; i < old; i += 1) {
        let sum = pieces[i]!.one.value - errors.expected(i, k);
        if (!Number.isFinite(sum)) sum = 0;
        for (let j = 0; j < i; j += 1) sum -= covariance[i * whole + j]! * told[j]!;
        told[i] = sum / covariance[i * whole + i]!;
      }
      const expected = new Float64Array(size);
      const triangle = new Float64Array(size ** 2);
      let log = 0;
      for (let i = 0; i < size; i += 1) {
        const row = (old + i) * whole;
        let sum = errors.expected(old + i, k);
        for (let j = 0; j < old; j += 1) sum += covariance[row + j]! * told[j]!;
        expected[i] = Number.isFinite(sum) ? sum : this.numbers[i]!.scale.high;
        for (let j = 0; j <= i; j += 1) triangle[i * size + j] = covariance[row + old + j]!;
        log += 2 * Math.log(triangle[i * size + i]!);
      }
      return { expected, triangle, log };
    });
    this.expected = made.map(({ expected }) => expected);
    this.triangle = made.map(({ triangle }) => triangle);
    this.logDeterminant = made.map(({ log }) => log);
  }

  /** Doubt that it is expected to take away. */
  gain_bits(random: () => number): number {
    const before = entropy_bits(this.classes(this.standing.map(({ chance }) => chance)).values());
    let after = 0;
    for (let i = 0; i < OUTCOMES; i += 1) {
      const truth = this.chosen((i + random()) / OUTCOMES);
      after += this.left_bits(this.values(truth, random), this.answers(truth, random));
    }
    return Math.max(0, before - after / OUTCOMES);
  }

  /** The particle at a place of the chance; −1 for the unknown cause, which stands last. */
  private chosen(at: number): number {
    let upTo = 0;
    for (const [i, { chance }] of this.standing.entries()) if ((upTo += chance) > at) return i;
    return -1;
  }

  private values(truth: number, random: () => number): Float64Array {
    const size = this.numbers.length;
    const values = new Float64Array(size);
    const chance = values.map(() => gaussian(random));
    for (let i = 0; i < size; i += 1) {
      const { low, high } = this.numbers[i]!.scale;
      if (truth < 0) values[i] = low + random() * (high - low);
      else {
        values[i] = this.expected[truth]![i]!;
        for (let j = 0; j <= i; j += 1) values[i]! += this.triangle[truth]![i * size + j]! * chance[j]!;
      }
    }
    return values;
  }

  private answers(truth: number, random: () => number): LookEvidence[] {
    return this.looks.map((look) => {
      const answers = ['', ...look.bad].map((answer) => ({ ...look, answer, good: answer === '' }));
      let left = random();
      for (const answer of answers) {
        left -= truth < 0 ? 1 / answers.length : chanceOfAnswer(answer, this.particle(truth));
        if (left <= 0) return answer;
      }
      return answers.at(-1)!;
    });
  }

  private particle(standing: number): Particle {
    return this.predictions.set.particles[this.standing[standing]!.k]!;
  }

  /** Doubt left after an outcome, bits. */
  private left_bits(values: Float64Array, answers: readonly LookEvidence[]): number {
    const size = values.length;
    const anywhere = this.numbers.reduce((sum, one) => sum - Math.log(spanOf(one)), 0);
    const logs = this.standing.map((_, s) => {
      let square = 0;
      const scaled = new Float64Array(size);
      for (let i = 0; i < size; i += 1) {
        let sum = values[i]! - this.expected[s]![i]!;
        for (let j = 0; j < i; j += 1) sum -= this.triangle[s]![i * size + j]! * scaled[j]!;
        scaled[i] = sum / this.triangle[s]![i * size + i]!;
        square += scaled[i]! ** 2;
      }
      const log = -(square + this.logDeterminant[s]! + size * Math.log(2 * Math.PI)) / 2;
      // A gross error may stand in it too.
      const withGross = size > 0 ? logSum(log, Math.log(GROSS) + anywhere) : 0;
      const particle = this.particle(s);
      return answers.reduce((sum, look) => sum + Math.log(chanceOfAnswer(look, particle)), withGross);
    });
    const logUnknown = anywhere + answers.length * Math.log(0.5);
    const most = logs.reduce((a, b) => Math.max(a, b), logUnknown);
    return entropy_bits(
      this.classes(
        logs.map((log, i) => this.standing[i]!.chance * Math.exp(log - most)),
        Math.exp(logUnknown - most),
      ).values(),
    );
  }

  /** Chances of the repairs, from weights of the particles and how likely an unknown cause is beside them. */
  private classes(weights: readonly number[], unknown = 1): Map<RepairClass, number> {
    const classes = new Map<RepairClass, number>([[UNKNOWN, this.posterior.unknown * unknown]]);
    weights.forEach((weight, i) => {
      const { repair } = this.particle(i).cause;
      classes.set(repair, (classes.get(repair) ?? 0) + weight);
    });
    const total = [...classes.values()].reduce((sum, weight) => sum + weight, 0);
    for (const [repair, weight] of classes) classes.set(repair, weight / total);
    return classes;
  }
}

/** ln(eᵃ + eᵇ). */
const logSum = (a: number, b: number) => Math.max(a, b) + Math.log1p(Math.exp(-Math.abs(a - b)));
