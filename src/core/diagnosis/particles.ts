import type { Family } from '../contract/family';
import type { Vector } from '../model/descriptor';
import type { HealthyUnit } from '../model/vectors';
import { spreadOf } from './spread';
import type { Cause } from './causes';

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
  /** Particle by which the readings of this one hang on tolerances and inputs: the same cause, nearly as severe. */
  readonly lead: number;
  /** For each fault of the cause: the particles next to it in severity, and how many strata lie between them. */
  readonly beside: readonly Beside[];
  /** The unit about which it is linear, in standard deviations of each way in which units differ; null for one as made. */
  readonly about: Vector | null;
}

export interface Beside {
  readonly lower: number;
  readonly upper: number;
  readonly strata: number;
}

/** Strata of each severity of a cause of one fault, or of two. */
export interface Strata {
  readonly one: number;
  readonly two: number;
}

/** How finely severities are laid out. */
export interface Sizes {
  /** At a glance, and where it may be the cause. */
  readonly coarse: Strata;
  readonly fine: Strata;
  /** About a unit that some evidence speaks of. */
  readonly about: Strata;
  /** Pairs that are always looked at, the likeliest first: their chances stand for those that are not. */
  readonly pairs: number;
}

/** A fault shows from a third of its range on: every number of strata is three times another. */
export const USUAL_SIZES: Sizes = {
  coarse: { one: 15, two: 3 },
  fine: { one: 48, two: 9 },
  about: { one: 48, two: 6 },
  pairs: 60,
};

type Moved = readonly [down: Vector, up: Vector];

/** So many severities of a fault by itself stand for all of it in how readings hang on tolerances and inputs; of a pair one does. */
const LEADS: Strata = { one: 6, two: 1 };

/**
 * Particles of every cause but the unknown one. Severities lie evenly in severity, which is log-uniform in what the fault
 * changes. Handbook-models 12. They are laid out when they are asked for first: there are too many pairs for all.
 */
export class ParticleSet {
  /** Ways in which healthy units differ, each by one standard deviation of it. */
  readonly spread: readonly Vector[];
  private readonly laid: Particle[] = [];
  private readonly unit: HealthyUnit;
  private readonly known = new Map<string, readonly number[]>();
  private readonly movedBy = new Map<Particle, Moved[]>();
  /** Every particle by which others hang on tolerances and inputs, and for each particle the place of its own among them. */
  private readonly leading: number[] = [];
  private readonly ledBy: number[] = [];
  /** So many are laid out for good; those behind them are about a unit that some evidence speaks of. */
  private lasting = { particles: 0, leads: 0 };

  constructor(family: Pick<Family, 'healthy'>, profile: unknown) {
    this.unit = family.healthy(profile);
    this.spread = spreadOf(this.unit);
  }

  get particles(): readonly Particle[] {
    return this.laid;
  }

  /** Particles by which others hang on tolerances and inputs. */
  get leads(): readonly number[] {
    return this.leading;
  }

  /** For each particle the place among those of the one that it hangs on. */
  get leadPlaces(): readonly number[] {
    return this.ledBy;
  }

  /**
   * Particles of a cause, laid out so finely.
   *
   * @throws RangeError while there are any about a unit
   */
  of(cause: Cause, by: Strata): readonly number[] {
    const count = cause.faults.length;
    const [strata, ofLeads] = [by, LEADS].map(({ one, two }) => (count === 2 ? two : one)) as [
      number,
      number,
    ];
    const key = `${cause.id}/${strata}`;
    const known = this.known.get(key);
    if (known) return known;
    // Their places would be given away while columns still hold what they showed.
    if (this.laid.length > this.lasting.particles)
      throw new RangeError('particles: those about a unit are forgotten before others are laid out');
    const leads = strata === ofLeads ? null : this.of(cause, LEADS);
    const made = this.lay(cause, strata, null, (places, k) => {
      if (!leads) return k;
      const nearest = places.map((place) => Math.floor(((place + 0.5) / strata) * ofLeads));
      return leads[placeAmong(nearest, ofLeads)]!;
    });
    this.lasting = { particles: this.laid.length, leads: this.leading.length };
    this.known.set(key, made);
    return made;
  }

  /**
   * Particles of a cause about a unit: they are there until they are forgotten, before others are laid out.
   *
   * @param about in standard deviations of each way in which units differ
   * @param lead place among them by which all hang on tolerances and inputs
   */
  about(cause: Cause, by: Strata, about: Vector, lead: number): readonly number[] {
    const first = this.laid.length;
    return this.lay(cause, cause.faults.length === 2 ? by.two : by.one, about, () => first + lead);
  }

  /** Forgets those that are about a unit. */
  forget(): void {
    const { particles, leads } = this.lasting;
    for (const particle of this.laid.slice(particles)) this.movedBy.delete(particle);
    this.laid.length = particles;
    this.ledBy.length = particles;
    this.leading.length = leads;
  }

  /** How many particles are laid out for good, and how many that others hang on. */
  get lastingCounts(): { readonly particles: number; readonly leads: number } {
    return this.lasting;
  }

  private lay(
    cause: Cause,
    strata: number,
    about: Vector | null,
    leadOf: (places: readonly number[], k: number) => number,
  ): readonly number[] {
    const count = cause.faults.length;
    const first = this.laid.length;
    const made = Array.from({ length: strata ** count }, (_, at) => first + at);
    const unit = this.unitAbout(about);
    made.forEach((k, at) => {
      // The last severity changes from one to the next, the first the most slowly.
      const places = cause.faults.map((_, i) => Math.floor(at / strata ** (count - 1 - i)) % strata);
      const severities = places.map((place) => (place + 0.5) / strata);
      this.laid.push({
        cause,
        parameters: withFaults({ cause, severities }, unit),
        severities,
        share: 1 / made.length,
        lead: leadOf(places, k),
        beside: places.map((place, i) =>
          beside(place, strata, (to) => first + placeAmong(places.with(i, to), strata)),
        ),
        about,
      });
    });
    for (const k of made) if (this.laid[k]!.lead === k) this.ledBy[k] = this.leading.push(k) - 1;
    for (const k of made) this.ledBy[k] ??= this.ledBy[this.laid[k]!.lead]!;
    return made;
  }

  /** Parameters of a unit with no fault. @param about null as made */
  private unitAbout(about: Vector | null): Vector {
    const { values } = this.unit;
    return about
      ? values.map((value, i) => about.reduce((sum, z, way) => sum + z * this.spread[way]![i]!, value))
      : values;
  }

  /** Parameters of a particle, moved along one way in which units differ by its step, down and up. */
  moved(particle: Particle, way: number): Moved {
    const known = this.movedBy.get(particle) ?? [];
    this.movedBy.set(particle, known);
    return (known[way] ??= this.movedTogether(particle, [way]));
  }

  /** The same along several ways at once. */
  movedTogether(particle: Particle, ways: readonly number[]): Moved {
    const unit = this.unitAbout(particle.about);
    const step = stepOf(particle);
    const by = (sign: number) =>
      withFaults(
        particle,
        unit.map((value, i) => ways.reduce((sum, way) => sum + sign * step * this.spread[way]![i]!, value)),
      );
    return [by(-1), by(1)];
  }

  /** Parameters of a particle if its unit were another, in standard deviations of each way. */
  withUnit(particle: Particle, about: Vector): Vector {
    return withFaults(particle, this.unitAbout(about));
  }
}

/**
 * How far about a particle what is linear is looked at, in standard deviations: all of what units differ by, or, about a unit that
 * evidence speaks of, what the evidence leaves of it.
 */
export const stepOf = ({ about }: Pick<Particle, 'about'>): number => (about ? 0.3 : 1);

/** Place of a particle among those of its cause: the last severity changes from one to the next. */
const placeAmong = (places: readonly number[], strata: number): number =>
  places.reduce((sum, place) => sum * strata + place, 0);

const withFaults = ({ cause, severities }: Pick<Particle, 'cause' | 'severities'>, made: Vector): Vector =>
  cause.faults.reduce((vector, fault, i) => fault.apply(vector, severities[i]!), made);

function beside(place: number, count: number, particle: (place: number) => number): Beside {
  const [lower, upper] = [Math.max(0, place - 1), Math.min(count - 1, place + 1)];
  return { lower: particle(lower), upper: particle(upper), strata: upper - lower };
}
