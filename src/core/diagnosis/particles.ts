import type { Family } from '../contract/family';
import type { Vector } from '../model/descriptor';
import type { HealthyUnit } from '../model/vectors';
import { spreadOf } from './spread';
import type { Cause, Library } from './causes';

/**
 * A small neighbourhood of units that a cause may stand for: every tolerance as made, each severity in the middle of its stratum.
 * The tolerances and what lies within the strata are linear about it.
 */
export interface Particle {
  readonly cause: Cause;
  readonly parameters: Vector;
  /** Severity of each fault of the cause, 0 to 1. */
  readonly severities: readonly number[];
  /** Part of the chance of its cause that is its own beforehand. */
  readonly share: number;
  /** Particle by which the readings of this one hang on tolerances and inputs: the same cause, nearly the same severity. */
  readonly lead: number;
  /** For each fault of the cause: the particles next to it in severity, and how many strata lie between them. */
  readonly beside: readonly Beside[];
}

export interface Beside {
  readonly lower: number;
  readonly upper: number;
  readonly strata: number;
}

/** How finely severities are laid out. */
export interface Sizes {
  /** Strata of severity of a single fault. */
  readonly single: number;
  /** The same of each fault of a pair: at a glance, and where it may be the cause. */
  readonly coarse: number;
  readonly fine: number;
  /** Pairs that are always looked at, the likeliest first: their chances stand for those that are not. */
  readonly pairs: number;
}

export const USUAL_SIZES: Sizes = { single: 48, coarse: 4, fine: 10, pairs: 120 };

/** So many strata of severity, one behind the other, hang on tolerances and inputs alike. */
const ALIKE = 4;

/**
 * Particles of every cause but the unknown one. Severities lie evenly in severity, which is log-uniform in what the fault
 * changes. Handbook-models 12. Those of a pair are laid out when they are asked for first: there are too many pairs for all.
 */
export class ParticleSet {
  /** Ways in which healthy units differ, each by one standard deviation of it. */
  readonly spread: readonly Vector[];
  /** Of no fault, and of one: they are there from the first. */
  readonly singles: readonly number[];
  private readonly laid: Particle[] = [];
  private readonly unit: HealthyUnit;
  private readonly pairs = new Map<string, readonly number[]>();

  constructor(
    family: Pick<Family, 'healthy'>,
    profile: unknown,
    { healthy, singles }: Library,
    { single }: Pick<Sizes, 'single'>,
  ) {
    this.unit = family.healthy(profile);
    this.spread = spreadOf(this.unit);
    this.add({ cause: healthy, severities: [], share: 1, lead: 0, beside: [] });
    for (const cause of singles) {
      const first = this.laid.length;
      for (let i = 0; i < single; i += 1)
        this.add({
          cause,
          severities: [(i + 0.5) / single],
          share: 1 / single,
          lead: first + Math.floor(i / ALIKE) * ALIKE,
          beside: [beside(i, single, (at) => first + at)],
        });
    }
    this.singles = this.laid.map((_, k) => k);
  }

  get particles(): readonly Particle[] {
    return this.laid;
  }

  /** Particles of two faults, with so many strata of severity of each. */
  pair(cause: Cause, strata: number): readonly number[] {
    const key = `${cause.id}/${strata}`;
    const known = this.pairs.get(key);
    if (known) return known;
    const first = this.laid.length;
    for (let i = 0; i < strata; i += 1)
      for (let j = 0; j < strata; j += 1)
        this.add({
          cause,
          severities: [(i + 0.5) / strata, (j + 0.5) / strata],
          share: 1 / strata ** 2,
          // Where they lie close, those of one severity of the first hang on tolerances alike.
          lead: strata > ALIKE ? first + i * strata : first,
          beside: [
            beside(i, strata, (at) => first + at * strata + j),
            beside(j, strata, (at) => first + i * strata + at),
          ],
        });
    const made = Array.from({ length: strata ** 2 }, (_, i) => first + i);
    this.pairs.set(key, made);
    return made;
  }

  /** Parameters of a particle, moved by so many standard deviations of one way in which units differ. */
  moved(particle: Particle, way: number, by: number): Vector {
    const { values } = this.unit;
    return withFaults(
      particle,
      values.map((value, i) => value + by * this.spread[way]![i]!),
    );
  }

  private add(of: Omit<Particle, 'parameters'>): void {
    this.laid.push({ ...of, parameters: withFaults(of, this.unit.values) });
  }
}

const withFaults = ({ cause, severities }: Pick<Particle, 'cause' | 'severities'>, made: Vector): Vector =>
  cause.faults.reduce((vector, fault, i) => fault.apply(vector, severities[i]!), made);

function beside(place: number, count: number, particle: (place: number) => number): Beside {
  const [lower, upper] = [Math.max(0, place - 1), Math.min(count - 1, place + 1)];
  return { lower: particle(lower), upper: particle(upper), strata: upper - lower };
}
