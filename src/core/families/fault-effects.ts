import { healthyBand } from '../procedure/predict';
import { placeOf, type Descriptor, type Fault, type Family } from '../twin/family';

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
/** A reading moves where it leaves the healthy band by this part of it. */
const BEYOND = 0.02;

/**
 * What a severe fault moves: the twin’s readings that leave the healthy band, at the profile’s own test input, 20 inHg
 * at sea level and a hold of a minute.
 */
export function movedBy(family: Family, profile: unknown, fault: Fault): Moved[] {
  const { values, tolerances } = family.healthy(profile);
  const known: Record<string, number> = {
    input_Pa: (profile as { fullInput_Pa?: number }).fullInput_Pa ?? 0,
    supply_Pa: SUPPLY_PA,
    barometer_Pa: BAROMETER_PA,
    temperature_K: ROOM_K,
    elapsed_s: HOLD_S,
  };
  const inputs = family.inputs.map(({ id }) => known[id] ?? 0);
  const healthy = family.steady(values, inputs);
  const faulty = family.steady(fault.apply(values, 1), inputs);
  return family.readings.flatMap(({ id, name, quantity }): Moved[] => {
    const place = placeOf(family.readings, id);
    const band = healthyBand((p) => family.steady(p, inputs)[place]!, values, tolerances);
    const room = BEYOND * Math.max(Math.abs(band.high), Math.abs(faulty[place]!));
    const out = faulty[place]! < band.low - room || faulty[place]! > band.high + room;
    return out ? [{ id, name, quantity, healthy: healthy[place]!, faulty: faulty[place]! }] : [];
  });
}
