import { inputVector } from '../model/vectors';
import { type Descriptor, type Vector } from '../model/descriptor';
import { type Fault, type Family } from '../contract/family';
import { healthyBand } from '../procedure/predict';

/** A reading that a fault moves out of what a healthy unit can show. SI. */
export interface Moved extends Pick<Descriptor, 'id' | 'name' | 'quantity'> {
  readonly healthy: number;
  readonly faulty: number;
}

/** The conditions at which faults are laid beside each other. */
const SUPPLY_PA = 20 * 3386.389;
const BAROMETER_PA = 101_325;
const ROOM_K = 293.15;
const HOLD_S = 60;
const APPLICATIONS = 6;
/** A reading moves where it leaves the healthy band by this part of it. */
const BEYOND = 0.02;

type Band = ReturnType<typeof healthyBand>;
/** What healthy units of a profile show, each reading in turn: the same for every fault that is laid beside it. */
const BANDS = new WeakMap<object, Map<string, readonly Band[]>>();

function bandsOf(family: Family, profile: unknown, make: () => readonly Band[]): readonly Band[] {
  const known = BANDS.get(profile as object) ?? new Map<string, readonly Band[]>();
  BANDS.set(profile as object, known);
  const bands = known.get(family.kind) ?? make();
  known.set(family.kind, bands);
  return bands;
}

/**
 * What a severe fault moves: the twin’s readings that leave the healthy band, at the profile’s own test input, 20 inHg
 * at sea level, a hold of a minute and six applications from the reserve.
 */
export function movedBy(family: Family, profile: unknown, fault: Fault): Moved[] {
  const unit = family.healthy(profile);
  const { values } = unit;
  const known: Record<string, number> = {
    supply_Pa: SUPPLY_PA,
    barometer_Pa: BAROMETER_PA,
    temperature_K: ROOM_K,
    elapsed_s: HOLD_S,
    applications: APPLICATIONS,
    ...family.full(profile),
  };
  const inputs = inputVector(family.inputs, known);
  const at = (parameters: Vector, seconds: number) =>
    family.steady(
      parameters,
      inputs.map((value, i) => (family.inputs[i]!.id === 'elapsed_s' ? seconds : value)),
    );
  const severe = fault.apply(values, 1);
  const [healthy, faulty] = [at(values, HOLD_S), at(severe, HOLD_S)];
  const [healthyStart, faultyStart] = [at(values, 0), at(severe, 0)];
  const bands = bandsOf(family, profile, () =>
    family.readings.map((_, place) => {
      const wanted = new Set([place]);
      return healthyBand((parameters) => family.steady(parameters, inputs, wanted)[place]!, unit);
    }),
  );
  return family.readings.flatMap(({ id, name, quantity }, place): Moved[] => {
    const band = bands[place]!;
    const room = BEYOND * Math.max(Math.abs(band.high), Math.abs(faulty[place]!));
    const out = faulty[place]! < band.low - room || faulty[place]! > band.high + room;
    // Over a hold it is the fall that tells, not where it began: more than twice what a healthy unit loses.
    const fall_healthy = healthyStart[place]! - healthy[place]!;
    const fall_faulty = faultyStart[place]! - faulty[place]!;
    const falls = Math.abs(fall_faulty - fall_healthy) > Math.abs(fall_healthy) && fall_healthy !== 0;
    return out || falls ? [{ id, name, quantity, healthy: healthy[place]!, faulty: faulty[place]! }] : [];
  });
}
