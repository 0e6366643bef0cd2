import type { Fault } from '../contract/family';
import type { Descriptor, Vector } from '../model/descriptor';
import type { Change } from '../twin/compare';
import { causeId, HEALTHY, UNKNOWN, type Cause } from './causes';
import { stepOf, type ParticleSet } from './particles';
import type { Posterior, Ranked } from './posterior';

/** Chance that a repair did away with the fault that it was made for. Judgement. */
const MENDED = 0.9;
/** A fault less likely than this before was not what the repair was for. */
const SUSPECTED_FROM = 0.01;
/** A change counts where chance would make one as large less than once in a hundred: |z| of a normal distribution. */
const BEYOND_NOISE = 2.576;
/** Likelier than not. */
const LIKELIER = 0.5;
/** From this chance on it is as good as sure. Handbook-models 12. */
const SURE = 0.95;

const mends = (parts: readonly string[]) => (fault: Fault) =>
  fault.parts.some((part) => parts.includes(part));

/**
 * What is believed behind a repair, by what was believed before it: faults of the parts that were changed or mended are gone, but for
 * the repairs that do not help.
 *
 * @param parts that were changed or mended
 * @returns chances of causes by name; together what the causes had before
 */
export function chancesAfter(
  before: readonly Pick<Ranked, 'cause' | 'chance'>[],
  parts: readonly string[],
): Readonly<Record<string, number>> {
  const chances: Record<string, number> = {};
  for (const { cause, chance } of before)
    for (const [id, part] of becomes(cause, parts)) chances[id] = (chances[id] ?? 0) + part * chance;
  return chances;
}

/** What a cause is behind a repair, with the chance of each. */
function becomes({ id, faults }: Cause, parts: readonly string[]): readonly (readonly [string, number])[] {
  const left = faults.filter((fault) => !mends(parts)(fault));
  if (id === UNKNOWN || left.length === faults.length) return [[id, 1]];
  return [
    [causeId(left), MENDED],
    [id, 1 - MENDED],
  ];
}

/** What some evidence leaves of every cause, with the particles that stand for them. */
export interface Believed {
  readonly posterior: Posterior;
  readonly set: ParticleSet;
}

/** A number of the unit before a repair, if it was that fault, and behind it, by what the readings leave of it. SI. */
export interface MovedParameter
  extends Omit<Change, 'place' | 'told_before' | 'told_after'>, Pick<Descriptor, 'id' | 'name' | 'quantity'> {
  /** Whether the change is beyond the noise of the readings; null where the fault was not likelier than not. */
  readonly moved: boolean | null;
}

/**
 * Gone with nothing else wrong, as good as sure; likelier there than not; something wrong, as good as sure; gone, and nothing said of
 * the rest; or none of these yet.
 */
export type RepairStanding = 'mended' | 'still-there' | 'not-healthy' | 'gone' | 'open';

/** What a repair came to: the fault that it speaks of, before it and behind it. */
export interface Repaired {
  readonly fault: string;
  readonly name: string;
  readonly before: number;
  readonly after: number;
  /** Chance behind it that nothing is wrong any more. */
  readonly healthy: number;
  readonly is: RepairStanding;
  /** Those that the fault moves. */
  readonly parameters: readonly MovedParameter[];
}

/**
 * Holds a repair against what was read before it and behind it. The fault that it claims to mend is the likeliest before of those of
 * its parts; the numbers of the unit that this one moves are compared.
 *
 * @param parameters of the family, in the order of its vectors
 * @param healthy vector of a unit as made
 * @param parts that were changed or mended
 * @returns null where nothing that these parts mend was suspected before
 */
export function repairedBy(
  parameters: readonly Descriptor[],
  healthy: Vector,
  parts: readonly string[],
  before: Believed,
  after: Believed,
): Repaired | null {
  const faults = new Set(before.posterior.ranked.flatMap(({ cause }) => cause.faults.filter(mends(parts))));
  const chanceOf = (fault: Fault, { posterior }: Believed) =>
    posterior.ranked
      .filter(({ cause }) => cause.faults.some(({ id }) => id === fault.id))
      .reduce((sum, { chance }) => sum + chance, 0);
  const [likeliest] = [...faults]
    .map((fault) => ({ fault, chance: chanceOf(fault, before) }))
    .sort((a, b) => b.chance - a.chance);
  if (!likeliest || likeliest.chance < SUSPECTED_FROM) return null;
  const { fault, chance } = likeliest;
  const [left, sound] = [
    chanceOf(fault, after),
    after.posterior.ranked.find(({ cause }) => cause.id === HEALTHY)?.chance ?? 0,
  ];
  const both = [givenFault(before, fault), after];
  const worst = fault.apply(healthy, 1);
  const moves = parameters.flatMap((parameter, place) =>
    worst[place] === healthy[place] ? [] : [{ parameter, place }],
  );
  return {
    fault: fault.id,
    name: fault.name,
    before: chance,
    after: left,
    healthy: sound,
    is: standingOf(left, sound),
    parameters: moves.map(({ parameter: { id, name, quantity }, place }) => {
      const inUnits = (value: number) => value;
      const [a, b] = both.map((one) => estimateOf(place, one, inUnits)) as [Estimate, Estimate];
      // What a fault multiplies is compared as a ratio: how far it may be off by itself grows with it.
      const ratio = healthy[place]! > 0 && worst[place]! > 0;
      const [from, to] = ratio
        ? (both.map((one) => estimateOf(place, one, Math.log)) as [Estimate, Estimate])
        : [a, b];
      return {
        id,
        name,
        quantity,
        before: a.mean,
        u_before: a.u,
        after: b.mean,
        u_after: b.u,
        change: b.mean - a.mean,
        u_change: Math.hypot(a.u, b.u),
        moved:
          chance <= LIKELIER ? null : Math.abs(to.mean - from.mean) > BEYOND_NOISE * Math.hypot(from.u, to.u),
      };
    }),
  };
}

function standingOf(left: number, sound: number): RepairStanding {
  if (sound >= SURE) return 'mended';
  if (left > LIKELIER) return 'still-there';
  if (sound <= 1 - SURE) return 'not-healthy';
  return left <= 1 - SURE ? 'gone' : 'open';
}

/** What is believed where a fault is there, by itself or with another. */
function givenFault({ posterior, set }: Believed, { id }: Fault): Believed {
  const has = (k: number) => set.particles[k]!.cause.faults.some((one) => one.id === id);
  const weights = posterior.weights.map((weight, at) => (has(posterior.of[at]!) ? weight : 0));
  return { posterior: { ...posterior, weights }, set };
}

interface Estimate {
  readonly mean: number;
  /** Standard uncertainty. */
  readonly u: number;
}

/**
 * A number of the unit, on some scale, over all that is believed of it: its mean, with the scatter of the severities that are left
 * and what units differ by as they are made. What the readings tell of how this one was made is not taken off: the uncertainty is
 * rather too wide.
 */
function estimateOf(
  place: number,
  { posterior: { of, weights }, set }: Believed,
  scale: (value: number) => number,
): Estimate {
  let [sum, mean, squares, likeliest] = [0, 0, 0, 0];
  const valueOf = (k: number) => scale(set.particles[k]!.parameters[place]!);
  of.forEach((k, at) => {
    if (weights[at]! <= 0) return;
    sum += weights[at]!;
    mean += weights[at]! * valueOf(k);
    if (weights[at]! > weights[likeliest]!) likeliest = at;
  });
  mean /= sum;
  of.forEach((k, at) => {
    if (weights[at]! > 0) squares += weights[at]! * (valueOf(k) - mean) ** 2;
  });
  const particle = set.particles[of[likeliest]!]!;
  const made = set.spread.map((_, way) => {
    const [down, up] = set.moved(particle, way);
    return (scale(up[place]!) - scale(down[place]!)) / (2 * stepOf(particle));
  });
  return { mean, u: Math.hypot(Math.sqrt(squares / sum), ...made) };
}
