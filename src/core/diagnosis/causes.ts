import { HEARD, type ComplaintId } from '../contract/complaints';
import { faultsOf, type Family, type Fault } from '../contract/family';

/** What a repair would be: causes of one class are mended alike, so that telling them apart changes nothing that is done. */
export type RepairClass = string;

/** Nothing is wrong, and: something that no fault of the library is. */
export const HEALTHY = 'healthy';
export const UNKNOWN = 'unknown';

/** One explanation of a complaint: no fault, one, or two together. */
export interface Cause {
  readonly id: string;
  readonly faults: readonly Fault[];
  readonly repair: RepairClass;
  /** Chance of it before anything was read, 0 to 1. */
  readonly prior: number;
}

/** What is believed before anything was read. Handbook-models 12. */
export interface Beliefs {
  /** Somebody complains: a healthy brake is less likely then. */
  readonly complaint: boolean;
  /** What is complained of: a fault that brings it counts three times. */
  readonly heard?: readonly ComplaintId[];
  /** Weights of faults, in place of those that the family gives them; 0 leaves a fault out. */
  readonly weights: Readonly<Record<string, number>>;
  /** Behind a repair: chance of each cause by what was read before it, with what it mends taken away. */
  readonly after?: Readonly<Record<string, number>>;
}

/** Behind a repair so much is believed of what was found before it; the rest is as beside any other brake. Judgement. */
const KNOWN_BEFORE = 0.95;
const HEALTHY_WITH_COMPLAINT = 0.1;
const HEALTHY_WITHOUT = 0.6;
/** Something that the library does not know. */
const UNKNOWN_PRIOR = 0.03;
/** Two faults at once, all pairs together. */
const PAIRS = 0.1;
/** How much likelier a pair is where one brings the other about. */
const BROUGHT_ABOUT = 3;

/** Everything that may be the cause, with its chance before anything was read. */
export interface Library {
  readonly healthy: Cause;
  readonly singles: readonly Cause[];
  /** Every pair of faults, the likeliest first. */
  readonly pairs: readonly Cause[];
  readonly unknown: Cause;
}

/** Parts that are changed or mended, of one fault or two; a fault that changes none is mended in its own way. */
export const repairOf = (faults: readonly Fault[]): RepairClass =>
  [...new Set(faults.flatMap(({ id, parts }) => (parts.length > 0 ? parts : [id])))].sort().join(' + ');

/**
 * The causes of a kind of installation with their chances. Handbook-models 12: healthy 0.10 where somebody complains, else 0.6;
 * unknown 0.03; two faults 0.10 together, each pair by w_i·w_j·c_ij with c 3 where one brings the other about; the rest by weight.
 *
 * @throws RangeError where a weight is below zero, or no fault has any
 */
export function libraryOf(
  family: Pick<Family, 'faults' | 'healthy'>,
  profile: unknown,
  { complaint, weights, heard = [], after }: Beliefs,
): Library {
  const faults = faultsOf(family, profile);
  const weightOf = ({ id, prior, brings = [] }: Fault) =>
    (weights[id] ?? prior) * (brings.some((one) => heard.includes(one)) ? HEARD : 1);
  const bad = faults.find((fault) => !(weightOf(fault) >= 0));
  if (bad) throw new RangeError(`weights: that of “${bad.id}” is below zero`);
  const possible = faults.filter((fault) => weightOf(fault) > 0);
  const total = possible.reduce((sum, fault) => sum + weightOf(fault), 0);
  if (total <= 0) throw new RangeError('weights: no fault has any');
  const healthy = complaint ? HEALTHY_WITH_COMPLAINT : HEALTHY_WITHOUT;
  const twos = possible.flatMap((first, i) =>
    possible.slice(i + 1).map((second) => {
      const brings = first.causes?.includes(second.id) || second.causes?.includes(first.id);
      return {
        faults: [first, second],
        weight: weightOf(first) * weightOf(second) * (brings ? BROUGHT_ABOUT : 1),
      };
    }),
  );
  const ofTwos = twos.reduce((sum, { weight }) => sum + weight, 0);
  const pairs = ofTwos > 0 ? PAIRS : 0;
  const singles = 1 - healthy - UNKNOWN_PRIOR - pairs;
  const believed = (id: string, usual: number) =>
    after ? KNOWN_BEFORE * (after[id] ?? 0) + (1 - KNOWN_BEFORE) * usual : usual;
  const cause = (of: readonly Fault[], usual: number): Cause => {
    const id = causeId(of);
    return { id, faults: of, repair: repairOf(of), prior: believed(id, usual) };
  };
  return {
    healthy: { id: HEALTHY, faults: [], repair: HEALTHY, prior: believed(HEALTHY, healthy) },
    singles: possible.map((fault) => cause([fault], (singles * weightOf(fault)) / total)),
    pairs: twos
      .map(({ faults: two, weight }) => cause(two, (pairs * weight) / ofTwos))
      .sort((a, b) => b.prior - a.prior),
    unknown: { id: UNKNOWN, faults: [], repair: UNKNOWN, prior: believed(UNKNOWN, UNKNOWN_PRIOR) },
  };
}

/** Name of a cause by its faults, in the order of the library. */
export const causeId = (faults: readonly Fault[]): string =>
  faults.length === 0 ? HEALTHY : faults.map(({ id }) => id).join(' + ');
