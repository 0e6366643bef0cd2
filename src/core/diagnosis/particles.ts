import type { Family } from '../contract/family';
import type { Vector } from '../model/descriptor';
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
  /** Chance of this very particle before anything was read. */
  readonly prior: number;
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

/** Particles of all causes but the unknown one, and how units of this kind differ from each other. */
export interface ParticleSet {
  readonly particles: readonly Particle[];
  /** Ways in which healthy units differ, each by one standard deviation of it. */
  readonly spread: readonly Vector[];
  /** Parameters of a particle, moved by so many standard deviations of one of those ways. */
  readonly moved: (particle: Particle, way: number, by: number) => Vector;
}

/** How finely severities are laid out. */
export interface Sizes {
  /** Strata of severity of a single fault, and of each fault of a pair. */
  readonly single: number;
  readonly ofPair: number;
  /** Pairs that are looked at, the likeliest first: their chances stand for all. */
  readonly pairs: number;
}

export const USUAL_SIZES: Sizes = { single: 48, ofPair: 4, pairs: 150 };

/** So many strata of severity, one behind the other, hang on tolerances and inputs alike. */
const ALIKE = 4;

/**
 * Particles of every cause but the unknown one. Severities lie evenly in severity, which is log-uniform in what the fault
 * changes. Handbook-models 12.
 */
export function layOut(
  family: Pick<Family, 'healthy'>,
  profile: unknown,
  { healthy, singles, pairs }: Library,
  sizes: Sizes,
): ParticleSet {
  const unit = family.healthy(profile);
  const particles: Particle[] = [];
  const withFaults = ({ cause, severities }: Pick<Particle, 'cause' | 'severities'>, made: Vector) =>
    cause.faults.reduce((vector, fault, i) => fault.apply(vector, severities[i]!), made);
  const add = (of: Omit<Particle, 'parameters'>) =>
    particles.push({ ...of, parameters: withFaults(of, unit.values) });

  add({ cause: healthy, severities: [], prior: healthy.prior, lead: 0, beside: [] });
  const strata = (count: number) => Array.from({ length: count }, (_, i) => (i + 0.5) / count);
  for (const cause of singles) {
    const first = particles.length;
    strata(sizes.single).forEach((severity, i) =>
      add({
        cause,
        severities: [severity],
        prior: cause.prior / sizes.single,
        lead: first + Math.floor(i / ALIKE) * ALIKE,
        beside: [beside(i, sizes.single, (at) => first + at)],
      }),
    );
  }
  const likeliest = pairs.slice(0, sizes.pairs);
  const [whole, looked] = [pairs, likeliest].map((some) => some.reduce((sum, { prior }) => sum + prior, 0));
  const side = sizes.ofPair;
  for (const cause of likeliest) {
    const first = particles.length;
    for (let i = 0; i < side; i += 1)
      for (let j = 0; j < side; j += 1)
        add({
          cause,
          severities: [(i + 0.5) / side, (j + 0.5) / side],
          prior: (cause.prior * (whole! / looked!)) / side ** 2,
          lead: first,
          beside: [
            beside(i, side, (at) => first + at * side + j),
            beside(j, side, (at) => first + i * side + at),
          ],
        });
  }
  const spread = spreadOf(unit);
  return {
    particles,
    spread,
    moved: (particle, way, by) =>
      withFaults(
        particle,
        unit.values.map((value, i) => value + by * spread[way]![i]!),
      ),
  };
}

function beside(place: number, count: number, particle: (place: number) => number): Beside {
  const [lower, upper] = [Math.max(0, place - 1), Math.min(count - 1, place + 1)];
  return { lower: particle(lower), upper: particle(upper), strata: upper - lower };
}
