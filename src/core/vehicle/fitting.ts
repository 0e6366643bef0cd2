import { standardPressure_Pa } from '../air/atmosphere';
import { supplyHere_Pa, type SupplyKind } from '../air/supply';
import { runResistance_Ohm } from '../electric/feed';
import { mixes, type FluidKind } from '../fluid/kinds';
import type { Quantity } from '../quantities/units';
import {
  locksFirstAlone,
  ruleAlone,
  stopAlone,
  takenAtHard_m3,
  travelAtHard_m,
  type FootAlone,
} from './foot-alone';
import { FAILED_ASSIST, failedAssistLimit_m, stoppingDistance_m } from './stopping';

/** A figure that may not be known yet: it is never assumed. */
type Known<T> = T | null;

/** A vehicle that another kind of assist is to be fitted to. SI. Handbook 17. */
export interface FittingPlace {
  /** Its brakes, pedal and body; what a candidate brings of its own is taken from that. */
  readonly brake: Known<Omit<FootAlone, 'masterBore_m' | 'spring_N'>>;
  /** Where its owner lives. */
  readonly altitude_m: Known<number>;
  readonly vacuum_Pa: Known<number>;
  readonly vacuumBy: SupplyKind;
  readonly pumpFlow_m3PerS: Known<number>;
  readonly pumpRelief_Pa: Known<number>;
  readonly fuse_A: Known<number>;
  readonly wireLength_m: Known<number>;
  readonly wire_m2: Known<number>;
  /** Room for it, and the square of the studs on its plate. */
  readonly spaceLength_m: Known<number>;
  readonly spaceDiameter_m: Known<number>;
  readonly studSquare_m: Known<number>;
  /** How far its plate leans. */
  readonly plateAngle_rad: Known<number>;
  readonly fluid: Known<FluidKind>;
  /** Stops that are to be left without its source. */
  readonly reserveStops: Known<number>;
}

export type AssistKind = 'vacuum' | 'pumped' | 'electric';

/** Something that could be fitted. SI. */
export interface Candidate {
  readonly name: string;
  readonly assist: AssistKind;
  readonly masterBore_m: Known<number>;
  readonly spring_N: Known<number>;
  /** Until all of the brake is on. */
  readonly rise_s: Known<number>;
  readonly vacuumNeed_Pa: Known<number>;
  readonly flowNeed_m3PerS: Known<number>;
  readonly pressureNeed_Pa: Known<number>;
  readonly current_A: Known<number>;
  readonly dropMost_V: Known<number>;
  readonly hoseRating_Pa: Known<number>;
  readonly reserveStops: Known<number>;
  readonly length_m: Known<number>;
  readonly diameter_m: Known<number>;
  readonly studSquare_m: Known<number>;
  /** How far its reservoir may lean before its port is bare. */
  readonly reservoirAngle_rad: Known<number>;
  readonly fluid: Known<FluidKind>;
  /** Its reaction spring was made softer, or its sensor moved, to get more help. */
  readonly altered: boolean;
}

/** What a candidate has against what it needs. Negative: it does not fit. Handbook-models 11. */
export type Margin = { readonly id: string; readonly name: string } & (
  | {
      readonly known: true;
      readonly sense: 'at-least' | 'at-most';
      readonly has: number;
      readonly limit: number;
      readonly quantity: Quantity;
      /** (have − need)/need or (limit − value)/limit. */
      readonly margin: number;
    }
  | { readonly known: true; readonly sense: 'alike'; readonly margin: number; readonly says: string }
  | { readonly known: false; readonly lacks: readonly string[] }
);

/** Handbook-models 11: pedal travel at a stop of 0.6 g, of all there is; volume, of what the master gives. */
const TRAVEL_PART = 0.55;
const VOLUME_PART = 0.9;
/** A fuse carries so much more than what it is drawn; a hose is rated for so much more than any relief. */
const FUSE_PART = 1.25;
const HOSE_PART = 1.25;
/** Studs that lie closer than this go through the same holes. */
const STUDS_M = 5e-4;
/** A stop at 1 g tilts what stands in a reservoir by so much. Handbook 17. */
const STOP_RAD = Math.PI / 4;
/** A margin beyond which more of it is worth no more. */
const FULL = 0.3;

type Figures = Readonly<Record<string, unknown>>;
type Told<F extends Figures> = { readonly [K in keyof F]: NonNullable<F[K]> };

interface Criterion {
  readonly id: string;
  readonly name: string;
  readonly weight: number;
  readonly of: readonly AssistKind[];
  readonly margin: (place: FittingPlace, candidate: Candidate) => Margin;
}

const EVERY: readonly AssistKind[] = ['vacuum', 'pumped', 'electric'];

interface About {
  readonly id: string;
  readonly name: string;
}

/** A criterion of figures that may be lacking: worked out where all are known, else what is lacking is named. */
function told<F extends Figures>(
  about: About,
  figures: F,
  work: (known: Told<F>) => Omit<Margin & { known: true }, 'id' | 'name' | 'known'>,
): Margin {
  const lacks = Object.entries(figures).flatMap(([name, value]) => (value === null ? [name] : []));
  return lacks.length > 0
    ? { ...about, known: false, lacks }
    : ({ ...about, known: true, ...work(figures as Told<F>) } as Margin);
}

const atLeast = (has: number, limit: number, quantity: Quantity) =>
  ({ sense: 'at-least', has, limit, quantity, margin: limit > 0 ? (has - limit) / limit : 0 }) as const;
const atMost = (has: number, limit: number, quantity: Quantity) =>
  ({ sense: 'at-most', has, limit, quantity, margin: (limit - has) / limit }) as const;
const alike = (is: boolean, says: string) => ({ sense: 'alike', margin: is ? FULL : -1, says }) as const;

const BORE = 'master bore of the candidate';
const SPRING = 'return spring of the candidate';
const BRAKES = 'brakes and body of the vehicle';

/** The vehicle with what a candidate brings. */
const withCandidate = (
  brake: Omit<FootAlone, 'masterBore_m' | 'spring_N'>,
  masterBore_m: number,
  spring_N: number,
): FootAlone => ({
  ...brake,
  masterBore_m,
  spring_N,
});

const criterion = (
  about: About & { readonly weight: number; readonly of?: readonly AssistKind[] },
  margin: (about: About, place: FittingPlace, candidate: Candidate) => Margin,
): Criterion => ({
  id: about.id,
  name: about.name,
  weight: about.weight,
  of: about.of ?? EVERY,
  margin: (place, candidate) => margin({ id: about.id, name: about.name }, place, candidate),
});

/** All of them are hard: none that is missed is bought back by another. */
const CRITERIA: readonly Criterion[] = [
  criterion(
    { id: 'effort', name: 'Pedal force with the assist failed', weight: 3 },
    (about, { brake }, { masterBore_m, spring_N }) =>
      told(about, { [BRAKES]: brake, [BORE]: masterBore_m, [SPRING]: spring_N }, () =>
        atMost(
          ruleAlone(withCandidate(brake!, masterBore_m!, spring_N!)).pedal_N,
          FAILED_ASSIST.pedal_N,
          'force',
        ),
      ),
  ),
  criterion(
    { id: 'metres', name: 'Metres with it failed, 500 N', weight: 2 },
    (about, { brake }, candidate) => {
      const { masterBore_m, spring_N, rise_s } = candidate;
      return told(
        about,
        { [BRAKES]: brake, [BORE]: masterBore_m, [SPRING]: spring_N, 'rise of the candidate': rise_s },
        () => {
          const { speed_mPerS, pedal_N } = FAILED_ASSIST;
          const { deceleration_mPerS2 } = stopAlone(withCandidate(brake!, masterBore_m!, spring_N!), pedal_N);
          const metres =
            deceleration_mPerS2 > 0
              ? stoppingDistance_m({ speed_mPerS, deceleration_mPerS2, delay_s: 0, rise_s: rise_s! })
              : Infinity;
          return atMost(metres, failedAssistLimit_m(speed_mPerS), 'altitude');
        },
      );
    },
  ),
  criterion(
    { id: 'travel', name: 'Pedal travel at 0.6 g', weight: 2 },
    (about, { brake }, { masterBore_m }) =>
      told(about, { [BRAKES]: brake, [BORE]: masterBore_m }, () =>
        atMost(
          travelAtHard_m(withCandidate(brake!, masterBore_m!, 0)),
          TRAVEL_PART * brake!.stroke_m,
          'travel',
        ),
      ),
  ),
  criterion(
    { id: 'volume', name: 'Fluid of the master against what the brakes take', weight: 2 },
    (about, { brake }, { masterBore_m }) =>
      told(about, { [BRAKES]: brake, [BORE]: masterBore_m }, () => {
        const brought = withCandidate(brake!, masterBore_m!, 0);
        return atLeast(
          VOLUME_PART * ruleAlone(brought).masterGives_m3,
          takenAtHard_m3(brought),
          'fluidVolume',
        );
      }),
  ),
  criterion({ id: 'locks', name: 'Axle that locks first', weight: 1 }, (about, { brake }, { masterBore_m }) =>
    told(about, { [BRAKES]: brake, [BORE]: masterBore_m }, () => {
      const first = locksFirstAlone(withCandidate(brake!, masterBore_m!, 0));
      return alike(first?.axle !== 'rear', first === null ? 'neither locks' : `the ${first.axle} axle`);
    }),
  ),
  criterion(
    { id: 'vacuum', name: 'Vacuum at the owner’s altitude', weight: 2, of: ['vacuum'] },
    (about, place, { vacuumNeed_Pa }) =>
      told(
        about,
        {
          'vacuum of the vehicle': place.vacuum_Pa,
          altitude: place.altitude_m,
          'vacuum that the candidate needs': vacuumNeed_Pa,
        },
        () =>
          atLeast(
            supplyHere_Pa(place.vacuum_Pa!, place.vacuumBy, standardPressure_Pa(place.altitude_m!)),
            vacuumNeed_Pa!,
            'depression',
          ),
      ),
  ),
  criterion(
    { id: 'flow', name: 'Flow of the pump', weight: 2, of: ['pumped'] },
    (about, { pumpFlow_m3PerS }, { flowNeed_m3PerS }) =>
      told(
        about,
        { 'flow of the pump': pumpFlow_m3PerS, 'flow that the candidate needs': flowNeed_m3PerS },
        () => atLeast(pumpFlow_m3PerS!, flowNeed_m3PerS!, 'pumpFlow'),
      ),
  ),
  criterion(
    { id: 'pressure', name: 'Relief of the pump', weight: 2, of: ['pumped'] },
    (about, { pumpRelief_Pa }, { pressureNeed_Pa }) =>
      told(
        about,
        { 'relief of the pump': pumpRelief_Pa, 'pressure that the candidate needs': pressureNeed_Pa },
        () => atLeast(pumpRelief_Pa!, pressureNeed_Pa!, 'pressure'),
      ),
  ),
  criterion(
    { id: 'hose', name: 'Rating of its hoses, 1.25 × relief', weight: 1, of: ['pumped'] },
    (about, { pumpRelief_Pa }, { hoseRating_Pa }) =>
      told(about, { 'relief of the pump': pumpRelief_Pa, 'rating of the hoses': hoseRating_Pa }, () =>
        atLeast(hoseRating_Pa!, HOSE_PART * pumpRelief_Pa!, 'pressure'),
      ),
  ),
  criterion(
    { id: 'drop', name: 'Volts lost in the wire, there and back', weight: 1, of: ['electric'] },
    (about, { wireLength_m, wire_m2 }, { current_A, dropMost_V }) =>
      told(
        about,
        {
          'length of the wire': wireLength_m,
          'section of the wire': wire_m2,
          'current of the candidate': current_A,
          'drop that the candidate stands': dropMost_V,
        },
        () => atMost(current_A! * runResistance_Ohm(wireLength_m!, wire_m2!), dropMost_V!, 'voltage'),
      ),
  ),
  criterion(
    { id: 'fuse', name: 'Fuse, 1.25 × current', weight: 1, of: ['electric'] },
    (about, { fuse_A }, { current_A }) =>
      told(about, { 'fuse of the feed': fuse_A, 'current of the candidate': current_A }, () =>
        atLeast(fuse_A!, FUSE_PART * current_A!, 'current'),
      ),
  ),
  criterion(
    { id: 'reserve', name: 'Stops left without its source', weight: 1 },
    (about, { reserveStops: asked }, { reserveStops }) =>
      told(about, { 'stops asked for': asked, 'stops stored in the candidate': reserveStops }, () =>
        atLeast(reserveStops!, asked!, 'count'),
      ),
  ),
  criterion(
    { id: 'length', name: 'Length, in its space', weight: 1 },
    (about, { spaceLength_m }, { length_m }) =>
      told(about, { 'length of the space': spaceLength_m, 'length of the candidate': length_m }, () =>
        atMost(length_m!, spaceLength_m!, 'length'),
      ),
  ),
  criterion(
    { id: 'diameter', name: 'Diameter, in its space', weight: 1 },
    (about, { spaceDiameter_m }, { diameter_m }) =>
      told(about, { 'diameter of the space': spaceDiameter_m, 'diameter of the candidate': diameter_m }, () =>
        atMost(diameter_m!, spaceDiameter_m!, 'length'),
      ),
  ),
  criterion({ id: 'studs', name: 'Studs', weight: 1 }, (about, place, candidate) =>
    told(
      about,
      {
        'stud square of the vehicle': place.studSquare_m,
        'stud square of the candidate': candidate.studSquare_m,
      },
      () => {
        const apart_m = Math.abs(place.studSquare_m! - candidate.studSquare_m!);
        return alike(
          apart_m <= STUDS_M,
          apart_m <= STUDS_M ? 'go through' : 'another square: an adaptor plate is a part of its own',
        );
      },
    ),
  ),
  criterion(
    { id: 'reservoir', name: 'Reservoir at the plate’s angle, and 45° in a stop', weight: 1 },
    (about, { plateAngle_rad }, { reservoirAngle_rad }) =>
      told(
        about,
        { 'angle of the plate': plateAngle_rad, 'angle that the reservoir stands': reservoirAngle_rad },
        () => atMost(plateAngle_rad! + STOP_RAD, reservoirAngle_rad!, 'angle'),
      ),
  ),
  criterion({ id: 'fluid', name: 'Fluid', weight: 1 }, (about, place, candidate) =>
    told(about, { 'fluid of the vehicle': place.fluid, 'fluid of the candidate': candidate.fluid }, () => {
      const may = mixes(place.fluid!, candidate.fluid!);
      return alike(may, may ? 'of one base' : 'of two bases: seals are destroyed where they meet');
    }),
  ),
];

/** A candidate against the vehicle. */
export interface Fitted {
  readonly name: string;
  readonly margins: readonly Margin[];
  readonly verdict: 'fits' | 'does-not-fit' | 'not-known';
  /** In words: what is missed, or lacks. */
  readonly reasons: readonly string[];
  /** Weighted mean of its margins, 0 to 1; null where it is not ranked. */
  readonly score: number | null;
  /** The least of its margins, which is always shown; null where none is known. */
  readonly least: { readonly id: string; readonly name: string; readonly margin: number } | null;
}

/** A refusal that no margin buys back. Handbook 17. */
const ALTERED = 'Its reaction spring was made softer or its sensor moved to get more help: refused.';

/** One candidate against a vehicle: every margin, and a verdict with its reasons. Handbook 17, handbook-models 11. */
export function fitted(place: FittingPlace, candidate: Candidate): Fitted {
  const asked = CRITERIA.filter(({ of }) => of.includes(candidate.assist));
  const margins = asked.map((one) => one.margin(place, candidate));
  const known = margins.flatMap((one) => (one.known ? [one] : []));
  const missed = known.filter(({ margin }) => margin < 0);
  const lacking = margins.flatMap((one) => (one.known ? [] : one.lacks));
  const isOut = missed.length > 0 || candidate.altered;
  const weights = asked.map(({ weight }) => weight);
  const worth = margins.map((one) => (one.known ? Math.max(0, Math.min(1, one.margin / FULL)) : 0));
  const total = weights.reduce((sum, weight) => sum + weight, 0);
  const least = [...known].sort((a, b) => a.margin - b.margin)[0];
  return {
    name: candidate.name,
    margins,
    verdict: isOut ? 'does-not-fit' : lacking.length > 0 ? 'not-known' : 'fits',
    reasons: [
      ...(candidate.altered ? [ALTERED] : []),
      ...missed.map((one) => `${one.name}: ${one.sense === 'alike' ? one.says : 'missed'}.`),
      ...[...new Set(lacking)].map((what) => `Not known yet: ${what}.`),
    ],
    score:
      isOut || lacking.length > 0
        ? null
        : worth.reduce((sum, part, i) => sum + part * weights[i]!, 0) / total,
    least: least ? { id: least.id, name: least.name, margin: least.margin } : null,
  };
}

/** Order of what is not ranked by its score. */
const PLACES: readonly Fitted['verdict'][] = ['fits', 'not-known', 'does-not-fit'];

/** Candidates against one vehicle: those that fit by their score, equal ones by their least margin; then what is not known yet; then what does not fit. */
export const compared = (place: FittingPlace, candidates: readonly Candidate[]): Fitted[] =>
  candidates
    .map((candidate) => fitted(place, candidate))
    .sort(
      (a, b) =>
        PLACES.indexOf(a.verdict) - PLACES.indexOf(b.verdict) ||
        (b.score ?? 0) - (a.score ?? 0) ||
        (b.least?.margin ?? 0) - (a.least?.margin ?? 0),
    );
